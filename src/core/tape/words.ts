/** Sentences for the entries of a tape: the same words in the tree, at the markers and in the answers to why. */
import { counted } from '../counted';
import { lineInWords } from '../wire/line';
import type { Form } from '../form/definition';
import type { Value } from '../form/value';
import { cellsOf, fieldsOf } from '../form/fields';
import { entryOf, type SaidName } from '../wire/aspects';
import type { Entry, EffectEntry } from '../session/entries';
import { kindOfStep, type Step, type StepKind, type Steps } from '../session/step';
import { FORM } from '../session/tree';

export interface Names {
  part: (name: string) => string;
  behaviour: (name: string) => string;
  person: (key: string) => string;
}

export function namesFor(
  form: Form,
  behaviours: readonly { name: string; title: string }[],
  people: readonly { key: string; name: string }[],
): Names {
  const labels = new Map([[FORM, 'The form']]);
  for (const page of form.pages) {
    labels.set(page.name, page.title);
    for (const section of page.sections) labels.set(section.name, section.title);
  }
  for (const field of fieldsOf(form)) {
    labels.set(field.name, field.label);
    for (const cell of cellsOf(field)) labels.set(`${field.name}.${cell.name}`, cell.label);
  }
  for (const track of form.tracks ?? []) labels.set(track.name, track.title);
  for (const button of form.buttons ?? []) labels.set(button.name, button.label);
  const titles = new Map(
    behaviours.map((behaviour) => [behaviour.name.replace(/\.[jt]s$/, ''), behaviour.title]),
  );
  return {
    part: (name) => labels.get(name) ?? inRows(name, labels) ?? name,
    behaviour: (name) => titles.get(name) ?? name,
    person: (key) => people.find((person) => person.key === key)?.name ?? key,
  };
}

