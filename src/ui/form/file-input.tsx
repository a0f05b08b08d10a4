'use client';
/** Files: chosen one by one or several at once, listed with their size, removed by name. */
import { CHOSEN_FILE_BYTES } from '@/core/limits';
import { chakra, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { FieldOf } from '@/core/form/definition';
import type { FileValue } from '@/core/form/kinds';
import { Button } from '../kit';
import type { InputProps } from './input';
import { textOf } from '@/core/form/traits';

const nowhere = {
  options: null,
  table: () => {
    throw new Error('files refer to no table');
  },
};

export function FileInput({ field, ...props }: InputProps & { field: FieldOf<'file'> }) {
  const files = (props.value ?? []) as unknown as readonly FileValue[];
  const picker = useRef<HTMLInputElement>(null);
  const [says, setSays] = useState<string | null>(null);
  const most = field.maxFiles ?? 1;
  const bytes = field.maxBytes ?? CHOSEN_FILE_BYTES;
  const inWords = (file: FileValue) => textOf([file as never], field, nowhere);

  const choose = async (picked: readonly File[]) => {
    setSays(null);
    const large = picked.find((file) => file.size > bytes);
    if (large !== undefined) {
      setSays(`${large.name} is too large: at most ${Math.floor(bytes / 1024)} KiB.`);
      return;
    }
    try {
      if (props.upload !== null) setSays('Keeping the file…');
      const kept = await Promise.all(
        picked.map(
          (file) => props.upload?.(file) ?? { name: file.name, size: file.size, type: file.type },
        ),
      );
      setSays(null);
      const names = new Set(kept.map((file) => file.name));
      props.onCommit(
        [...files.filter((file) => !names.has(file.name)), ...kept].slice(-most) as never,
      );
    } catch (caught) {
      setSays(caught instanceof Error ? caught.message : 'The file could not be kept. Try again.');
    }
  };

  return (
    <chakra.div
      role="group"
      aria-describedby={props.describedBy}
      {...(props.label === undefined
        ? { 'aria-labelledby': `${props.id}-label` }
        : { 'aria-label': props.label })}
    >
      {files.map((file) => (
        <Flex key={file.name} align="center" gap="8px" minH="26px">
          <span>{inWords(file)}</span>
          <Button
            look="text"
            disabled={!props.editable}
            aria-label={`Remove ${file.name}`}
            onClick={() => props.onCommit(files.filter((other) => other !== file) as never)}
          >
            remove
          </Button>
        </Flex>
      ))}
      <input
        ref={picker}
        type="file"
        hidden
        tabIndex={-1}
        aria-hidden
        multiple={most > 1}
        accept={field.types?.join(',')}
        onChange={(event) => {
          void choose([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <Button
        id={props.id}
        disabled={!props.editable}
        onFocus={props.onFocus}
        onBlur={props.onBlur}
        onClick={() => picker.current?.click()}
      >
        {files.length === 0 || most > 1 ? 'Choose a file' : 'Choose another file'}
      </Button>
      {says !== null && (
        <chakra.p fontSize="12.5px" role="status">
          {says}
        </chakra.p>
      )}
    </chakra.div>
  );
}
