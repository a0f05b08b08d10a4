/**
 * Answers to "why" and "why not" as sentences, the same on the bench and on the command line. A sentence is a list of
 * pieces; some of them lead somewhere: to a line, to another question, to an entry of the tape.
 */
import type { Value } from '../form/value';
import type { Line } from '../wire/line';
import type { SaidName } from '../session/aspects';
import type { Tape } from '../tape/tape';
import { becameInWords, entryInWords, valueInWords, type Names } from '../tape/words';
import {
  questionOf,
  type Cause,
  type ConditionMet,
  type Decision,
  type Question,
} from './decision';
import { holds, type Comparison } from './comparison';
import type { LeftOut } from './left-out';
import type { NearMiss } from './near-miss';
import type { WhyNot } from './why-not';

export type Piece =
  | string
  | { text: string; line: { script: string; line: Line } }
  | { text: string; ask: Question }
  | { text: string; entry: number };

export type Sentence = Piece[];

export function textOfSentence(sentence: Sentence): string {
  return sentence.map((piece) => (typeof piece === 'string' ? piece : piece.text)).join('');
}

/** What the answers are about, for names and for what people did. */
export interface Context {
  names: Names;
  who: string;
  tape: Tape;
}

const quotedValue = (value: Value): string =>
  typeof value === 'string' ? JSON.stringify(value) : valueInWords(value);

const lineAt = (script: string, line: number): Piece => ({
  text: `line ${line}`,
  line: { script, line },
});

/** What holds of a part, as a clause: `Pilot is hidden`, `Pilot has the hint “…”`. */
export function standsInWords(name: string, aspect: string, value: Value): string {
  switch (aspect) {
    case 'hint':
    case 'warning':
    case 'problem':
      return value === null
        ? `${name} has no ${aspect}`
        : `${name} has the ${aspect} “${valueInWords(value)}”`;
    case 'label':
      return `${name} has the label “${valueInWords(value)}”`;
    case 'options':
      return Array.isArray(value)
        ? `${name} offers ${value.length === 1 ? '1 option' : `${value.length} options`}`
        : `${name} offers all its options`;
    default:
      return aspect === 'value' && value === null
        ? `${name} is empty`
        : `${name} is ${becameInWords(aspect as SaidName, value)}`;
  }
}

/** The question why it stands so. */
export function questionInWords(name: string, aspect: string, value: Value): string {
  const clause = standsInWords(name, aspect, value).slice(name.length + 1);
  const [verb, ...rest] = clause.split(' ');
  return verb === 'is'
    ? `Why is ${name} ${rest.join(' ')}?`
    : `Why does ${name} ${verb === 'has' ? 'have' : 'offer'} ${rest.join(' ')}?`;
}

export function decisionInWords(decision: Decision, { names, who, tape }: Context): Sentence[] {
  const { part, aspect, value, run, line, statement } = decision;
  const named = standsInWords(names.part(part), aspect, value);
  const by = (): string =>
    run === null
      ? ''
      : run.sort === 'rule'
        ? `rule “${run.title}” of ${names.behaviour(run.behaviour)}`
        : names.behaviour(run.behaviour);
  const sentences: Sentence[] = [];
  switch (decision.decided) {
    case 'definition':
      sentences.push([
        aspect === 'value' && value === null
          ? `${named}: nobody entered anything, and no script set it.`
          : `${named}: no script says anything of it, so the form’s definition holds.`,
      ]);
      break;
    case 'record':
      sentences.push([`${named}: it came with the record.`]);
      break;
    case 'row': {
      const step = tape.causeOf(tape.entry(decision.entry!)!);
      sentences.push(
        run !== null
          ? [
              `${named}: it came with its row, which ${by()} added`,
              ...(line === null ? [] : [' on ', whereOf(line, run.behaviour)]),
              '.',
            ]
          : step === null
            ? [`${named}: it came with its row.`]
            : [
                `${named}: it came with its row, when `,
                { text: entryInWords(step, names, who), entry: step.n },
                '.',
              ],
      );
      break;
    }
    case 'entered': {
      const step = tape.causeOf(tape.entry(decision.entry!)!);
      sentences.push([
        `${named} because `,
        step === null
          ? 'somebody entered it'
          : { text: entryInWords(step, names, who), entry: step.n },
        '.',
      ]);
      break;
    }
    case 'corrected':
      sentences.push([
        `${named}: the form itself cleared it, since the value was no longer offered or the field went off screen.`,
      ]);
      break;
    case 'withdrawn':
      sentences.push([
        `${named}: ${by()} said otherwise or the same before, and says nothing of it now.`,
      ]);
      break;
    case 'said':
      sentences.push([
        `${named}: ${by()} says so`,
        ...(line === null ? [] : [' on ', whereOf(line, run!.behaviour)]),
        statement === null
          ? '.'
          : `: ${statement.replace(/;$/, '')}${sidesOf(decision.comparisons)}.`,
      ]);
  }
  for (const times of bySite(decision.conditions)) sentences.push(conditionsInWords(times));
  for (const near of decision.near) sentences.push([nearMissInWords(near)]);
  const causes = decision.causes.map((cause) =>
    causeInWords(cause, decision, { names, who, tape }),
  );
  if (causes.length > 0)
    sentences.push([
      'It depends on ',
      ...causes.flatMap((cause, i) =>
        i === 0 ? cause : [i === causes.length - 1 ? ' and ' : ', ', ...cause],
      ),
      '.',
    ]);
  return sentences;
}

