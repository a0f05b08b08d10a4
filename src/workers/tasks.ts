/**
 * What takes longer than a server's main thread may: compiling, checking, searching with people's patterns, reading
 * their files. Each task is a function of its request alone, run in a thread that can be ended.
 */
import { changeBetween } from '../core/compare/change';
import { createHash } from 'node:crypto';
import { MessagePort } from 'node:worker_threads';
import * as z from 'zod';
import { FormSchema } from '../core/form/definition';
import { ServiceSchema } from '../core/form/service';
import { ColumnSchema, PersonSchema, RoleSchema, TableSchema } from '../core/form/table';
import { mentionsOf } from '../core/explore/mentions';
import { compile } from '../core/language/compile';
import { libs } from '../core/language/generated/libs';
import { materialOf } from '../core/language/material';
import { searched } from '../core/language/search';
import { FormLanguage } from '../core/language/language-service';
import { problemsInSources } from '../core/problems/problems';
import { problemsInServices } from '../core/problems/services';
import { problemsInShared } from '../core/problems/shared';
import { fromHtml } from '../core/interchange/from-html';
import { fromJsonSchema } from '../core/interchange/from-json-schema';
import { steeredBy } from '../core/interchange/steered';
import { NothingToTake } from '../core/interchange/taken';
import { toJsonSchema } from '../core/interchange/to-json-schema';
import { readRecords } from '../core/workspace/records-in';
import { ERRORS_PER_FILE } from '../core/limits';
import { ScenarioSchema } from '../core/scenario/definition';
import { ValuesSchema } from '../core/session/schema';
import { InvalidEdit } from '../core/structure/edit';
import { planRekey } from '../core/structure/rekey';
import { planExportRename } from '../core/structure/rename-export';
import { planRename } from '../core/structure/rename';
import { usesOf, usesOfKey } from '../core/structure/uses';
import { guessColumns, readRows } from '../core/workspace/csv';
import { SpellingSchema } from '../core/workspace/csv-spelling';
import type { FileError } from '../core/workspace/json';
import { HEAD_SHAPE } from '../core/workspace/head';
import { syncOf } from '../core/workspace/syncing';
import { writeWorkspace } from '../core/workspace/write';
import { lookThrough, readFolder, writeIntoFolder } from './files';
import { allowedFolder, foldersOffered } from './folders-offered';
import { threadNumber } from './thread-time';
import { changesOf, digestsOf, savingsOf } from '../core/workspace/taking';
import {
  BrokenWorkspace,
  fileErrorInWords,
  readWorkspace,
  type FilesRead,
} from '../core/workspace/workspace';
import { baseIn, packed, textsIn } from '../core/workspace/zip';

const Source = z.object({ name: z.string(), text: z.string() });
const Mode = z.enum(['traced', 'untraced']);
const Shared = { tables: z.array(TableSchema), services: z.array(ServiceSchema) };
const Reach = z.object({
  ...Shared,
  roles: z.array(RoleSchema),
  shared: z.array(Source),
  forms: z.array(
    z.object({
      form: FormSchema,
      behaviours: z.array(Source),
      scenarios: z.array(z.object({ name: z.string(), scenario: ScenarioSchema })),
    }),
  ),
});

/** The result of work on a folder, or what is wrong with the folder by file and line. */
function orBroken<T extends object>(work: () => T): ({ ok: true } & T) | Broken {
  try {
    return { ok: true, ...work() };
  } catch (caught) {
    if (!(caught instanceof BrokenWorkspace)) throw caught;
    return {
      ok: false,
      errors: caught.errors.slice(0, ERRORS_PER_FILE).map(fileErrorInWords),
      odd: [...caught.odd],
    };
  }
}
interface Broken {
  ok: false;
  errors: string[];
  /** What else stands there and is not looked into. */
  odd: string[];
}

/** What the last folder that was brought up to date held: most of its files are the same the next time. */
const filesRead = { folder: '', files: new Map() as FilesRead };

const digest = (text: string) => createHash('sha256').update(text).digest('hex');

/** A workspace as it is read from a folder. */
const WorkspaceShape = z.object({
  ...Shared,
  ...HEAD_SHAPE,
  people: z.array(PersonSchema),
  shared: z.array(Source),
  forms: z.array(
    z.object({
      form: FormSchema,
      behaviours: z.array(Source),
      scenarios: z.array(z.object({ name: z.string(), scenario: ScenarioSchema })),
      records: z.array(z.object({ id: z.string(), values: ValuesSchema })),
    }),
  ),
});

