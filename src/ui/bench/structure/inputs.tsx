'use client';
/** The inputs in which a definition is edited. */
import { useState } from 'react';
import { Checkbox, Labelled, Line, Select } from '../../kit';
import { useNumbers } from '../../writing';

/** A definition as its inputs see it. */
export type DefinitionValues = Record<string, unknown>;

/** What every input of a definition is given: what it says now, and how it is changed; an edit that is refused is said above. */
export interface Shared {
  definition: DefinitionValues;
  change: (to: DefinitionValues) => boolean;
  name: string;
  label: string;
}

/** A line that is taken over when it is left or Enter is pressed; Esc puts back what was there. */
export function Committed({
  label,
  value,
  name,
  mono,
  width,
  type,
  focused = false,
  onCommit,
}: {
  label: string;
  value: string;
  /** What it is called where its label does not say it. */
  name?: string;
  mono?: boolean;
  width?: string;
  type?: string;
  /** Whether it has the focus from the start, with all of it selected. */
  focused?: boolean;
  /** Whether the text was taken over; what was not is kept, to be corrected. */
  onCommit: (text: string) => boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  const commit = () => {
    if (text === null || text === value || onCommit(text)) setText(null);
  };
  return (
    <Labelled label={label}>
      <Line
        width={width ?? '100%'}
        type={type}
        aria-label={name}
        autoFocus={focused}
        onFocus={(event) => focused && event.target.select()}
        fontFamily={mono ? 'mono' : undefined}
        value={text ?? value}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          if (event.key === 'Escape') setText(null);
        }}
      />
    </Labelled>
  );
}

export function Text({
  definition,
  change,
  name,
  label,
  needed,
  mono,
  type,
  focused,
}: Shared & { needed?: boolean; mono?: boolean; type?: string; focused?: boolean }) {
  const commit = (text: string) => {
    if (needed && text.trim() === '') return false;
    return change({ [name]: text === '' ? undefined : text });
  };
  return (
    <Committed
      label={label}
      value={(definition[name] as string | undefined) ?? ''}
      {...(mono || type !== undefined ? { mono: mono === true, width: '170px' } : {})}
      {...(type === undefined ? {} : { type })}
      {...(focused === undefined ? {} : { focused })}
      onCommit={commit}
    />
  );
}

export function NumberLine({ definition, change, name, label }: Shared) {
  const numbers = useNumbers();
  const commit = (text: string) => {
    if (text.trim() === '') return change({ [name]: undefined });
    const number = numbers.read(text);
    return number !== null && change({ [name]: number });
  };
  const value = definition[name];
  return (
    <Committed
      label={label}
      value={typeof value === 'number' ? numbers.show(value) : ''}
      width="100px"
      onCommit={commit}
    />
  );
}

export function Tick({ definition, change, name, label }: Shared) {
  return (
    <Checkbox
      label={label}
      on={definition[name] === true}
      onSet={(on) => change({ [name]: on ? true : undefined })}
    />
  );
}

export function Choice({
  definition,
  change,
  name,
  label,
  options,
}: Shared & { options: readonly (readonly [string, string])[] }) {
  return (
    <Labelled label={label}>
      <Select
        value={(definition[name] as string | undefined) ?? ''}
        options={options.map(([key, text]) => ({ key, label: text }))}
        onChange={(event) =>
          change({ [name]: event.target.value === '' ? undefined : event.target.value })
        }
      />
    </Labelled>
  );
}

/** One of yes, no, and what holds while neither is said. */
export function YesOrNo({ definition, change, name, label, unset }: Shared & { unset: string }) {
  const value = definition[name] === undefined ? '' : definition[name] === true ? 'yes' : 'no';
  return (
    <Labelled label={label}>
      <Select
        value={value}
        options={[
          { key: '', label: unset },
          { key: 'yes', label: 'yes' },
          { key: 'no', label: 'no' },
        ]}
        onChange={({ target }) =>
          change({ [name]: target.value === '' ? undefined : target.value === 'yes' })
        }
      />
    </Labelled>
  );
}
