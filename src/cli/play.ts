/** `tavro play`: opens a form, does steps, prints what came out as JSON (docs/schemas/play-result.schema.json). */
import { untilDone } from '../core/sandbox/cut-short';
import { variablesAt } from '../core/debugging/notes';
import type { Form } from '../core/form/definition';
import type { Engine } from '../core/sandbox/engine';
import { nothingHeard, NOTHING_SEEN, partsSeen, seenAfter, seenAt } from '../core/scenario/seen';
import { baseName } from '../core/script/script-name';
import type { Answer } from '../core/session/step';
import type { Run } from '../core/tape/tape';
import { Cache } from './cache';
import { InvalidCall, load, withEngine, type Call, type Command } from './call';
import { inspecting, type Inspecting } from './inspecting';
import { readDone } from './steps';
import { print as write } from './print';

async function run(call: Call, engine: Engine): Promise<number> {
  const { workspace, entry, opening, steps } = readDone(call);
  if (call.at !== undefined) {
    if (call.tape === true) throw new InvalidCall('--tape is of a whole session, not of one line.');
    const moment = readMoment(call.at, steps.length);
    const found = await inspecting(
      engine,
      new Cache(),
      workspace,
      entry,
      opening,
      steps.slice(0, moment.step),
    );
    print(await standAt(found, moment, entry.form));
    return 0;
  }
  await load(engine, new Cache(), workspace, entry, call.tape === true ? 'traced' : 'untraced');
  const answers = await untilDone(() => engine.play(opening, steps));
  print(resultOf(answers, entry.form, call.tape === true));
  return 0;
}

function print(result: object): void {
  write(`${JSON.stringify(result, null, 2)}\n`);
}

interface LineWanted {
  /** 0 is the opening. */
  step: number;
  script: string | null;
  line: number;
}

function readMoment(at: string, count: number): LineWanted {
  const [, step, script, line] = /^(\d+):(?:(.+):)?(\d+)$/.exec(at) ?? [];
  if (step === undefined || line === undefined)
    throw new InvalidCall(
      `--at ${at} is no moment: write STEP:LINE or STEP:BEHAVIOUR:LINE, such as 2:10-start:14.`,
    );
  if (Number(step) > count)
    throw new InvalidCall(`there is no step ${step}: 0 is the opening, ${count} the last step.`);
  return {
    step: Number(step),
    script: script === undefined ? null : baseName(script),
    line: Number(line),
  };
}

/** The form and the variables right before a line runs for the first time in a step. */
async function standAt(
  { ground, sites, inspect }: Inspecting,
  { step, script, line }: LineWanted,
  form: Form,
): Promise<object> {
  const { runs, answers } = await inspect({ runs: 'all', answers: true });
  const from = answers.at(-1)!.tape[0]!.n;
  const reached = runs
    .filter(({ entry }) => entry >= from)
    .flatMap((run) =>
      run.details.flatMap((detail, at) =>
        detail.is === 'statement' &&
        (script === null || detail.script === script) &&
        sites.get(detail.script)![detail.site]!.line === line
          ? [{ run, detail, at }]
          : [],
      ),
    );
  const scripts = [...new Set(reached.map(({ detail }) => detail.script))];
  if (scripts.length > 1)
    throw new InvalidCall(
      `line ${line} ran in ${scripts.join(' and ')}: say which, such as --at ${step}:${scripts[0]}:${line}.`,
    );
  const [first] = reached;
  if (first === undefined)
    throw new InvalidCall(
      `line ${line}${script === null ? '' : ` of ${script}`} did not run in step ${step}.`,
    );
  const { looks } = await inspect({
    runs: [first.run.entry],
    moments: [{ entry: first.run.entry, detail: first.at }],
  });
  const look = looks[0]!;
  const run = ground.tape.entry(first.run.entry) as Run;
  const seen = { ...seenAt(answers, answers.length - 1), parts: look.parts, rows: look.rows };
  return {
    at: {
      step,
      behaviour: run.behaviour,
      run: run.title,
      script: first.detail.script,
      line,
      statement: sites.get(first.detail.script)![first.detail.site]!.text,
    },
    variables: Object.fromEntries(
      variablesAt(first.run, first.at, sites).map(({ name, value }) => [name, value]),
    ),
    parts: partsSeen(seen, form),
    '@page': look.page,
    '@outgoing': look.outgoing,
  };
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
    if (answer.refused !== null) heard.refused.push({ step: i, why: answer.refused });
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
    steps: { value: 'FILE', says: 'the steps as JSON or a recording, or - for standard input' },
    at: {
      value: 'STEP:LINE',
      says: 'prints the form and the variables where a line runs first in a step, 0 being the opening; STEP:BEHAVIOUR:LINE where several have the line',
    },
    tape: { says: 'prints the tape as well' },
  },
  run: (call) => withEngine((engine) => run(call, engine)),
};
