/**
 * Values as they are written by hand, in a line of an editor or a cell of a table: bare where their kind is known, so
 * that the digits of a text stay a text; else as JSON.
 */
import { readTypedNumber, showNumber, type NumberStyle } from '../form/number-style';
import type { Field, Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import { traitsOf, type Spelling } from '../form/traits';
import type { Value } from '../form/value';

/** What a spelling takes, to say it where something else stands. */
export const SPELLED: Readonly<Record<Spelling, string>> = {
  text: 'a text',
  number: 'a number',
  'yes or no': 'yes or no',
  keys: 'keys, separated by commas',
  json: 'JSON',
};

const OF_ASPECTS: Readonly<Record<string, Spelling>> = {
  shown: 'yes or no',
  onScreen: 'yes or no',
  locked: 'yes or no',
  editable: 'yes or no',
  required: 'yes or no',
  orphan: 'yes or no',
  label: 'text',
  hint: 'text',
  warning: 'text',
  problem: 'text',
  fault: 'text',
  stage: 'text',
  options: 'keys',
  count: 'number',
};

const OF_THE_FORM: Readonly<Record<string, Spelling>> = {
  '@as': 'text',
  '@record': 'text',
  '@page': 'text',
  '@replaced': 'text',
  '@submit.saved': 'yes or no',
  '@submit.stoppedBy': 'text',
};

/** The field, or the cell of a row, that an address names. */
export function fieldAt(form: Form, address: string): Field | null {
  const [owner, cell] = address.replace(/\[\d+\]/, '').split('.') as [string, string?];
  const field = fieldsOf(form).find(({ name }) => name === owner) ?? null;
  if (field === null || cell === undefined) return field;
  return cellsOf(field).find(({ name }) => name === cell) ?? null;
}

/** How an aspect of a part is written, or an input, or what is expected of the form as a whole. */
export function spellingOf(form: Form, name: string, aspect = 'value'): Spelling {
  if (name.startsWith('@fails.')) return 'yes or no';
  if (name.startsWith('@launch.')) {
    const parameter = form.launch?.find((one) => one.name === name.slice('@launch.'.length));
    return parameter === undefined ? 'json' : traitsOf(parameter).spelling;
  }
  if (name.startsWith('@')) return Object.hasOwn(OF_THE_FORM, name) ? OF_THE_FORM[name]! : 'json';
  if (aspect !== 'value') return Object.hasOwn(OF_ASPECTS, aspect) ? OF_ASPECTS[aspect]! : 'json';
  const field = fieldAt(form, name);
  return field === null ? 'json' : traitsOf(field).spelling;
}

/** Nothing is empty; undefined where the text is no value of that spelling. */
export function readWritten(
  text: string,
  spelling: Spelling,
  numbers: NumberStyle = 'point',
): Value | undefined {
  const bare = text.trim();
  if (bare === '') return null;
  switch (spelling) {
    case 'text':
      // A text in quotes is what stands between them.
      return bare.startsWith('"') ? (asText(readJson(bare)) ?? bare) : bare;
    case 'number':
      return readTypedNumber(bare, numbers) ?? undefined;
    case 'yes or no':
      return /^(?:yes|true)$/i.test(bare) ? true : /^(?:no|false)$/i.test(bare) ? false : undefined;
    case 'keys': {
      const keys = bare.startsWith('[') ? readJson(bare) : bare.split(/[\s,;]+/);
      return Array.isArray(keys) ? keys : undefined;
    }
    case 'json':
      return readJson(bare) ?? (/^[["{]/.test(bare) ? undefined : bare);
  }
}

/** A value as `readWritten` reads it. */
export function written(value: Value, spelling: Spelling, numbers: NumberStyle = 'point'): string {
  if (value === null) return '';
  if (typeof value === 'number' && spelling === 'number') return showNumber(value, numbers);
  if (typeof value === 'string') {
    const isBare = value !== '' && value === value.trim() && !value.startsWith('"');
    const isMistakable = spelling !== 'text' && readWritten(value, spelling) !== value;
    return isBare && !isMistakable ? value : JSON.stringify(value);
  }
  const areKeys =
    spelling === 'keys' &&
    Array.isArray(value) &&
    value.length > 0 &&
    value.every((key) => typeof key === 'string' && /^[^\s,;["]+$/.test(key));
  return areKeys ? value.join(', ') : JSON.stringify(value);
}

const asText = (value: Value | undefined) => (typeof value === 'string' ? value : undefined);

function readJson(text: string): Value | undefined {
  try {
    return JSON.parse(text) as Value;
  } catch {
    return undefined;
  }
}
