'use client';
/** The options of a field or the stages of a track: labels that change freely, and keys, which are looked up before they change. */
import { useMaterial } from '../common/use-bench';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { Option } from '@/core/form/definition';
import { placeOf, type PartName } from '@/core/structure/edit';
import {
  changedOption,
  keyFor,
  movedOption,
  optionsIn,
  withoutOption,
  withOption,
  type OptionsEdit,
} from '@/core/structure/options';
import { get } from '../../api';
import { Button, countInWords, Line, Mono } from '../../kit';
import type { Bench } from '../create-bench';
import { Decision } from './decision';
import { Committed } from './inputs';
import { KeyChange } from './renaming';

interface KeyUses {
  mentions: { behaviour: string; line: number; text: string }[];
  scenarios: string[];
  records: { count: number; more: boolean };
}

/** A change of a key that is in use: to another one, or its removal. */
type Pending = { key: string } & ({ to: string } | { says: string });

interface OptionsProps {
  bench: Bench;
  part: PartName;
  list: 'options' | 'stages';
  options: readonly Option[];
  title: string;
}

export function Options({ bench, part, list, options, title }: OptionsProps) {
  const [pending, setPending] = useState<Pending | null>(null);
  const form = useMaterial(bench).form.name;
  /** Makes an edit of the options as they are when it is made, so that none undoes another. */
  const apply = (edit: OptionsEdit): boolean => {
    const now = placeOf(bench.core.form(), part)?.definition as Record<string, unknown> | undefined;
    return (
      now !== undefined &&
      bench.structure.edit({
        do: 'change',
        part,
        to: { [list]: edit((now[list] ?? []) as readonly Option[]) },
      })
    );
  };
  /** Where a key is used, in words; the empty text where it is not. */
  const usesOf = async (key: string): Promise<string> => {
    const reply = await get<KeyUses>(
      `/api/forms/${form}/uses?${new URLSearchParams({ part, key }).toString()}`,
    );
    return reply.ok ? usesInWords(reply.body) : 'It could not be looked up whether it is in use.';
  };
  const changeKey = async (key: string, to: string) => {
    if ((await usesOf(key)) === '') apply(changedOption(key, { key: to }));
    else setPending({ key, to });
  };
  const remove = async (key: string) => {
    const says = await usesOf(key);
    if (says === '') apply(withoutOption(key));
    else setPending({ key, says });
  };
  const least = list === 'stages' ? 1 : 0;
  return (
    <chakra.fieldset borderTopWidth="1px" borderColor="line" pt="6px">
      <chakra.legend fontWeight={620} pr="6px">
        {title}
      </chakra.legend>
      <Flex color="soft" fontSize="12.5px" gap="6px" aria-hidden>
        <Box flex="1 1 240px">Label</Box>
        <Box flex="0 0 180px">Key</Box>
        <Box flex="0 0 84px" />
      </Flex>
      {options.map((option, i) => (
        <Box key={option.key} mt="3px">
          <OptionLine
            option={option}
            isFirst={i === 0}
            isLast={i === options.length - 1}
            isOnly={options.length === least}
            apply={apply}
            onKey={(to) => void changeKey(option.key, to)}
            onRemove={() => void remove(option.key)}
          />
          {pending?.key === option.key &&
            ('to' in pending ? (
              <KeyChange
                bench={bench}
                part={part}
                from={option.key}
                to={pending.to}
                onHere={() => {
                  apply(changedOption(option.key, { key: pending.to }));
                  setPending(null);
                }}
                onDone={() => setPending(null)}
              />
            ) : (
              <Decision label={`The key ${option.key} is in use`}>
                The key <Mono>{option.key}</Mono> is in use: {pending.says}
                <Flex gap="8px" mt="4px">
                  <Button
                    onClick={() => {
                      apply(withoutOption(option.key));
                      setPending(null);
                    }}
                  >
                    Remove it all the same
                  </Button>
                  <Button onClick={() => setPending(null)}>Keep it</Button>
                </Flex>
              </Decision>
            ))}
        </Box>
      ))}
      <NewOption options={options} list={list} apply={apply} />
    </chakra.fieldset>
  );
}

const SMALL = {
  look: 'text',
  color: 'soft',
  px: '4px',
  minW: '26px',
  minH: '26px',
  textDecoration: 'none',
} as const;

