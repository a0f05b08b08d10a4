/** Answers to why as sentences, the same on the bench and on the command line. */
import type { RunEntry } from '../session/entries';
import type { SubmitOutcome } from '../session/step';
import type { Value } from '../form/value';
import { valueInWords, type Names } from '../tape/words';
import { bySite, conditionsInWords, nearMissInWords, sidesOf } from './comparison-words';
import { questionOf } from './decide';
import type { Cause, Decision, TakenBack } from './decision';
import {
  capital,
  listed,
  quotedValue,
  stepPiece,
  whereOf,
  type Context,
  type Piece,
  type Sentence,
} from './pieces';
import { summedIn } from './question';
import { isRows, saidInWords, standsInWords } from './standing-words';

export function decisionInWords(decision: Decision, context: Context): Sentence[] {
  const { names } = context;
  const sentences: Sentence[] = [headline(decision, context)];
  if (decision.takenBack !== null) sentences.push(takenBackInWords(decision, context));
  if (decision.refused !== null) {
    const step = context.tape.entry(decision.refused.entry)!;
    sentences.push([stepPiece(step, context), `, which was refused: ${decision.refused.why}.`]);
  }
  for (const times of bySite(decision.conditions)) sentences.push(conditionsInWords(times));
  for (const near of decision.near) sentences.push([nearMissInWords(near, names)]);
  if (decision.decided === 'derived') return sentences;
  const causes = decision.causes.map((cause) => causeInWords(cause, decision, context));
  if (causes.length > 0) sentences.push(['It depends on ', ...listed(causes), '.']);
  return sentences;
}

/** What brought an entry about, as a person would say it: the step. */
function doneBy(decision: Decision, context: Context): Piece {
  const { tape } = context;
  const entry = decision.entry === null ? null : tape.entry(decision.entry);
  const cause = entry === null ? null : tape.causeOf(entry);
  return cause === null ? 'somebody entered it' : stepPiece(cause, context);
}

function headline(decision: Decision, context: Context): Sentence {
  const { names } = context;
  const { aspect, value, run, line, statement } = decision;
  const named = standsInWords(names, decision, value);
  const by = run === null ? '' : runInWords(run, names);
  const on: Piece[] = line === null || run === null ? [] : [' on ', whereOf(line, run.behaviour)];
  const saying =
    statement === null ? '' : `: ${statement.replace(/;$/, '')}${sidesOf(decision.comparisons)}`;
  switch (decision.decided) {
    case 'definition':
      if (aspect === 'page') return [`${named}: it is the first that is shown.`];
      if (decision.takenBack !== null) return [`${named}.`];
      return [
        aspect === 'value' && value === null
          ? `${named}: nobody entered anything, and no script set it.`
          : `${named}: no script says anything of it, so the form’s definition holds.`,
      ];
    case 'record':
      return [`${named}: it came with the record.`];
    case 'row': {
      const what = aspect === 'value' ? 'it came with its row, which' : '';
      if (run !== null)
        return aspect === 'value'
          ? [`${named}: ${what} ${by} added`, ...on, `${saying}.`]
          : [
              `${named}: ${by} ${ROW_DONE[aspect === 'place' ? 'place' : String(value)]} it`,
              ...on,
              `${saying}.`,
            ];
      const step = decision.entry === null ? null : doneBy(decision, context);
      if (step === null) return [`${named}: it came with its row.`];
      return aspect === 'value'
        ? [`${named}: it came with its row, when `, step, '.']
        : [`${named} because `, step, '.'];
    }
    case 'entered':
      return [`${named} because `, doneBy(decision, context), '.'];
    case 'corrected':
      if (aspect === 'page')
        return [`${named}: the form turned to it by itself, since the page before was hidden.`];
      if (aspect === 'messages') return [`${named}: the form itself gave it.`];
      return [
        value === null || (Array.isArray(value) && value.length === 0)
          ? `${named}: the form itself cleared it, since the value was no longer offered or the field went off screen.`
          : `${named}: the form itself put it there, since ${Array.isArray(value) ? 'others of its keys are no longer offered' : 'it is the default, and the field is shown again'}.`,
      ];
    case 'withdrawn':
      return statement === null
        ? [`${named}: ${by} said otherwise or the same before, and says nothing of it now.`]
        : [`${named}: ${by} said otherwise before`, ...on, ', and says nothing of it now.'];
    case 'said':
      return [`${named}: ${by} says so`, ...on, `${saying}.`];
    case 'judged': {
      const root = context.tape.rootOf(context.tape.entry(decision.entry!)!);
      return [`${named}, since `, stepPiece(root, context), `: ${by} says so`, ...on, '.'];
    }
    case 'derived':
      return [
        `${named}${derivedFrom(decision, context)[0]}`,
        ...derivedFrom(decision, context).slice(1),
        '.',
      ];
    case 'checked': {
      const step = decision.step === null ? '' : ` in step ${decision.step}`;
      if (aspect === 'page')
        return [`${named}: the check of the page stopped the turn to another one${step}.`];
      return aspect === 'outcome'
        ? [`${named}${step}: the check found ${stopsInWords(value, names)}.`]
        : [`${named}: the check found it${step}.`];
    }
    case 'stopped': {
      const step = decision.step === null ? '' : ` in step ${decision.step}`;
      const stops = aspect === 'outcome' ? ` (${stopsInWords(value, names)})` : '';
      return statement === null
        ? [`${named}${step}${stops}: ${by} failed`, ...on, '.']
        : [
            `${named}${step}${stops}: ${by} stopped ${aspect === 'page' ? 'the turn to another one' : 'the submission'}`,
            ...on,
            `${saying}.`,
          ];
    }
    case 'saved': {
      const { without } = value as unknown as SubmitOutcome;
      return [
        `${named} in step ${decision.step}`,
        without.length === 0
          ? '.'
          : `, without ${without.map((one) => names.part(one)).join(', ')}, which ${without.length === 1 ? 'was' : 'were'} off screen.`,
      ];
    }
    case 'refused':
      if (aspect === 'page') return [`${named}: the turn to another one was refused.`];
      return [`${named} in step ${decision.step}: ${valueInWords(value)}.`];
    case 'never':
      return [`${named}.`];
  }
}

