/** Answers held against what a colleague who knows the form by heart would say, question by question (`asks.ts`). */
import { describe, expect, test } from 'vitest';
import { decideInTurn, type Chain } from '../../src/core/debugging/chain';
import { decide, questionOf } from '../../src/core/debugging/decide';
import { leftOut } from '../../src/core/debugging/left-out';
import { textOfSentence, type Context } from '../../src/core/debugging/pieces';
import { ASKED_ABOUT, SUBMISSION, usualAspect } from '../../src/core/debugging/question';
import { questionInWords } from '../../src/core/debugging/standing-words';
import { otherLines, whyNot } from '../../src/core/debugging/why-not';
import { leftOutInWords, whyNotInWords } from '../../src/core/debugging/why-not-words';
import { decisionInWords } from '../../src/core/debugging/why-words';
import { writersOf } from '../../src/core/language/writers';
import { nameOnTape, partSeen, partsSeen, seenAt } from '../../src/core/scenario/seen';
import { FORM } from '../../src/core/session/tree';
import { namesFor, withPlaces } from '../../src/core/tape/words';
import { detailedMaterial, groundOf, inspectedHere, type Setting } from '../support/hosts';
import { ASKS, form, services, tables, type Ask } from './asks';
import { ASIDE } from './asks-aside';

/** A session of a question, and what is seen at its end. */
function sessionOf({ script, second, steps, more }: Ask) {
  const scripts = { '10-x': script, ...(second === undefined ? {} : { '20-y': second }) };
  const setting: Setting = { form, tables, services, scripts, ...more };
  const ground = groundOf(setting, steps);
  const { material } = detailedMaterial(setting);
  const { answers } = inspectedHere(setting, steps, { runs: [] }, material);
  return { scripts, ground, seen: seenAt(answers, answers.length - 1) };
}

/** The whole answer, a line for each sentence. */
async function answerTo(ask: Ask): Promise<string[]> {
  const { part, aspect } = ask;
  const { scripts, ground, seen } = sessionOf(ask);
  const state = partSeen(seen, form, part);
  if (part !== FORM && part !== SUBMISSION) expect(state, part).toBeDefined();
  const address = nameOnTape(seen, part);
  const question = {
    part: address,
    aspect: aspect ?? usualAspect(ground.tape, address, state),
    before: null,
  };
  const why = await decideInTurn(ground, question);
  const context: Context = {
    names: withPlaces(namesFor(form, [], []), seen.rows),
    who: 'Mira Oldane',
    tape: ground.tape,
  };
  const sources = Object.entries(scripts).map(([name, text]) => ({ name: `${name}.ts`, text }));
  const found = otherLines(await whyNot(ground, writersOf(sources), question), why);
  const notOffered = await leftOut(ground, why, tables);
  const told = (one: Chain): string[] => [
    ...decisionInWords(one, context).map(textOfSentence),
    ...one.because.flatMap((next) => (next === null ? [] : told(next))),
  ];
  return [
    ...told(why),
    ...found.flatMap((one) => whyNotInWords(one, context).map(textOfSentence)),
    ...notOffered.map((one) => textOfSentence(leftOutInWords(one))),
  ];
}

describe.each([
  ['asks', ASKS],
  ['asks kept aside', ASIDE],
])('%s', (_, asks) => {
  test.each(asks.map((ask) => [`${ask.kind}: ${ask.about}`, ask] as const))(
    '%s',
    async (_title, ask) => {
      const answer = await answerTo(ask);
      const whole = answer.join('\n');
      const wrong = [
        ...ask.says.filter((says) => !answer.some((line) => says.test(line))).map(String),
        ...(ask.never ?? []).filter((never) => never.test(whole)).map((never) => `never ${never}`),
      ];
      expect(wrong, whole).toEqual([]);
    },
  );
});

test('whatever is asked of whatever part has an answer in words, and can be asked on', async () => {
  const aspects = [...ASKED_ABOUT, 'changed', 'values', 'order', 'count', 'sum:weight', 'nonsense'];
  for (const ask of [...ASKS, ...ASIDE].filter((_, i) => i % 6 === 0)) {
    const { ground, seen } = sessionOf(ask);
    const context: Context = {
      names: withPlaces(namesFor(form, [], []), seen.rows),
      who: 'Mira Oldane',
      tape: ground.tape,
    };
    const parts = [FORM, SUBMISSION, ...Object.keys(partsSeen(seen, form)), 'constructor'];
    for (const [i, part] of parts.entries())
      for (const aspect of [aspects[i % aspects.length]!, aspects[(i * 7 + 3) % aspects.length]!]) {
        const about = { part: nameOnTape(seen, part), aspect, before: null };
        const decision = await decide(ground, about);
        for (const sentence of decisionInWords(decision, context))
          expect(textOfSentence(sentence)).not.toMatch(/undefined|\[object/);
        expect(questionInWords(context.names, about, decision.value)).toMatch(/\?$/);
        for (const cause of decision.causes) {
          const next = questionOf(cause, decision);
          if (next !== null) decisionInWords(await decide(ground, next), context);
        }
      }
  }
}, 120_000);