/** `cargo[0].weight` is a cell by its place, `cargo#3.weight` one by its row, whose place the tape does not tell. */
function inRows(name: string, labels: ReadonlyMap<string, string>): string | null {
  const match = /^(\w+)(?:\[(\d+)\]|#\d+)(?:\.(\w+))?$/.exec(name);
  if (match === null) return null;
  const [, field, place, cell] = match;
  const row = place === undefined ? 'a row' : `row ${Number(place) + 1}`;
  const of = `${row} of ${labels.get(field!) ?? field}`;
  return cell === undefined ? of : `${labels.get(`${field}.${cell}`) ?? cell} in ${of}`;
}

/** The same names, with rows by the place that they have now in place of their ids. */
export function withPlaces(
  names: Names,
  rows: Readonly<Record<string, { order: readonly string[] }>>,
): Names {
  return {
    ...names,
    part: (name) => {
      const [, field, id, cell = ''] = /^(\w+)#(\d+)(\.\w+)?$/.exec(name) ?? [];
      if (field === undefined) return names.part(name);
      const place = rows[field]?.order.indexOf(id!) ?? -1;
      return names.part(place < 0 ? name : `${field}[${place}]${cell}`);
    },
  };
}

/** What stands in a circle: a part for its value, or a part and what is said of it, as `stay:shown`. */
export function placeInWords(place: string, names: Names): string {
  const [part, aspect] = place.split(':') as [string, string?];
  return aspect === undefined ? names.part(part) : `${names.part(part)} (${aspect})`;
}

export function valueInWords(value: unknown): string {
  if (value === null || value === undefined) return 'nothing';
  if (Array.isArray(value))
    return value.some((item) => typeof item === 'object' && item !== null)
      ? counted(value.length, 'row')
      : value.length === 0
        ? 'none'
        : value.length > 5
          ? `${value.length} options`
          : value.join(', ');
  if (typeof value === 'object') return JSON.stringify(value);
  return String(value);
}

type InWords<T> = { [K in StepKind]: (step: Steps[K], names: Names, who: string) => T };

/** The two lines at a marker: what was touched, and with what. */
const AT_BEAD: InWords<[string, string]> = {
  set: (step, names) => [names.part(step.set), valueInWords(step.to)],
  input: (step, names) => [names.part(step.input), `typing ${valueInWords(step.to)}`],
  focus: (step, names) => [names.part(step.focus), 'entered'],
  blur: (step, names) => [names.part(step.blur), 'left'],
  click: (step, names) => [names.part(step.click), 'pressed'],
  // A step of no time lets happen what is due at once.
  wait: (step) => ['wait', step.wait === 0 ? 'for what is due' : `${step.wait} ms`],
  turnTo: (step, names) => [names.part(step.turnTo), 'turned to'],
  addRow: (step, names) => [names.part(step.addRow), 'row added'],
  removeRow: (step, names) => [names.part(step.removeRow), 'removed'],
  moveRow: (step, names) => [names.part(step.moveRow), `to place ${step.to + 1}`],
  next: () => ['next record', ''],
  previous: () => ['previous record', ''],
  answer: (step) => [step.answer, step.fails === undefined ? 'answered' : 'failed'],
  fromChild: (step, names) => [
    names.part(step.fromChild),
    `${valueInWords(step.to)}, from a child`,
  ],
  submit: () => ['submit', ''],
};

const SENTENCES: InWords<string> = {
  set: (step, names, who) => `${who} set ${names.part(step.set)} to ${valueInWords(step.to)}`,
  input: (step, names, who) =>
    `${who} typed ${valueInWords(step.to)} into ${names.part(step.input)}`,
  focus: (step, names, who) => `${who} went to ${names.part(step.focus)}`,
  blur: (step, names, who) => `${who} left ${names.part(step.blur)}`,
  click: (step, names, who) => `${who} pressed ${names.part(step.click)}`,
  wait: (step) => (step.wait === 0 ? 'what was due happened' : `${step.wait} ms passed`),
  turnTo: (step, names, who) => `${who} turned to ${names.part(step.turnTo)}`,
  addRow: (step, names, who) => `${who} added a row to ${names.part(step.addRow)}`,
  removeRow: (step, names, who) => `${who} removed ${names.part(step.removeRow)}`,
  moveRow: (step, names, who) => `${who} moved ${names.part(step.moveRow)} to place ${step.to + 1}`,
  next: (_, __, who) => `${who} went to the next record`,
  previous: (_, __, who) => `${who} went to the previous record`,
  answer: (step) =>
    `${step.answer} was answered by hand: ${step.fails === undefined ? valueInWords(step.with ?? null) : `failed, ${step.fails}`}`,
  fromChild: (step, names) =>
    `a form opened from here set ${names.part(step.fromChild)} to ${valueInWords(step.to)}`,
  submit: (_, __, who) => `${who} submitted the form`,
};

export function stepAtMarker(step: Step, names: Names): [string, string] {
  return AT_BEAD[kindOfStep(step)](step as never, names, '');
}

export function stepInWords(step: Step, names: Names, who: string): string {
  return SENTENCES[kindOfStep(step)](step as never, names, who);
}

const quoted = (what: string) => (to: unknown) =>
  to === null ? `no ${what}` : `${what} “${textIn(to)}”`;

/** What became of aspects that are neither a yes and no nor a text of their own name. */
const BECAME: Readonly<Record<string, (to: unknown) => string>> = {
  value: valueInWords,
  options: (to) => (to === null ? 'all options' : `options ${valueInWords(to)}`),
  replaced: (to) => (to === null ? 'its fields show again' : `replaced by “${textIn(to)}”`),
};

/** A message is its text, with or without what goes with it. */
function textIn(to: unknown): string {
  return typeof to === 'object' && to !== null && 'text' in to ? String(to.text) : valueInWords(to);
}

/** What an aspect became, in words of its own: "shown", "not required", "nq3, nq4". */
export function becameInWords(aspect: SaidName, to: unknown): string {
  const { became } = entryOf(aspect);
  if (became === 'quoted') return quoted(aspect)(to);
  if (became === 'special') return BECAME[aspect]!(to);
  return to === true ? became.yes : became.no;
}

function effectInWords(effect: EffectEntry, names: Names): string {
  const { aspect, from, to } = effect;
  const before = aspect === 'value' ? `${valueInWords(from)} → ` : '';
  const note =
    effect.again !== undefined
      ? `, “${effect.again.title}” shows again`
      : effect.withdrawn === true
        ? ', no longer said otherwise'
        : effect.covered === true
          ? ', covered by a later rule'
          : effect.struck === true
            ? ', taken back'
            : '';
  return `${names.part(effect.part)}: ${before}${becameInWords(aspect, to)}${note}`;
}

export function entryInWords(entry: Entry, names: Names, who: string): string {
  switch (entry.type) {
    case 'opened':
      return `opened ${entry.record === null ? 'a new entry' : `record ${entry.record}`} as ${names.person(entry.person)}`;
    case 'step':
      return stepInWords(entry.step, names, entry.by === 'script' ? 'a script' : who);
    case 'refused':
      return `refused: ${entry.why}`;
    case 'event':
      return entry.part === null ? entry.event : `${entry.event} of ${names.part(entry.part)}`;
    case 'run': {
      const failed = entry.outcome === 'failed';
      if (entry.sort === 'invariant') {
        const of = entry.row == null ? '' : ` for ${names.part(entry.row)}`;
        return `“${entry.title}”${of} ${failed ? 'failed' : entry.outcome === 'broken' ? 'does not hold' : 'holds'}`;
      }
      if (entry.sort === 'rule') return `rule “${entry.title}”${failed ? ' failed' : ''}`;
      const event = entry.title.replace(
        / of (\w+)$/,
        (_, part: string) => ` of ${names.part(part)}`,
      );
      return `${names.behaviour(entry.behaviour)} ${failed ? 'failed' : 'ran'} on ${event}`;
    }
    case 'effect':
      return effectInWords(entry as EffectEntry, names);
    case 'conflict':
      return `${entry.between.join(' and ')} say different things of ${names.part(entry.part)}.${entry.aspect}; “${entry.wins}” wins`;
    case 'log':
      return `log: ${entry.values.map(valueInWords).join(' ')}`;
    case 'message':
      return `message: ${entry.text}`;
    case 'error':
      return `${names.behaviour(entry.failure.behaviour)}${entry.failure.line === null ? '' : `, ${lineInWords(entry.failure.line)}`}, ${entry.failure.says}`;
    case 'takenBack':
      return `taken back: ${entry.what}`;
    case 'checked':
      return entry.faults.length === 0
        ? 'checked: nothing amiss'
        : `checked: ${entry.faults.map(({ part, says }) => `${names.part(part)}: ${says}`).join(' ')}`;
    case 'outcome':
      return entry.saved
        ? `saved as ${entry.id}`
        : `not saved${entry.stoppedBy === null ? '' : `, stopped by ${names.part(entry.stoppedBy)}`}`;
    case 'rows':
      return `${names.part(entry.part)}: row ${entry.place + 1} ${entry.did}`;
    case 'call':
      return `called ${entry.name}${entry.name === 'after' ? ` ${String(entry.args)} ms` : `(${valueInWords(entry.args)})`}`;
    case 'answered':
      return entry.fails === null
        ? `${entry.name} answered ${entry.name === 'after' ? '' : valueInWords(entry.with)}`.trim()
        : `${entry.name} failed: ${entry.fails}`;
    case 'superseded':
      return `${names.behaviour(entry.behaviour)}, ${lineInWords(entry.line)}, goes no further: ${entry.why === 'started again' ? 'it was started again' : 'another record was opened'}`;
    case 'toParent':
      return `asked the parent to set ${entry.set} to ${valueInWords(entry.to)}`;
    case 'page':
      return entry.to === null ? 'no page is shown' : `turned to ${names.part(entry.to)}`;
  }
}

/** What a part is by an aspect, to stand behind its name: `is required`, `has no hint`. */
export function stateInWords(aspect: string, value: Value): string {
  switch (aspect) {
    case 'value':
      return value === null ? 'is empty' : `is ${valueInWords(value)}`;
    case 'hint':
    case 'warning':
    case 'problem':
    case 'label':
      return value === null ? `has no ${aspect}` : `has the ${aspect} “${valueInWords(value)}”`;
    case 'options':
      return Array.isArray(value) ? `offers ${valueInWords(value)}` : 'offers all its options';
    case 'onScreen':
      return value === true ? 'is on screen' : 'is off screen';
    case 'editable':
      return value === true ? 'can be changed' : 'is locked';
    case 'exists':
      return value === true ? 'is there' : 'is not there';
    case 'hiddenValue':
      return `is off screen with the value ${valueInWords(value)}`;
    default:
      return `is ${becameInWords(aspect as SaidName, value)}`;
  }
}
