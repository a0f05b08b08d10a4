/** `tavro compare`: what changes for people from one version of a workspace to another. */
import { availableParallelism } from 'node:os';
import { byCause } from '../core/compare/causes';
import type { Compared } from '../core/compare/compare';
import type { Difference } from '../core/compare/difference';
import { alsoInWords, toldOfDifference } from '../core/compare/told';
import { wayInWords } from '../core/explore/words';
import { COMPARED_SESSIONS } from '../core/limits';
import { takingPart } from '../core/script/header';
import type { Workspace, WorkspaceForm } from '../core/workspace/workspace';
import { compareInThread } from '../workers/compare-in-thread';
import { Cache } from './cache';
import { InvalidCall, reporterOf, type Call, type Command } from './call';
import { compareReporters, type ComparedForm } from './compared-forms';
import { print } from './print';
import { progress } from './progress-line';
import { limitsOf, placeIn, searchedForm, withSeeds, type Limits } from './searched-form';
import { COMPARE_THREAD } from './thread';
import { aroundOf, GIT_OPTION, versionsOf, type Named } from './two-versions';

async function run(call: Call): Promise<number> {
  const report = reporterOf(call, compareReporters, 'text');
  const limits = limitsOf(call, COMPARED_SESSIONS);
  const [before, after] = await versionsOf(call);
  const pairs = after.workspace.forms.flatMap((entry): [WorkspaceForm, WorkspaceForm][] => {
    const { name } = entry.form;
    const former = before.workspace.forms.find(({ form }) => form.name === name);
    const isAsked = call.form === undefined || call.form === name;
    return former === undefined || !isAsked ? [] : [[former, entry]];
  });
  const only = (some: Workspace, others: Workspace) =>
    call.form === undefined
      ? some.forms
          .filter(({ form }) => others.forms.every((one) => one.form.name !== form.name))
          .map(({ form }) => form.title)
      : [];
  if (call.form !== undefined && pairs.length === 0)
    throw new InvalidCall(`there is no form "${call.form}" in both.`);
  const shown = progress('comparing', pairs.length);
  const forms: ComparedForm[] = [];
  for (const [former, entry] of pairs) {
    shown.at(entry.form.name);
    forms.push(await compareForm(before, former, after, entry, limits));
  }
  shown.end();
  const added = only(after.workspace, before.workspace);
  const removed = only(before.workspace, after.workspace);
  print(report({ forms, added, removed }));
  const differs = forms.some(({ differences }) => differences.length > 0);
  return differs || added.length + removed.length > 0 ? 1 : 0;
}

async function compareForm(
  before: Named,
  former: WorkspaceForm,
  after: Named,
  entry: WorkspaceForm,
  limits: Limits,
): Promise<ComparedForm> {
  const cache = new Cache();
  const [was, is] = [
    await searchedForm(cache, aroundOf(before, former.form.name), former),
    await searchedForm(cache, aroundOf(after, entry.form.name), entry),
  ];
  const { changeBetween } = await import('../core/compare/change');
  const change = changeBetween(takingPart(was.sources), takingPart(is.sources));
  const versionOf = ({ request, sources }: typeof was) => ({
    ...request,
    sources: sources.map(({ name, text }) => ({ name, text })),
  });
  let all: Compared | null = null;
  await withSeeds(
    limits,
    availableParallelism(),
    (seed, until) =>
      compareInThread(COMPARE_THREAD, {
        before: versionOf(was),
        after: versionOf(is),
        change,
        seed,
        sessions: limits.sessions,
        until,
      }),
    (compared) => {
      all = all === null ? compared : together(all, compared);
    },
  );
  const { form } = entry;
  return {
    ...all!,
    form: form.name,
    title: form.title,
    toldOf: (difference) =>
      toldOfDifference(difference, { form, tables: aroundOf(after, form.name).tables }, is.names),
    alsoOf: (difference) => alsoInWords(difference, is.names),
    wayOf: ({ way }) => wayInWords(way, is.names),
    placesOf: ({ lines }: Difference) => ({
      before:
        lines.before === null ? null : placeIn(before.name, form.name, was.sources, lines.before),
      after: lines.after === null ? null : placeIn(after.name, form.name, is.sources, lines.after),
    }),
  };
}

/** Two comparisons with different seeds as one. */
function together(one: Compared, other: Compared): Compared {
  return {
    differences: byCause([...one.differences, ...other.differences]),
    sessions: one.sessions + other.sessions,
    lines: one.lines.map((line, i) => ({
      ...line,
      isReached: line.isReached || other.lines[i]!.isReached,
    })),
    cut: one.cut || other.cut,
  };
}

export const compare: Command = {
  says: 'Says what changes for people between two workspaces, with the shortest way to each difference. Ends with 1 when something does.',
  folders: ['BEFORE', 'AFTER'],
  options: {
    ...GIT_OPTION,
    form: { value: 'FORM', says: 'only this form' },
    budget: { value: 'TIME', says: 'compares each form for so long, such as 30s or 5m' },
    sessions: {
      value: 'N',
      says: `plays so many sessions of each form (${COMPARED_SESSIONS}), which finds the same everywhere`,
    },
    seed: { value: 'N', says: 'begins with another seed than 1' },
    reporter: { value: 'NAME', says: 'text, json, markdown or html' },
  },
  run,
};