function whereOf(line: Line, behaviour: string): Piece {
  return {
    text: typeof line === 'number' ? `line ${line}` : `${line.replace(':', ', line ')}`,
    line: { script: behaviour, line },
  };
}

/** So many comparisons of one statement are told. */
const MOST_SIDES = 6;

function sidesOf(comparisons: readonly Comparison[]): string {
  if (comparisons.length === 0) return '';
  const told = comparisons.slice(0, MOST_SIDES).map(comparisonInWords).join(', ');
  return ` (${told}${comparisons.length > MOST_SIDES ? ', …' : ''})`;
}

/** Conditions in order, each with all the times that it was looked at. */
function bySite(conditions: readonly ConditionMet[]): ConditionMet[][] {
  const sites = new Map<string, ConditionMet[]>();
  for (const condition of conditions) {
    const key = `${condition.script} ${condition.site}`;
    const known = sites.get(key);
    if (known === undefined) sites.set(key, [condition]);
    else known.push(condition);
  }
  return [...sites.values()];
}

/** One that was looked at often, as in a callback, is told once. */
function conditionsInWords(times: readonly ConditionMet[]): Sentence {
  const [first] = times;
  if (times.length === 1) return conditionInWords(first!);
  const held = times.filter(({ came }) => holds(came));
  const sides = ({ comparisons }: ConditionMet) => comparisons.map(comparisonInWords).join(', ');
  const failed = times.filter(({ came }) => !holds(came));
  const told = [
    held.length === 0 ? '' : `held ${timesInWords(held.length)}`,
    failed.length === 0 ? '' : `did not hold ${timesInWords(failed.length)}`,
  ].filter((text) => text !== '');
  const example = failed.find(({ comparisons }) => comparisons.length > 0);
  return [
    capital(lineAt(first!.script, first!.line)),
    `: ${first!.text} ${told.join(' and ')}${example === undefined ? '' : `, first where ${sides(example)}`}.`,
  ];
}