/** What a row has become of, by the value of the question whether it is there. */
const ROW_DONE: Readonly<Record<string, string>> = {
  true: 'added',
  false: 'removed',
  place: 'moved',
};

function runInWords(
  { sort, title, behaviour }: Pick<RunEntry, 'sort' | 'title' | 'behaviour'>,
  names: Names,
): string {
  return sort === 'rule'
    ? `rule “${title}” of ${names.behaviour(behaviour)}`
    : names.behaviour(behaviour);
}

/** At most so many stops are named in the sentence; the others can be asked as causes. */
const MOST_STOPS = 5;

/** What stopped a submission, each with the part that it stands at. */
function stopsInWords(outcome: Value, names: Names): string {
  const { stops } = outcome as unknown as SubmitOutcome;
  const told = stops
    .slice(0, MOST_STOPS)
    .map(({ part, says }) => (part === null ? `“${says}”` : `${names.part(part)}: “${says}”`))
    .join(', ');
  return stops.length > MOST_STOPS ? `${told} and ${stops.length - MOST_STOPS} more` : told;
}

/** What something is made up of, each to be asked in turn. */
function derivedFrom(decision: Decision, context: Context): Piece[] {
  const { part, aspect, value, causes } = decision;
  const { names } = context;
  if (aspect === 'onScreen' || aspect === 'editable') {
    const word = aspect === 'onScreen' ? ['hidden', 'shown'] : ['locked', 'unlocked'];
    if (causes.length === 0)
      return [
        value === true
          ? `: no script says anything of it or of what is around it`
          : ': the definition lets only scripts change it',
      ];
    return [
      ', since ',
      ...listed(
        causes.map((cause): Piece[] => {
          const read = cause as Cause & { is: 'read' };
          return [
            { text: names.part(read.part), ask: questionOf(cause, decision)! },
            ` is ${word[value === true ? 1 : 0]}`,
          ];
        }),
      ),
    ];
  }
  if (causes.length === 0)
    return summedIn(aspect) !== null ? [`: ${names.part(part)} has no rows`] : [''];
  return [
    ': ',
    ...listed(
      causes.map((cause): Piece[] => {
        if (cause.is === 'read' && summedIn(aspect) !== null)
          return [
            `${quotedValue(cause.value)} in `,
            {
              text: names.part(cause.part.replace(/\.\w+$/, '')).replace(/ of .*$/, ''),
              ask: questionOf(cause, decision)!,
            },
          ];
        return causeInWords(cause, decision, context);
      }),
    ),
  ];
}