function OptionLine({
  option: { key, label },
  isFirst,
  isLast,
  isOnly,
  apply,
  onKey,
  onRemove,
}: {
  option: Option;
  isFirst: boolean;
  isLast: boolean;
  isOnly: boolean;
  apply: (edit: OptionsEdit) => boolean;
  onKey: (to: string) => void;
  onRemove: () => void;
}) {
  return (
    <Flex gap="6px" align="end">
      <Box flex="1 1 240px" minW="0">
        <Committed
          label=""
          name={`Label of ${label}`}
          value={label}
          onCommit={(to) => to.trim() !== '' && apply(changedOption(key, { label: to.trim() }))}
        />
      </Box>
      <Box flex="0 0 180px">
        <Committed
          label=""
          name={`Key of ${label}`}
          mono
          value={key}
          onCommit={(to) => {
            if (to.trim() !== '') onKey(to.trim());
            return true;
          }}
        />
      </Box>
      <Flex flex="0 0 84px">
        <Button
          {...SMALL}
          aria-label={`${label} up`}
          disabled={isFirst}
          onClick={() => apply(movedOption(key, -1))}
        >
          ↑
        </Button>
        <Button
          {...SMALL}
          aria-label={`${label} down`}
          disabled={isLast}
          onClick={() => apply(movedOption(key, 1))}
        >
          ↓
        </Button>
        <Button {...SMALL} aria-label={`Remove ${label}`} disabled={isOnly} onClick={onRemove}>
          ×
        </Button>
      </Flex>
    </Flex>
  );
}

/** The next option: its key is made from its label until somebody types one; Enter adds it and goes on with the next. */
function NewOption({
  options,
  list,
  apply,
}: {
  options: readonly Option[];
  list: 'options' | 'stages';
  apply: (edit: OptionsEdit) => boolean;
}) {
  const [label, setLabel] = useState('');
  const [key, setKey] = useState<string | null>(null);
  const line = useRef<HTMLInputElement>(null);
  const what = list === 'stages' ? 'stage' : 'option';
  const made = label.trim() === '' ? '' : keyFor(label, options);
  const add = () => {
    if (label.trim() === '') return;
    const wanted = key?.trim() ?? '';
    if (!apply(withOption({ key: wanted === '' ? made : wanted, label: label.trim() }))) return;
    setLabel('');
    setKey(null);
    line.current?.focus();
  };
  const onEnter = (event: React.KeyboardEvent) => event.key === 'Enter' && add();
  return (
    <>
      <Flex gap="6px" mt="6px" align="end">
        <Box flex="1 1 240px" minW="0">
          <Line
            ref={line}
            width="100%"
            aria-label={`Label of a new ${what}`}
            placeholder={`New ${what}`}
            value={label}
            onChange={(event) => setLabel(event.target.value)}
            onKeyDown={onEnter}
            onPaste={(event) => {
              const text = event.clipboardData.getData('text/plain');
              // One line is typed as usual.
              if (!/[\r\n]/.test(text.trim())) return;
              event.preventDefault();
              const several = optionsIn(text, options);
              if (several.length > 0) apply((now) => [...now, ...several]);
            }}
          />
        </Box>
        <Box flex="0 0 180px">
          <Line
            width="100%"
            fontFamily="mono"
            aria-label={`Key of a new ${what}`}
            placeholder="key, from the label"
            value={key ?? made}
            onChange={(event) => setKey(event.target.value)}
            onKeyDown={onEnter}
          />
        </Box>
        <Box flex="0 0 84px">
          <Button disabled={label.trim() === ''} onClick={add}>
            Add
          </Button>
        </Box>
      </Flex>
      <Box color="soft" fontSize="12.5px" mt="3px">
        Enter adds it and goes on with the next. Paste several lines, or two columns of keys and
        labels, to add them all.
      </Box>
    </>
  );
}

function usesInWords({ mentions, scenarios, records }: KeyUses): string {
  const places = [
    ...mentions.slice(0, 4).map(({ behaviour, line }) => `${behaviour}, line ${line}`),
    ...scenarios.slice(0, 3).map((title) => `scenario “${title}”`),
    ...(records.count > 0 ? [countInWords(records)] : []),
  ];
  return places.length === 0 ? '' : `${places.join('; ')}.`;
}
