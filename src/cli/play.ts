/** `tavro play`: opens a form, does steps, prints what came out as JSON (docs/schemas/play-result.schema.json). */
import { readFileSync } from 'node:fs';
import type * as z from 'zod';
import { textError } from './text-error';
import { openingOf } from '../core/scenario/opening';
import type { Form } from '../core/form/definition';
import { nothingHeard, NOTHING_SEEN, partsSeen, seenAfter } from '../core/scenario/snapshot';
import type { Answer } from '../core/session/step';
import { PlayInput } from '../core/workspace/schemas';
import { BrokenWorkspace } from '../core/workspace/workspace';
import { readJson, type FileError } from '../core/workspace/json';
import type { Engine } from '../core/sandbox/engine';
import { Cache } from './cache';
import { InvalidCall, formOf, load, open, type Call, type Command, withEngine } from './call';

async function run(call: Call, engine: Engine): Promise<number> {
  if (call.steps === undefined)
    throw new InvalidCall('say with --steps which file holds the steps, or - for standard input.');
  const workspace = open(call);
  const entry = formOf(call, workspace);
  const input = readSteps(call.steps);
  const { open: opening, steps } = Array.isArray(input)
    ? { open: { as: workspace.people[0]!.key }, steps: input }
    : input;
  await load(engine, new Cache(), workspace, entry, call.tape === true ? 'traced' : 'untraced');
  const answers = await engine.play(
    openingOf(opening, entry.form, {
      people: workspace.people,
      records: entry.records,
      forms: workspace.forms,
    }),
    steps,
  );
  process.stdout.write(
    `${JSON.stringify(resultOf(answers, entry.form, call.tape === true), null, 2)}\n`,
  );
  return 0;
}

function readSteps(file: string): z.infer<typeof PlayInput> {
  let text: string;
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (caught) {
    throw new InvalidCall(textError(file, caught));
  }
  const errors: FileError[] = [];
  const input = readJson(file === '-' ? 'standard input' : file, text, PlayInput, errors);
  if (input === null) throw new BrokenWorkspace(errors);
  return input;
}

function resultOf(answers: readonly Answer[], form: Form, withTape: boolean): object {
  const heard = nothingHeard();
  let seen = NOTHING_SEEN;
  answers.forEach((answer, i) => {
    seen = seenAfter(seen, answer);
    heard.messages.push(...answer.messages);
    heard.log.push(...answer.log);
    heard.errors.push(...answer.errors);
    heard.toParent.push(...answer.toParent);
    if (answer.refused !== null) heard.refused.push({ step: i - 1, why: answer.refused });
  });
  return {
    parts: partsSeen(seen, form),
    '@record': seen.record,
    '@waiting': seen.waiting,
    '@toParent': answers.flatMap((answer) => answer.toParent),
    '@page': seen.page,
    '@replaced': seen.replaced?.text ?? null,
    '@notice': seen.notice,
    '@submit': seen.submit,
    '@messages': heard.messages,
    '@log': heard.log,
    '@parent': heard.toParent,
    '@errors': heard.errors,
    '@refused': heard.refused,
    ...(withTape ? { tape: answers.flatMap((answer) => answer.tape) } : {}),
  };
}

export const play: Command = {
  says: 'Opens a form, does steps and prints the result as JSON.',
  options: {
    form: { value: 'FORM', says: 'which form; may be left out where there is one' },
    steps: { value: 'FILE', says: 'the steps as JSON, or - for standard input' },
    tape: { says: 'prints the tape as well' },
  },
  run: (call) => withEngine((engine) => run(call, engine)),
};
