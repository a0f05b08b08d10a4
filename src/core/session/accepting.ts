/** What scripts may say of an aspect: each offered value is read as what the aspect takes, or answered with a fault. */
import type { Field, Option, Track } from '../form/definition';
import { accept } from '../form/kinds';
import { inWords, type Value } from '../form/value';
import { ScriptFault, words } from './errors';
import type { Aspect, Part } from './parts';
import { plain } from './plain';
import type { State } from './state';

/** Reads what is offered for the value of a field. Throws ScriptFault. */
export function acceptValue(state: State, part: Part, offered: unknown): Value {
  const { field } = part;
  const accepted = accept(offered, field, state.surroundings(part));
  if (accepted.ok) return accepted.value;
  throw new ScriptFault('wrong_value', words.wrongValue(part.name, field.kind, accepted.takes, offered, accepted.help));
}

/** Reads what is offered for any other aspect. Throws ScriptFault. */
export function acceptAspect(state: State, aspect: Aspect, offered: unknown): Value {
  const { part, name } = aspect;
  const wrong = (takes: string): never => {
    throw new ScriptFault('wrong_value', words.wrongAspect(part.name, name, takes, offered));
  };
  switch (name) {
    case 'shown':
    case 'locked':
    case 'required':
      return typeof offered === 'boolean' ? offered : wrong('true or false');
    case 'hint':
    case 'problem':
    case 'replaced':
      if (offered === null || offered === '') return null;
      return typeof offered === 'string' ? offered : wrong('a text or null');
    case 'label':
      return typeof offered === 'string' && offered !== '' ? offered : wrong('a text');
    case 'stage':
      return acceptStage(part.definition as Track, offered);
    case 'options':
      return acceptOptions(state, part.field, offered, wrong) as unknown as Value;
    default:
      return plain(offered);
  }
}

function acceptStage(track: Track, offered: unknown): Value {
  const keys = track.stages.map(({ key }) => key);
  if (offered === null || (typeof offered === 'string' && keys.includes(offered))) return offered;
  throw new ScriptFault('wrong_value', words.noStage(track.name, keys, offered));
}

/** Options are given as keys, as key and label, or as rows of a table. */
function acceptOptions(state: State, field: Field, offered: unknown, wrong: (takes: string) => never): readonly Option[] {
  if (field.kind !== 'choice' && field.kind !== 'choices' && field.kind !== 'reference') return wrong('nothing: only choices and references have options');
  if (!Array.isArray(offered)) return wrong('a list of options or rows, or undefined to take it back');
  const known = state.optionsOf(field, null)!;
  const table = field.kind === 'reference' ? state.table(field.table) : null;
  const seen = new Set<string>();
  const options: Option[] = [];
  for (const item of offered as unknown[]) {
    const option = readOption(state, item, known, table === null ? null : (key) => rowOption(table, key));
    if (option === null) return wrong('keys, { key, label } or rows of a table');
    if (table !== null && table.find(option.key) === null) return wrong(`keys of table ${table.table.name}, and ${inWords(option.key)} is none`);
    if (!seen.has(option.key)) options.push(option);
    seen.add(option.key);
  }
  return Object.freeze(options);
}

function rowOption(table: ReturnType<State['table']>, key: string): Option | null {
  const row = table.find(key);
  return row === null ? null : table.optionOf(row);
}

function readOption(state: State, item: unknown, known: readonly Option[], byKey: ((key: string) => Option | null) | null): Option | null {
  const find = (key: string) => (byKey === null ? (known.find((option) => option.key === key) ?? null) : byKey(key));
  if (typeof item === 'string') return find(item) ?? Object.freeze({ key: item, label: item });
  if (typeof item !== 'object' || item === null) return null;
  const { key, label } = item as { key?: unknown; label?: unknown };
  for (const table of state.tables.values()) {
    const row = table.find(String((item as Record<string, unknown>)[table.table.key]));
    if (row === item) return table.optionOf(row);
  }
  if (typeof key !== 'string') return null;
  return Object.freeze({ key, label: typeof label === 'string' ? label : (find(key)?.label ?? key) });
}
