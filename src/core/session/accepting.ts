/** What scripts may say of an aspect: each offered value is read as what the aspect takes, or answered with a fault. */
import type { Field, Option, Track } from '../form/definition';
import { accept } from '../form/kinds';
import { inWords, type Value } from '../form/value';
import { ScriptError, words } from '../wire/failures';
import { entryOf, isSaid, type Takes } from '../wire/aspects';
import type { Aspect } from './aspects';
import type { Part } from './parts';
import type { TableIndex } from '../form/table-index';
import type { State } from './state';
import { holdsKeys } from '../form/traits';

/** Reads what is offered for the value of a field. Throws ScriptError. */
export function acceptValue(state: State, part: Part, offered: unknown): Value {
  const { field } = part;
  const accepted = accept(offered, field, state.offers.surroundings(part));
  if (accepted.ok) return accepted.value;
  throw new ScriptError(
    'wrong_value',
    words.wrongValue(part.name, field.kind, accepted.takes, offered, accepted.help),
  );
}

interface Offered {
  offered: unknown;
  state: State;
  part: Part;
  /** Answers that something else is taken. Throws ScriptError. */
  wrong(takes: string): never;
}

type Reader = (offer: Offered) => Value;

const yesOrNo: Reader = ({ offered, wrong }) =>
  typeof offered === 'boolean' ? offered : wrong('true or false');
const textOrNothing: Reader = ({ offered, wrong }) =>
  offered === null || offered === ''
    ? null
    : typeof offered === 'string'
      ? offered
      : wrong('a text or null');
const unread: Reader = ({ wrong }) => wrong('nothing: it can be read, not written');

const READERS: Readonly<Record<Takes, Reader>> = {
  value: ({ state, part, offered }) => acceptValue(state, part, offered),
  'yes or no': yesOrNo,
  'text or nothing': textOrNothing,
  text: ({ offered, wrong }) =>
    typeof offered === 'string' && offered !== '' ? offered : wrong('a text'),
  options: ({ state, part, offered, wrong }) =>
    acceptOptions(state, part.field, offered, wrong) as unknown as Value,
  stage: ({ part, offered }) => acceptStage(part.definition as Track, offered),
  message: ({ offered, wrong }) => readMessage(offered) ?? wrong('a text and a tone'),
  replacement: (offer) => readReplacement(offer.offered) ?? textOrNothing(offer),
};

/** Reads what is offered for any other aspect. Throws ScriptError. */
export function acceptAspect(state: State, aspect: Aspect, offered: unknown): Value {
  const { part, name } = aspect;
  const wrong = (takes: string): never => {
    throw new ScriptError('wrong_value', words.wrongAspect(part.name, name, takes, offered));
  };
  const reader = isSaid(name) ? READERS[entryOf(name).takes] : unread;
  return reader({ offered, state, part, wrong });
}

const TONES: readonly unknown[] = ['info', 'warning', 'error'];

function readMessage(offered: unknown): Value | null {
  const { text, tone } = (offered ?? {}) as { text?: unknown; tone?: unknown };
  return typeof text === 'string' && TONES.includes(tone) ? { text, tone: tone as string } : null;
}

/** A text that is final is told with it, any other alone. */
function readReplacement(offered: unknown): Value | null {
  const { text, final } = (offered ?? {}) as { text?: unknown; final?: unknown };
  if (typeof text !== 'string' || text === '' || typeof final !== 'boolean') return null;
  return final ? { text, final } : text;
}

function acceptStage(track: Track, offered: unknown): Value {
  const keys = track.stages.map(({ key }) => key);
  if (offered === null || (typeof offered === 'string' && keys.includes(offered))) return offered;
  throw new ScriptError('wrong_value', words.noStage(track.name, keys, offered));
}

/** Options are given as keys, as key and label, or as rows of a table. */
function acceptOptions(
  state: State,
  field: Field,
  offered: unknown,
  wrong: (takes: string) => never,
): readonly Option[] {
  if (!holdsKeys(field)) return wrong('nothing: only choices and references have options');
  if (!Array.isArray(offered))
    return wrong('a list of options or rows, or undefined to take it back');
  const known = state.offers.optionsOf(field, null)!;
  const table = field.kind === 'reference' ? state.offers.table(field.table) : null;
  const seen = new Set<string>();
  const options: Option[] = [];
  for (const item of offered as unknown[]) {
    const option = readOption(
      state,
      item,
      known,
      table === null ? null : (key) => rowOption(table, key),
    );
    if (option === null) return wrong('keys, { key, label } or rows of a table');
    if (table !== null && table.find(option.key) === null)
      return wrong(`keys of table ${table.table.name}, and ${inWords(option.key)} is none`);
    if (!seen.has(option.key)) options.push(option);
    seen.add(option.key);
  }
  return Object.freeze(options);
}

function rowOption(table: TableIndex, key: string): Option | null {
  const row = table.find(key);
  return row === null ? null : table.optionOf(row);
}

function readOption(
  state: State,
  item: unknown,
  known: readonly Option[],
  byKey: ((key: string) => Option | null) | null,
): Option | null {
  const find = (key: string) =>
    byKey === null ? (known.find((option) => option.key === key) ?? null) : byKey(key);
  if (typeof item === 'string') return find(item) ?? Object.freeze({ key: item, label: item });
  if (typeof item !== 'object' || item === null) return null;
  const { key, label } = item as { key?: unknown; label?: unknown };
  const ofRow = state.offers.optionOfRow(item);
  if (ofRow !== null) return ofRow;
  if (typeof key !== 'string') return null;
  return Object.freeze({
    key,
    label: typeof label === 'string' ? label : (find(key)?.label ?? key),
  });
}