/** What was said of it and no longer counts. */
function takenBackInWords({ takenBack, aspect }: Decision, { names, tape }: Context): Sentence {
  const { why, run, said, says, failedAt } = takenBack as TakenBack;
  const by: Piece = { text: capital(runInWords(run, names)), entry: run.entry };
  const failed: Piece[] = [
    ...(failedAt === null ? [] : [' on ', whereOf(failedAt, run.behaviour)]),
    says === null ? '' : ` (${says.replace(/\.$/, '')})`,
  ];
  if (said === null)
    return [by, ' failed in its last run', ...failed, '; what its last good run said stands.'];
  const what: Piece[] = [
    ` ${saidInWords(aspect, said.value)}`,
    ...(said.line === null ? [] : [' on ', whereOf(said.line, run.behaviour)]),
  ];
  const step =
    tape.entry(run.entry) === null ? '' : ` in step ${tape.stepOf(tape.entry(run.entry)!)}`;
  switch (why) {
    case 'failed':
      return [
        by,
        ...what,
        `${step}, and failed`,
        ...failed,
        ', so what it had said was taken back.',
      ];
    case 'superseded':
      return [
        by,
        ...what,
        `${step}, and its run goes no further, since it was started again; what it had said was taken back.`,
      ];
    case 'circle':
      return [
        by,
        ...what,
        `${step}, and all that scripts did in that step was taken back, since it did not settle: ${says ?? ''}`,
      ];
  }
}

const OPENING: Readonly<Record<string, string>> = {
  person: 'who opened the form',
  launch: 'the launch parameters',
  isNew: 'whether the entry is new',
  record: 'which record is open',
  viewing: 'whether the form is only looked at',
};

function causeInWords(cause: Cause, decision: Decision, context: Context): Piece[] {
  const { names, tape } = context;
  switch (cause.is) {
    case 'read':
      return [{ text: readInWords(cause, names), ask: questionOf(cause, decision)! }];
    case 'row': {
      const step = cause.entry === null ? null : tape.entry(cause.entry);
      const when = step === null ? 'from the record' : `${cause.did} in step ${tape.stepOf(step)}`;
      const name =
        cause.did === 'removed' ? 'a row' : names.part(cause.part).replace(/ of .*$/, '');
      return [{ text: name, ask: questionOf(cause, decision)! }, ` (${when})`];
    }
    case 'event': {
      const what =
        cause.part === null ? cause.event : `${cause.event} of ${names.part(cause.part)}`;
      return ['the event ', { text: what, entry: cause.entry }, ...when(cause, context)];
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
      return [
        OPENING[cause.what] ?? cause.what.replace(/^parent\.(\w+)$/, 'what the parent has in $1'),
      ];
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

/** The step that an event belongs to; of one that is no change, what was done there, since it cannot be asked in turn. */
function when({ event, entry }: Cause & { is: 'event' }, context: Context): Piece[] {
  const { tape } = context;
  const root = tape.rootOf(tape.entry(entry)!);
  if (root.type !== 'step') return [];
  return event === 'change'
    ? [` (step ${tape.stepOf(root)})`]
    : [', when ', stepPiece(root, context)];
}

function readInWords({ part, aspect, value }: Cause & { is: 'read' }, names: Names): string {
  const summed = summedIn(aspect);
  if (summed !== null)
    return `the sum of ${names.part(`${part}.${summed}`)} in ${names.part(part)} (${quotedValue(value)})`;
  if (aspect === 'count')
    return `the number of rows in ${names.part(part)} (${quotedValue(value)})`;
  if (aspect === 'order' || (aspect === 'value' && isRows(value)))
    return `the rows of ${names.part(part)}`;
  return aspect === 'value'
    ? `${names.part(part)} (${quotedValue(value)})`
    : `${names.part(part)}, ${aspect} (${quotedValue(value)})`;
}
