/** Answers to why not as sentences, and what left an option out. */
import { type Names } from '../tape/words';
import {
  bySite,
  cameInWords,
  comparisonInWords,
  conditionsInWords,
  nearMissInWords,
} from './comparison-words';
import type { ConditionMet } from './decision';
import type { LeftOut } from './left-out';
import {
  lineAt,
  quotedValue,
  stepPiece,
  whereOf,
  type Context,
  type Piece,
  type Sentence,
} from './pieces';
import { saidInWords, standsInWords } from './standing-words';
import type { WhyNot } from './why-not';

/** What a handler runs on, in words: `a change of Arrival`. */
function eventInWords({ event, tied }: WhyNot['writer'], names: Names): string {
  const parts = tied.map((part) => names.part(part)).join(' or ');
  if (parts === '') return EVENTS[event] ?? event;
  return `${EVENTS_OF[event] ?? `${event} of`} ${parts}`;
}

const EVENTS: Readonly<Record<string, string>> = {
  load: 'loading the form',
  submit: 'a submission',
  saved: 'saving',
  pageChange: 'a turn of the page',
};
const EVENTS_OF: Readonly<Record<string, string>> = {
  change: 'a change of',
  input: 'typing into',
  click: 'a click on',
  focus: 'going to',
  blur: 'leaving',
  rowAdded: 'a row added to',
  rowRemoved: 'a row removed from',
};

export function whyNotInWords({ writer, run, outcome }: WhyNot, context: Context): Sentence[] {
  const { names } = context;
  const title = names.behaviour(writer.script);
  const where: Piece[] = [
    { text: `Line ${writer.line}`, line: { script: writer.script, line: writer.line } },
    ` of ${title}`,
  ];
  switch (outcome.is) {
    case 'never ran':
      return [
        [
          ...where,
          writer.sort === 'rule'
            ? ' stands in a rule that has not run since the form was opened.'
            : ` runs on ${eventInWords(writer, names)}, which has not happened since the form was opened.`,
        ],
      ];
    case 'said':
      return [[...where, ` ${saidInWords(writer.aspect, outcome.value)}, which is what stands.`]];
    case 'overwritten':
      return [
        [
          ...where,
          ` ${saidInWords(writer.aspect, outcome.value)}, and `,
          whereOf(outcome.line, writer.script),
          ' overwrote it in the same run.',
        ],
      ];
    case 'overruled':
      return [
        [
          ...where,
          ` ${saidInWords(writer.aspect, outcome.value)}, and `,
          ...overrulerInWords(outcome.by, context),
          '.',
        ],
      ];
    case 'failed': {
      const { failure, said } = outcome;
      const failed: Piece[] = [
        'the run',
        ...(failure.line === null ? [] : [' failed on ', whereOf(failure.line, failure.behaviour)]),
        `: ${failure.says}`,
      ];
      return [
        said === null
          ? [...where, ' was not reached: ', ...failed]
          : [
              ...where,
              ` ${saidInWords(writer.aspect, said.value)}, which was taken back, since `,
              ...failed,
            ],
      ];
    }
    case 'waits':
      return [
        [
          ...where,
          ' is not reached yet: ',
          { text: 'the run', entry: run! },
          ' waits.',
          ...(outcome.restarted === null
            ? []
            : [
                ' ',
                { text: 'An earlier run', entry: outcome.restarted },
                ' goes no further, since it was started again.',
              ]),
        ],
      ];
    case 'not reached':
      return [[...where, ' was not reached in ', { text: 'the last run', entry: run! }, '.']];
    case 'kept':
      return outcome.by.flatMap((kept, i): Sentence[] => [
        [
          ...(i === 0 ? [...where, ' was not reached: '] : ['Then ']),
          kept.line === writer.line && kept.script === writer.script
            ? 'it'
            : lineAt(kept.script, kept.line),
          needsInWords(kept),
          i === 0 ? '' : ' too',
          kept.comparisons.length > 0
            ? `: ${kept.comparisons.map(comparisonInWords).join(', ')}.`
            : kept.needs === null
              ? '.'
              : `, which ${cameInWords(kept.came)}.`,
          ...kept.now.map((now) => ` By now, ${standsInWords(names, now, now.value)}.`),
        ],
        ...bySite(kept.from).map(conditionsInWords),
        ...kept.near.map((near): Sentence => [nearMissInWords(near, names)]),
      ]);
  }
}

function needsInWords({ needs, text, came }: ConditionMet & { needs: boolean | null }): string {
  if (needs === null) return ` goes by ${text}, which is ${quotedValue(came)}`;
  return needs ? ` needs ${text}` : ` needs ${text} not to hold`;
}

/** What was said or entered over something, and by whom. */
function overrulerInWords(
  by: { entry: number; behaviour: string; title: string } | null,
  context: Context,
): Piece[] {
  const { names, tape } = context;
  const entry = by === null ? null : tape.entry(by.entry);
  if (by === null || entry === null) return ['something later says otherwise'];
  if (by.behaviour === '') {
    const cause = tape.causeOf(entry);
    return cause === null
      ? ['something later says otherwise']
      : [stepPiece(cause, context), ' after it'];
  }
  const run = tape.causeOf(entry);
  const isRule = run?.type !== 'run' || run.sort === 'rule';
  const name = isRule
    ? `“${by.title}” of ${names.behaviour(by.behaviour)}`
    : `${names.behaviour(by.behaviour)} on ${titleInWords(by.title, names)}`;
  return [{ text: name, entry: by.entry }, ' says otherwise after it'];
}

function titleInWords(title: string, names: Names): string {
  return title.replace(/ of (\w+)$/, (_, part: string) => ` of ${names.part(part)}`);
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