/** Where scripts hold a text or a pattern. */
const search = task(
  z.object({
    scripts: z.array(z.object({ form: z.string().nullable(), name: z.string(), text: z.string() })),
    query: z.object({ wanted: z.string(), pattern: z.boolean(), exact: z.boolean() }),
  }),
  ({ scripts, query }) => searched(scripts, query),
);

const TASKS = {
  compile: task(z.object({ sources: z.array(Source), mode: Mode }), ({ sources, mode }) =>
    sources.map((source) => compile(source, mode)),
  ),
  material: task(
    z.object({ ...Shared, form: FormSchema, sources: z.array(Source), mode: Mode }),
    ({ form, sources, mode, ...shared }) => materialOf(form, shared, sources, mode),
  ),
  checkShared: task(
    z.object({
      ...Shared,
      forms: z.array(FormSchema),
      shared: z.array(Source),
      roles: z.array(RoleSchema),
    }),
    ({ shared, ...rest }) => problemsInShared(shared, rest, new FormLanguage(libs)),
  ),
  checkService: task(
    z.object({ service: ServiceSchema, tables: Shared.tables, roles: z.array(RoleSchema) }),
    ({ service, ...rest }) =>
      problemsInServices({ ...rest, services: [service] }, new FormLanguage(libs)),
  ),
  check: task(
    z.object({ ...Shared, form: FormSchema, sources: z.array(Source), roles: z.array(RoleSchema) }),
    ({ sources, ...surface }) => {
      const language = new FormLanguage(libs);
      language.surround(surface);
      return problemsInSources(surface.form.name, sources, language);
    },
  ),
  search,
  // A pattern of the app's own does not get stuck; it may take as long as the reading of a workspace takes.
  mentions: search,
  searchMentions: task(z.object({ sources: z.array(Source) }), ({ sources }) =>
    mentionsOf(sources),
  ),
  changeBetween: task(
    z.object({ before: z.array(Source), after: z.array(Source) }),
    ({ before, after }) => changeBetween(before, after),
  ),
  preview: task(
    z.object({
      file: z.string(),
      text: z.string(),
      columns: z.array(ColumnSchema).optional(),
      key: z.string().nullable().optional(),
      spelling: SpellingSchema.optional(),
    }),
    ({ file, text, columns, key, spelling }) => {
      const errors: FileError[] = [];
      const guess = guessColumns(file, text, errors, spelling ?? null);
      if (guess === null) return { guess: null, rows: [], errors };
      const told =
        columns ??
        guess.columns.map(({ name, kind, label }) => ({
          name,
          kind,
          ...(label === undefined ? {} : { label }),
        }));
      const rows = readRows(
        file,
        text,
        { key: key ?? guess.key ?? told[0]!.name, columns: told },
        errors,
        told.map((column) => column.name),
        guess.spelling,
      );
      return { guess: { ...guess, columns: told }, rows, errors };
    },
  ),
  planRename: task(
    z.object({
      reach: Reach,
      form: z.string(),
      part: z.string(),
      key: z.string().nullable(),
      to: z.string(),
    }),
    ({ reach, form, part, key, to }) =>
      key === null
        ? planRename({ ...reach, libs }, form, part, to)
        : planRekey({ ...reach, libs }, form, part, key, to),
  ),
  planExportRename: task(
    z.object({ reach: Reach, module: z.string(), position: z.number(), to: z.string() }),
    ({ reach, module, position, to }) => planExportRename({ ...reach, libs }, module, position, to),
  ),
  uses: task(
    z.object({ reach: Reach, form: z.string(), part: z.string(), key: z.string().nullable() }),
    ({ reach, form, part, key }) =>
      key === null
        ? usesOf({ ...reach, libs }, form, part)
        : usesOfKey({ ...reach, libs }, form, part, key),
  ),
  jsonSchema: task(
    z.object({ ...Shared, form: FormSchema, sources: z.array(Source), roles: z.array(RoleSchema) }),
    ({ form, sources, ...rest }) => toJsonSchema(form, steeredBy(rest, form, sources, libs)),
  ),
  takenFrom: task(
    z.object({ text: z.string(), as: z.enum(['json-schema', 'html']), called: z.string() }),
    ({ text, as, called }) =>
      as === 'html' ? fromHtml(text, called) : fromJsonSchema(text, called),
  ),
  readRecords: task(
    z.object({ form: FormSchema, text: z.string(), as: z.enum(['csv', 'json', 'jsonl']) }),
    ({ form, text, as }) => readRecords(form, text, as),
  ),
  pack: task(z.object({ workspace: WorkspaceShape, folder: z.string() }), ({ workspace, folder }) =>
    packed(workspace, folder, digest),
  ),
  unpack: task(
    z.union([
      z.object({ bytes: z.instanceof(Uint8Array) }),
      z.object({ files: z.array(z.tuple([z.string(), z.string()])) }),
    ]),
    (brought) =>
      orBroken(() => {
        const files = 'bytes' in brought ? textsIn(brought.bytes) : new Map(brought.files);
        return { workspace: readWorkspace(files), base: baseIn(files) };
      }),
  ),
  readDirectory: task(z.object({ folder: z.string() }), ({ folder }) =>
    orBroken(() => {
      const workspace = readWorkspace(readFolder(folder));
      return { workspace, digests: [...digestsOf(workspace, digest)] };
    }),
  ),
  sync: task(
    z.object({
      folder: z.string(),
      app: WorkspaceShape,
      base: z.array(z.tuple([z.string(), z.string()])),
    }),
    ({ folder, app, base }) =>
      orBroken(() => {
        if (filesRead.folder !== folder) Object.assign(filesRead, { folder, files: new Map() });
        const { texts, errors, odd } = lookThrough(folder);
        if (errors.length > 0) throw new BrokenWorkspace(errors, odd);
        const found = syncOf(app, texts, new Map(base), digest, filesRead.files);
        return { ...found, odd, base: [...found.base] };
      }),
  ),
  write: task(
    z.object({
      folder: z.string(),
      writes: z.array(
        z.object({
          path: z.string(),
          text: z.string().nullable(),
          was: z.string().nullable().optional(),
        }),
      ),
    }),
    ({ folder, writes }) => writeIntoFolder(folder, writes),
  ),
  offered: task(z.object({ named: z.array(z.string()) }), ({ named }) => foldersOffered(named)),
  allowed: task(z.object({ asked: z.string(), named: z.array(z.string()) }), ({ asked, named }) =>
    allowedFolder(asked, named),
  ),
  settle: task(
    z.object({
      folder: z.string(),
      app: WorkspaceShape,
      unit: z.string(),
      take: z.enum(['app', 'folder']),
    }),
    ({ folder, app, unit, take }) =>
      orBroken(() => ({
        texts: [...writeWorkspace(app)],
        savings: take === 'app' ? [] : savingsOf(app, readWorkspace(readFolder(folder)), [unit]),
      })),
  ),
  changes: task(
    z.object({
      mine: WorkspaceShape,
      incoming: WorkspaceShape,
      base: z.array(z.tuple([z.string(), z.string()])).nullable(),
    }),
    ({ mine, incoming, base }) =>
      changesOf(mine, incoming, base === null ? null : new Map(base), digest),
  ),
  savings: task(
    z.object({ mine: WorkspaceShape, incoming: WorkspaceShape, units: z.array(z.string()) }),
    ({ mine, incoming, units }) => orBroken(() => ({ savings: savingsOf(mine, incoming, units) })),
  ),
} as const;

