'use client';
/**
 * A reference with many rows: typing finds them by key or label, and only the first that fit are listed. Scripts see the
 * same steps as with a list.
 */
import { createListCollection } from '@chakra-ui/react/collection';
import { Combobox } from '@chakra-ui/react/combobox';
import { Portal } from '@chakra-ui/react/portal';
import { useMemo } from 'react';
import type { Option } from '@/core/form/definition';
import { useTyped } from '../typed';
import { look, named, type InputProps } from './input';

const SHOWN = 50;

/** The options that hold all words typed, those that begin with them first. */
export function found(options: readonly Option[], typed: string): Option[] {
  const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return options.slice(0, SHOWN);
  const begins: Option[] = [];
  const holds: Option[] = [];
  for (const option of options) {
    const text = `${option.label} ${option.key}`.toLowerCase();
    if (!words.every((word) => text.includes(word))) continue;
    (text.startsWith(words[0]!) ? begins : holds).push(option);
    if (begins.length >= SHOWN) break;
  }
  return [...begins, ...holds].slice(0, SHOWN);
}

export function SearchInput(props: InputProps) {
  const { options, value } = props;
  const chosen = useMemo(
    () =>
      value === null
        ? null
        : (options.find((option) => option.key === value) ?? {
            key: String(value),
            label: `${String(value)} (no longer offered)`,
          }),
    [options, value],
  );
  const label = chosen?.label ?? '';
  const [typed, setTyped] = useTyped(label);
  // The label of the chosen option is not a search.
  const searched = typed === label ? '' : typed;
  const items = useMemo(() => found(options, searched), [options, searched]);
  const collection = useMemo(
    () =>
      createListCollection({
        items:
          chosen === null || items.some((item) => item.key === chosen.key)
            ? items
            : [chosen, ...items],
        itemToString: (item) => item.label,
        itemToValue: (item) => item.key,
      }),
    [items, chosen],
  );
  return (
    <Combobox.Root
      unstyled
      collection={collection}
      value={chosen === null ? [] : [chosen.key]}
      inputValue={typed}
      disabled={!props.editable}
      openOnClick
      selectionBehavior="replace"
      onInputValueChange={({ inputValue, reason }) => {
        if (reason === 'input-change') setTyped(inputValue);
      }}
      onValueChange={({ value: [key] }) => {
        if (key !== undefined && key !== value) props.onCommit(key);
        setTyped(options.find((option) => option.key === key)?.label ?? label);
      }}
      onOpenChange={({ open }) => {
        if (!open && typed.trim() === '' && value !== null) props.onCommit(null);
        else if (!open) setTyped(label);
      }}
      ids={{ input: props.id }}
    >
      <Combobox.Control>
        <Combobox.Input
          {...named(props)}
          {...look(props)}
          onBlur={props.onBlur}
          placeholder="Type to search"
        />
      </Combobox.Control>
      <Portal>
        <Combobox.Positioner zIndex={20}>
          <Combobox.Content
            bg="sheet"
            borderWidth="1px"
            borderColor="edge"
            borderRadius="4px"
            maxH="260px"
            overflowY="auto"
            minW="220px"
            boxShadow="raised"
          >
            {items.length === 0 && (
              <Combobox.Empty px="9px" py="4px" color="soft">
                Nothing found
              </Combobox.Empty>
            )}
            {collection.items.map((item) => (
              <Combobox.Item
                key={item.key}
                item={item}
                px="9px"
                py="3px"
                minH="24px"
                cursor="pointer"
                _highlighted={{ bg: 'actGround' }}
              >
                <Combobox.ItemText>{item.label}</Combobox.ItemText>
              </Combobox.Item>
            ))}
            {items.length >= SHOWN && (
              <div style={{ padding: '3px 9px', opacity: 0.75, fontSize: 12 }} aria-hidden>
                Type on to find more of {options.length}
              </div>
            )}
          </Combobox.Content>
        </Combobox.Positioner>
      </Portal>
    </Combobox.Root>
  );
}
