/**
 * `tavro why`: does steps and says why a part is as it is then, down to the steps of people and the definition, and why
 * it is not otherwise. As JSON (docs/schemas/why-result.schema.json), or as sentences with `--words`.
 */
import { decideInTurn, type Chain } from '../core/debugging/chain';
import { leftOut } from '../core/debugging/left-out';
import { textOfSentence, type Context } from '../core/debugging/pieces';
import {
  ASKED_ABOUT,
  invariantIn,
  SUBMISSION,
  usualAspect,
  type Question,
} from '../core/debugging/question';
import { leftOutInWords, whyNotInWords } from '../core/debugging/why-not-words';
import { decisionInWords } from '../core/debugging/why-words';
import { otherLines, whyNot } from '../core/debugging/why-not';
import { readHeader } from '../core/script/header';
import { nameOnTape, partSeen, seenAt } from '../core/scenario/seen';
import type { Engine } from '../core/sandbox/engine';
import { FORM } from '../core/session/tree';
import { namesFor, withPlaces } from '../core/tape/words';
import { Cache } from './cache';
import { InvalidCall, withEngine, type Call, type Command } from './call';
import { inspecting } from './inspecting';
import { readDone } from './steps';
import { onOneLine, print } from './print';

async function run(call: Call, engine: Engine): Promise<number> {
  if (call.part === undefined) throw new InvalidCall('say with --part which part is asked about.');
  const { workspace, entry, opening, steps } = readDone(call);
  const step = readStep(call.at, steps.length);
  const done = steps.slice(0, step);
  const { ground, sources, answers } = await inspecting(
    engine,
    new Cache(),
    workspace,
    entry,
    opening,
    done,
  );
  const seen = seenAt(answers, answers.length - 1);
  const state = partSeen(seen, entry.form, call.part);
  if (state === undefined && call.part !== FORM && call.part !== SUBMISSION)
    throw new InvalidCall(
      `the form ${entry.form.name} has no part "${call.part}" then. There is ${[...Object.keys(seen.parts), FORM, SUBMISSION].join(', ')}.`,
    );
  const address = nameOnTape(seen, call.part);
  if (call.aspect !== undefined && !isAskable(call.aspect))
    throw new InvalidCall(`--aspect is one of ${ASKED_ABOUT.join(', ')}.`);
  const question: Question = {
    part: address,
    aspect: call.aspect ?? usualAspect(ground.tape, address, state),
    before: null,
  };
  const why = await decideInTurn(ground, question);
  const { writersOf } = await import('../core/language/writers');
  const otherwise = await whyNot(ground, writersOf(sources), question);
  const notOffered = await leftOut(ground, why, workspace.tables);
  if (call.words !== true) {
    const result = {
      question: { part: call.part, aspect: question.aspect, step },
      why,
      whyNot: otherwise,
      notOffered,
    };
    print(`${JSON.stringify(result, null, 2)}\n`);
    return 0;
  }
  const context: Context = {
    names: withPlaces(
      namesFor(
        entry.form,
        sources.map(({ name, text }) => ({ name, title: readHeader({ name, text }).title })),
        workspace.people,
      ),
      seen.rows,
    ),
    who: opening.person.name,
    tape: ground.tape,
  };
  const others = otherLines(otherwise, why);
  const lines = [
    ...chainInWords(why, context, 0),
    '',
    'Why not otherwise?',
    ...(others.length + notOffered.length === 0
      ? ['No other line says anything of it.']
      : others.flatMap((one) => whyNotInWords(one, context).map(textOfSentence))),
    ...notOffered.map((one) => textOfSentence(leftOutInWords(one))),
  ];
  print(`${lines.map(onOneLine).join('\n')}\n`);
  return 0;
}

/** Rows can be asked for their number and sums too, the form and rows for what must always hold. */
function isAskable(aspect: string): boolean {
  return (
    ASKED_ABOUT.includes(aspect) ||
    /^(?:count|order|sum:\w+)$/.test(aspect) ||
    invariantIn(aspect) !== null
  );
}

/** Each decision with those behind it, further in by two spaces. */
function chainInWords(chain: Chain, context: Context, depth: number): string[] {
  const indent = '  '.repeat(depth);
  return [
    ...decisionInWords(chain, context).map((sentence) => `${indent}${textOfSentence(sentence)}`),
    ...chain.because.flatMap((one) => (one === null ? [] : chainInWords(one, context, depth + 1))),
  ];
}

function readStep(at: string | undefined, count: number): number {
  if (at === undefined) return count;
  const step = Number(at);
  if (!Number.isInteger(step) || step < 0 || step > count)
    throw new InvalidCall(`--at ${at} is no step: 0 is the opening, ${count} the last step.`);
  return step;
}

export const why: Command = {
  says: 'Does steps and says why a part is as it is then, and why not otherwise.',
  options: {
    form: { value: 'FORM', says: 'which form; may be left out where there is one' },
    steps: { value: 'FILE', says: 'the steps as JSON or a recording, or - for standard input' },
    part: { value: 'PART', says: 'the part that is asked about' },
    aspect: {
      value: 'ASPECT',
      says: 'such as shown, value, options or always:TITLE; else what a script decided last',
    },
    at: { value: 'STEP', says: 'after which step, 0 being the opening; else after the last' },
    words: { says: 'prints sentences in place of JSON' },
  },
  run: (call) => withEngine((engine) => run(call, engine)),
};
