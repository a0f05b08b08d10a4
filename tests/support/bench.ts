/** A whole bench without a browser: its engine runs here, the server and the language worker answer by hand. */
import { vi } from 'vitest';
import { NO_CHANGE } from '@/core/compare/version';
import { mentionsOf } from '@/core/explore/mentions';
import { materialFor } from './hosts';
import { compile, compileDetailed } from '@/core/language/compile';
import type { Watch } from '@/core/language/watches';
import type { Source } from '@/core/script/header';
import { baseName } from '@/core/script/script-name';
import type { Form } from '@/core/form/definition';
import type { Scenario } from '@/core/scenario/definition';
import { createBench, type Bench } from '@/ui/bench/create-bench';
import type { BenchMaterial, OpenedRecording } from '@/ui/bench/common/material';
import type { LanguageClient } from '@/workers/language-client';
import { NOTHING_REPORTED, type CompiledScript } from '@/core/session/tie';
import { stubWorker } from './worker-here';
import { page, section, text } from './forms';

export const VISIT: Form = {
  name: 'visit',
  title: 'Visit',
  pages: [page('main', [section('stay', [text('vessel'), text('master')])])],
};

export interface Sent {
  method: string;
  path: string;
  body: unknown;
}

export interface BenchOptions {
  form?: Form;
  /** Texts by name. */
  behaviours?: Record<string, string>;
  services?: BenchMaterial['services'];
  tables?: BenchMaterial['tables'];
  scenarios?: Record<string, Scenario>;
  recording?: OpenedRecording;
  /** The number of its last release; none unless said. */
  release?: number | null;
  /** The language worker compiles; it does not unless said. */
  compiles?: boolean;
  /** What the server answers; nothing is saved of itself. */
  answers?: (sent: Sent) => { status: number; body: unknown };
}

const compiled = (source: Source) => compile(source, 'traced');

const notHere = ({ name }: Source): CompiledScript => ({
  name,
  title: name,
  code: null,
  ...NOTHING_REPORTED,
  failure: { code: 'syntax', says: 'Not compiled here.', line: null },
});

/** What stands for the language worker: it finds nothing wrong and compiles nothing that is typed, but for what
 * somebody asks about. */
function languageWorker(done: string[], compiles: (source: Source) => CompiledScript) {
  return {
    remove: (name: string) => Promise.resolve(void done.push(`remove ${name}`)),
    put: ({ name }: { name: string }) => Promise.resolve(void done.push(`put ${name}`)),
    surround: () => Promise.resolve(),
    diagnose: () => Promise.resolve([]),
    idleParts: () => Promise.resolve([]),
    mentions: (sources: readonly Source[]) => Promise.resolve(mentionsOf(sources)),
    change: () => Promise.resolve(NO_CHANGE),
    expressionFault: () => Promise.resolve(null),
    completeAsked: () => Promise.resolve([]),
    compileDetailed: (source: Source, watches: readonly Watch[]) =>
      Promise.resolve(compileDetailed(source, watches)),
    compile: (source: Source) => Promise.resolve(compiles(source)),
    close: () => undefined,
  };
}

/** What a server says of which nobody has put anything there. */
export const NOTHING_THERE: Readonly<Record<string, unknown>> = {
  'GET accepted': [],
  'GET kept': { fillings: [], all: 0 },
};

/** Makes a bench; `vi.unstubAllGlobals` puts back what it stands on. */
export function benchOf(options: BenchOptions = {}): {
  bench: Bench;
  /** What was asked of the server. */
  sent: Sent[];
  /** What the language worker was told. */
  done: string[];
} {
  const {
    form = VISIT,
    behaviours = {},
    services = [],
    tables = [],
    scenarios = {},
    answers,
  } = options;
  const { scripts } = materialFor(
    {
      form,
      scripts: Object.fromEntries(
        Object.entries(behaviours).map(([name, source]) => [baseName(name), source]),
      ),
    },
    true,
  );
  const sent: Sent[] = [];
  const done: string[] = [];
  vi.stubGlobal('fetch', (path: string, { method, body }: { method: string; body?: string }) => {
    const request = {
      method,
      path,
      body: body === undefined ? null : (JSON.parse(body) as unknown),
    };
    sent.push(request);
    const answer = answers?.(request) ?? {
      status: 200,
      body: NOTHING_THERE[`${method} ${path.split('/').at(-1)!.split('?')[0]}`] ?? { revision: 2 },
    };
    return Promise.resolve(new Response(JSON.stringify(answer.body), { status: answer.status }));
  });
  vi.stubGlobal('navigator', { hardwareConcurrency: 1 });
  stubWorker();
  const material: BenchMaterial = {
    title: 'Harbour',
    form,
    revision: 1,
    tables,
    services,
    forms: [],
    others: [],
    people: [{ key: 'mira', name: 'Mira', roles: ['clerk'] }],
    roles: [{ key: 'clerk', label: 'Clerk' }],
    records: [],
    behaviours: Object.entries(behaviours).map(([name, source], i) => ({
      name,
      text: source,
      revision: 1,
      compiled: scripts[i]!,
    })),
    answering: [],
    scenarios: Object.entries(scenarios).map(([name, scenario]) => ({
      name,
      scenario,
      revision: 1,
    })),
    found: [],
    release: options.release ?? null,
    live: false,
    recording: options.recording ?? null,
  };
  const bench = createBench(
    material,
    {},
    undefined,
    () =>
      languageWorker(
        done,
        options.compiles === true ? compiled : notHere,
      ) as unknown as LanguageClient,
  );
  return { bench, sent, done };
}