interface Task<I, O> {
  request: z.ZodType<I>;
  work: (request: I) => O;
}

function task<I, O>(request: z.ZodType<I>, work: (request: I) => O): Task<I, O> {
  return { request, work };
}

export type TaskName = keyof typeof TASKS;
export type RequestOf<N extends TaskName> =
  (typeof TASKS)[N] extends Task<infer I, unknown> ? I : never;
export type AnswerOf<N extends TaskName> =
  (typeof TASKS)[N] extends Task<never, infer O>
    ? O
    : (typeof TASKS)[N] extends Task<infer _, infer O>
      ? O
      : never;

/** How a task came out. What people get wrong is said in words; everything else is thrown. */
export type TaskReply = { ok: true; answer: unknown } | { ok: false; says: string };

const TaskMessage = z.object({
  name: z.enum(Object.keys(TASKS) as [TaskName, ...TaskName[]]),
  request: z.unknown(),
  /** Whoever measures is told by it that the work begins, and in which thread. */
  begun: z.instanceof(MessagePort),
});

const thread = threadNumber();

export function runTask(message: unknown): TaskReply {
  const { name, request, begun } = TaskMessage.parse(message);
  begun.postMessage({ thread });
  begun.close();
  const { request: schema, work } = TASKS[name] as unknown as Task<unknown, unknown>;
  try {
    return { ok: true, answer: work(schema.parse(request)) };
  } catch (caught) {
    if (caught instanceof InvalidEdit || caught instanceof NothingToTake)
      return { ok: false, says: caught.message };
    if (caught instanceof SyntaxError && name === 'search')
      return { ok: false, says: caught.message };
    // Readers call themselves once for each level of what they read.
    if (caught instanceof RangeError && /call stack/.test(caught.message))
      return { ok: false, says: 'This is nested too deeply to be read.' };
    throw caught;
  }
}
