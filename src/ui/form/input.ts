/** What every input of the sheet gets, and how it looks and is named. */
import type { Field, Option } from '@/core/form/definition';
import type { FileValue } from '@/core/form/kinds';
import type { Value } from '@/core/form/value';

export interface InputProps {
  field: Field;
  id: string;
  /** Names the input where no label stands beside it. */
  label: string | undefined;
  value: Value;
  options: readonly Option[];
  /** The time zone that moments are shown in. */
  zone: string;
  editable: boolean;
  required: boolean;
  invalid: boolean;
  describedBy: string | undefined;
  /** Said by a script, and shown so on the bench. */
  marked: boolean;
  /** Keeps the content of a file; null where nothing is kept. */
  upload: ((file: File) => Promise<FileValue>) | null;
  onCommit: (value: Value) => void;
  /** Each keystroke; only where a behaviour listens. */
  onType: ((value: Value) => void) | null;
  onFocus: () => void;
  onBlur: () => void;
}

export const look = (props: InputProps) =>
  ({
    width: '100%',
    minH: '28px',
    px: '9px',
    py: '3px',
    borderWidth: '1px',
    borderRadius: '4px',
    borderColor: props.invalid ? 'bad' : props.marked ? 'saidEdge' : 'edge',
    boxShadow: props.marked ? 'inset 0 -2px 0 var(--tavro-colors-said-edge)' : undefined,
    bg: props.editable ? 'field' : 'lockedField',
    color: 'ink',
  }) as const;

export const named = (props: InputProps) => ({
  id: props.id,
  'aria-label': props.label,
  'aria-required': props.required,
  'aria-invalid': props.invalid,
  'aria-describedby': props.describedBy,
  onFocus: props.onFocus,
});