function timesInWords(count: number): string {
  return count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`;
}

function conditionInWords({ script, line, text, came, comparisons }: ConditionMet): Sentence {
  const sides = comparisons.map(comparisonInWords).join(', ');
  return [
    capital(lineAt(script, line)),
    `: ${text} ${typeof came === 'boolean' || came === null ? (holds(came) ? 'holds' : 'does not hold') : `is ${quotedValue(came)}`}${sides === '' ? '' : ` (${sides})`}.`,
  ];
}

function capital(piece: Piece): Piece {
  const up = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  return typeof piece === 'string' ? up(piece) : { ...piece, text: up(piece.text) };
}

const HOLDS: Readonly<Record<string, string>> = {
  '===': '=',
  '==': '=',
  '!==': '≠',
  '!=': '≠',
  '>=': '≥',
  '<=': '≤',
  includes: 'has',
};
/** Of two numbers that compare otherwise. */
const OPPOSITE: Readonly<Record<string, string>> = { '>': '≤', '>=': '<', '<': '≥', '<=': '>' };
const FAILS: Readonly<Record<string, string>> = {
  '===': '≠',
  '==': '≠',
  '!==': '=',
  '!=': '=',
  includes: 'has no',
};

/** Both sides as they were: `"own" ≠ "none"`, `7 > 5`. */
export function comparisonInWords({ op, left, right, came }: Comparison): string {
  const numbers = typeof left.value === 'number' && typeof right.value === 'number';
  const sign = came
    ? (HOLDS[op] ?? op)
    : (FAILS[op] ?? (numbers ? OPPOSITE[op] : undefined) ?? `is not ${HOLDS[op] ?? op}`);
  const list = op === 'includes' && Array.isArray(left.value);
  const first = list
    ? `[${(left.value as Value[]).map(quotedValue).join(', ')}]`
    : quotedValue(left.value);
  return `${first} ${sign} ${quotedValue(right.value)}`;
}

const OPENING: Readonly<Record<string, string>> = {
  person: 'who opened the form',
  launch: 'the launch parameters',
  isNew: 'whether the entry is new',
  record: 'which record is open',
  viewing: 'whether the form is only looked at',
};

function causeInWords(cause: Cause, decision: Decision, { names }: Context): Piece[] {
  switch (cause.is) {
    case 'read': {
      const text =
        cause.aspect === 'value'
          ? `${names.part(cause.part)} (${quotedValue(cause.value)})`
          : `${names.part(cause.part)}, ${cause.aspect} (${quotedValue(cause.value)})`;
      return [{ text, ask: questionOf(cause, decision)! }];
    }
    case 'event': {
      const what =
        cause.part === null ? cause.event : `${cause.event} of ${names.part(cause.part)}`;
      return ['the event ', { text: what, entry: cause.entry }];
    }
    case 'answer':
      return [
        {
          text: cause.name === 'after' ? 'the time that passed' : `the answer of ${cause.name}`,
          entry: cause.entry,
        },
        cause.fails === null ? '' : ` (failed: ${cause.fails})`,
      ];
    case 'opening':
      return [OPENING[cause.what] ?? cause.what];
    case 'clock':
      return ['the clock'];
    case 'random':
      return ['chance'];
    case 'variable':
      return [
        `the variable ${cause.name} of ${names.behaviour(cause.script)}, which is kept between runs`,
      ];
  }
}

export function whyNotInWords({ writer, run, outcome }: WhyNot, { names }: Context): Sentence[] {
  const title = names.behaviour(writer.script);
  const where: Piece[] = [
    { text: `Line ${writer.line}`, line: { script: writer.script, line: writer.line } },
    ` of ${title}`,
  ];
  const event =
    writer.tied.length === 0
      ? writer.event
      : `${writer.event} of ${writer.tied.map((part) => names.part(part)).join(' or ')}`;
  switch (outcome.is) {
    case 'never ran':
      return [
        [
          ...where,
          writer.sort === 'rule'
            ? ' stands in a rule that has not run since the form was opened.'
            : ` runs on ${event}, which has not happened since the form was opened.`,
        ],
      ];
    case 'said':
      return [[...where, ` says ${quotedValue(outcome.value)}.`]];
    case 'overruled':
      return [
        [
          ...where,
          ` says ${quotedValue(outcome.value)}, and `,
          outcome.by === null || outcome.by.behaviour === ''
            ? 'something later says otherwise.'
            : {
                text: `“${outcome.by.title}” of ${names.behaviour(outcome.by.behaviour)}`,
                entry: outcome.by.entry,
              },
          ...(outcome.by === null || outcome.by.behaviour === ''
            ? []
            : [' says otherwise after it.']),
        ],
      ];
    case 'failed':
      return [[...where, ` was not reached: the run failed, ${outcome.failure.says}`]];
    case 'waits':
      return [[...where, ' is not reached yet: ', { text: 'the run', entry: run! }, ' waits.']];
    case 'not reached':
      return [[...where, ' was not reached in ', { text: 'the last run', entry: run! }, '.']];
    case 'kept':
      return outcome.by.flatMap((kept, i): Sentence[] => [
        [
          ...(i === 0 ? [...where, ' was not reached: '] : ['Then ']),
          i === 0 ? lineAt(kept.script, kept.line) : lineAt(kept.script, kept.line),
          ` wanted ${kept.wanted === false ? 'not ' : ''}${kept.text}${i === 0 ? '' : ' too'}`,
          kept.comparisons.length === 0
            ? `, which is ${quotedValue(kept.came)}.`
            : `: ${kept.comparisons.map(comparisonInWords).join(', ')}.`,
        ],
        ...kept.near.map((near): Sentence => [nearMissInWords(near)]),
      ]);
  }
}

/** What left an option out, as a sentence. */
export function leftOutInWords({ key, label, by }: LeftOut): Sentence {
  const named = `${label} (${JSON.stringify(key)}) is not offered: `;
  if (by === null)
    return [`${named}no line looked at it alone, and the list that was set is without it.`];
  return [
    named,
    lineAt(by.script, by.line),
    by.comparisons.length === 0
      ? ` left it out, since ${by.text} does not hold.`
      : ` left it out, since ${by.comparisons.map(comparisonInWords).join(', ')}.`,
  ];
}

export function nearMissInWords(near: NearMiss): string {
  switch (near.is) {
    case 'label':
      return `“${near.label}” is the label of an option; scripts compare its key, ${JSON.stringify(near.key)}.`;
    case 'case':
      return 'The two differ in capital letters alone.';
    case 'spaces':
      return 'The two differ in spaces alone.';
    case 'kind':
      return 'One side is a text and the other is not, though both read the same.';
    case 'list':
      return 'One side is a list that holds the other; ask with includes.';
    case 'empty':
      return 'One side is empty.';
    case 'unknown key':
      return `No option has the key ${JSON.stringify(near.key)}; there is ${near.keys.join(', ')}.`;
  }
}
