/** `tavro find`: searches forms for faults that no scenario expects, each as `file:line:column: level: text`. */
import { readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import * as z from 'zod';
import { KINDS, keyOf, type Finding } from '../core/explore/finding';
import { merged } from '../core/explore/merged';
import { judged, meantIn } from '../core/explore/meant';
import { isProvable, settled, type Proof } from '../core/explore/settled';
import { told } from '../core/explore/told';
import { wayInWords } from '../core/explore/words';
import { SEARCH_SESSIONS } from '../core/limits';
import { takingPart, type Source } from '../core/script/header';
import { baseName } from '../core/script/script-name';
import type { Workspace, WorkspaceForm } from '../core/workspace/workspace';
import { searchInThread } from '../workers/search-in-thread';
import { Cache } from './cache';
import { formsOf, InvalidCall, open, reporterOf, type Call, type Command } from './call';
import { findReporters, type FoundInForm } from './find-reporters';
import { print } from './print';
import { progress } from './progress-line';
import { limitsOf, placeIn, searchedForm, withSeeds, type Limits } from './searched-form';
import { textError } from './text-error';
import { SEARCH_THREAD } from './thread';

/** The findings that a pipeline knows already. */
const BaselineSchema = z.array(
  z.strictObject({
    form: z.string(),
    kind: z.enum(KINDS),
    part: z.string(),
    aspect: z.string(),
  }),
);

async function run(call: Call): Promise<number> {
  const workspace = open(call);
  const report = reporterOf(call, findReporters, 'text');
  const limits = limitsOf(call, SEARCH_SESSIONS);
  const known = call.baseline === undefined ? new Set<string>() : readBaseline(call.baseline);
  const forms = formsOf(call, workspace);
  const shown = progress('searching', forms.length);
  const found: FoundInForm[] = [];
  for (const entry of forms) {
    shown.at(entry.form.name);
    found.push(await searchForm(call.folder, workspace, entry, limits));
  }
  shown.end();
  const isNew = (form: string, finding: Finding) => !known.has(nameOf(form, finding));
  print(
    report(
      found.map((one) => ({
        ...one,
        // A short search may well miss what is answered, so that is no more than a hint.
        outdated: call.hints === true ? one.outdated : [],
        findings: one.findings.filter(
          (finding) =>
            isNew(one.form, finding) && (finding.level === 'wrong' || call.hints === true),
        ),
      })),
    ),
  );
  if (call.accept !== undefined) accept(call.accept, found);
  return found.some(({ form, findings }) =>
    findings.some((finding) => finding.level === 'wrong' && isNew(form, finding)),
  )
    ? 1
    : 0;
}

const nameOf = (form: string, finding: Pick<Finding, 'kind' | 'part' | 'aspect'>) =>
  `${form} ${keyOf(finding)}`;

function readBaseline(file: string): Set<string> {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (caught) {
    throw new InvalidCall(textError(file, caught));
  }
  try {
    return new Set(BaselineSchema.parse(JSON.parse(text)).map((one) => nameOf(one.form, one)));
  } catch {
    throw new InvalidCall(
      `${file} is no list of known findings; make it anew with --accept ${file}.`,
    );
  }
}

/** Writes what was found, for `--baseline`: what is wrong and known stays silent then. */
function accept(file: string, found: readonly FoundInForm[]): void {
  const list = found.flatMap(({ form, findings }) =>
    findings
      .filter(({ level }) => level === 'wrong')
      .map(({ kind, part, aspect }) => ({ form, kind, part, aspect })),
  );
  writeFileSync(file, `${JSON.stringify(list, null, 2)}\n`);
}

async function searchForm(
  folder: string,
  workspace: Workspace,
  entry: WorkspaceForm,
  limits: Limits,
): Promise<FoundInForm> {
  const { form } = entry;
  const { request, sources, names } = await searchedForm(new Cache(), workspace, entry);
  const all = { findings: [] as Finding[], sessions: 0, steps: 0, seeds: 0 };
  await withSeeds(
    limits,
    availableParallelism(),
    (seed, until) =>
      searchInThread(SEARCH_THREAD, { ...request, seed, sessions: limits.sessions, until }),
    (searched) => {
      all.findings = merged(all.findings, searched.findings);
      all.sessions += searched.sessions;
      all.steps += searched.steps;
      all.seeds++;
    },
  );
  return {
    form: form.name,
    ...all,
    ...judged(
      settled(all.findings, await proofsIn(workspace, entry, sources, all.findings)),
      meantIn(sources),
    ),
    placeOf: ({ lines }) => placeIn(folder, form.name, sources, lines[0] ?? null),
    placeOfMeant: (at) => placeIn(folder, form.name, sources, at),
    wayOf: (way) => wayInWords(way, names),
    toldOf: (finding) => told(finding, { form, tables: workspace.tables }, names),
  };
}

/** What the checks find in the sources; asked only where it could settle a hint, since it loads the compiler. */
async function proofsIn(
  workspace: Workspace,
  { form }: WorkspaceForm,
  sources: readonly Source[],
  findings: readonly Finding[],
): Promise<Proof[]> {
  if (!findings.some(isProvable)) return [];
  const [{ FormLanguage }, { libs }] = await Promise.all([
    import('../core/language/language-service'),
    import('../core/language/generated/libs'),
  ]);
  const language = new FormLanguage(libs);
  language.surround({ ...workspace, form });
  for (const source of sources) language.put(source);
  return takingPart([...sources]).flatMap(({ name }) =>
    language.diagnose(name).map(({ line, code }) => ({ behaviour: baseName(name), line, code })),
  );
}

export const find: Command = {
  says: 'Searches forms for faults that no scenario expects, and shows the shortest way to each.',
  options: {
    form: { value: 'FORM', says: 'only this form' },
    budget: { value: 'TIME', says: 'searches each form for so long, such as 30s or 5m' },
    sessions: {
      value: 'N',
      says: `plays so many sessions of each form (${SEARCH_SESSIONS}), which finds the same everywhere`,
    },
    seed: { value: 'N', says: 'begins with another seed than 1' },
    hints: { says: 'lists what may be meant as well' },
    baseline: { value: 'FILE', says: 'what is listed there is known and fails nothing' },
    accept: { value: 'FILE', says: 'writes what is wrong to FILE, for --baseline' },
    reporter: { value: 'NAME', says: 'text, json, sarif (2.1.0) or junit' },
  },
  run,
};
