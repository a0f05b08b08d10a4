/** The database: documents with their revisions, immutable releases, records with theirs, and forms being filled in. */
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  customType,
  index,
  integer,
  pgTable,
  primaryKey,
  serial,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';

/** JSON kept as JSONB and handed out unread: every row is parsed with Zod where it is read. */
const json = customType<{ data: unknown; driverData: string }>({
  dataType: () => 'jsonb',
  toDriver: (value) => JSON.stringify(value),
});

const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

const at = (name: string) => timestamp(name, { withTimezone: true }).notNull().defaultNow();

/** What a workspace is made of: definitions, behaviours, scenarios, tables, services, and its head with people and roles. */
export const document = pgTable(
  'document',
  {
    id: serial('id').primaryKey(),
    kind: text('kind').notNull(),
    /** The form it belongs to; empty for what all forms share. */
    form: text('form').notNull().default(''),
    name: text('name').notNull(),
    /** Null once it was removed. */
    content: json('content'),
    revision: integer('revision').notNull(),
  },
  (table) => [
    uniqueIndex('document_there')
      .on(table.kind, table.form, table.name)
      .where(sql`${table.content} is not null`),
    index('document_names').on(table.kind, table.form, table.name),
  ],
);

/** Every content a document has had. */
export const revision = pgTable(
  'revision',
  {
    document: integer('document')
      .notNull()
      .references(() => document.id),
    number: integer('number').notNull(),
    content: json('content'),
    savedBy: text('saved_by'),
    savedAt: at('saved_at'),
  },
  (table) => [primaryKey({ columns: [table.document, table.number] })],
);

/** Never changed once made: form, tables and behaviours, sources and compiled. */
export const release = pgTable(
  'release',
  {
    id: serial('id').primaryKey(),
    form: text('form').notNull(),
    number: integer('number').notNull(),
    content: json('content').notNull(),
    /** The digest of each document it was made of; null for releases made before this was kept. */
    madeOf: json('made_of'),
    /** Null for releases that the app made itself. */
    madeBy: text('made_by'),
    /** Why it was made although something failed; null where nothing did. */
    reason: text('reason'),
    /** What failed then, in words. */
    failing: json('failing'),
    /** The number of the earlier release that it puts back; null for one that was made anew. */
    again: integer('again'),
    createdAt: at('created_at'),
  },
  (table) => [uniqueIndex('release_number').on(table.form, table.number)],
);

export const record = pgTable(
  'record',
  {
    form: text('form').notNull(),
    id: text('id').notNull(),
    values: json('values').notNull(),
    /** Counts savings, so that one made from an older state is a conflict. */
    revision: integer('revision').notNull(),
    /** The release that made it; null for sample records. */
    release: integer('release'),
    savedBy: text('saved_by').notNull(),
    savedAt: at('saved_at'),
    /** Where it stands in lists: by number, the highest first, then the other ids. */
    place: bigint('place', { mode: 'number' })
      .notNull()
      .generatedAlwaysAs(sql`case when id ~ '^[0-9]{1,18}$' then -(id::bigint) else 1 end`),
    /** What is searched in. */
    words: text('words')
      .notNull()
      .generatedAlwaysAs(sql`tavro_words("values")`),
  },
  (table) => [
    primaryKey({ columns: [table.form, table.id] }),
    index('record_order').on(table.form, table.place, table.id),
  ],
);

/** Every state in which a record was saved. */
export const recordRevision = pgTable(
  'record_revision',
  {
    form: text('form').notNull(),
    id: text('id').notNull(),
    number: integer('number').notNull(),
    values: json('values'),
    release: integer('release'),
    savedBy: text('saved_by').notNull(),
    savedAt: at('saved_at'),
  },
  (table) => [primaryKey({ columns: [table.form, table.id, table.number] })],
);

/** A filling-in that was begun: what the server put in and will not take from a browser. */
export const filling = pgTable('filling', {
  id: uuid('id').primaryKey().defaultRandom(),
  release: integer('release')
    .notNull()
    .references(() => release.id),
  opening: json('opening').notNull(),
  /** The record's revision when it was opened; null for a new entry. */
  recordRevision: integer('record_revision'),
  /** What it was saved as, so that sending it twice saves once. */
  savedAs: text('saved_as'),
  clock: bigint('clock', { mode: 'number' }).notNull(),
  /** The filling-in it was opened from. */
  parent: uuid('parent'),
  /** What it asked to be set in its parent when it was saved; only such values may come from a child. */
  toParent: json('to_parent'),
});

/** The content of files, kept from when they are chosen; a record names them by their digest. */
export const fileContent = pgTable(
  'file_content',
  {
    filling: uuid('filling')
      .notNull()
      .references(() => filling.id),
    /** As `field`, or `rows.column`. */
    field: text('field').notNull().default(''),
    name: text('name').notNull(),
    /** SHA-256 of the content, in hexadecimal. */
    digest: text('digest').notNull(),
    size: integer('size').notNull(),
    type: text('type').notNull(),
    content: bytes('content').notNull(),
    form: text('form').notNull(),
    /** The record it belongs to; null until the filling-in is saved. */
    record: text('record'),
    createdAt: at('created_at'),
  },
  (table) => [primaryKey({ columns: [table.filling, table.field, table.name, table.digest] })],
);

/** Numbers for new records, one sequence a form. */
export const recordNumber = pgTable('record_number', {
  form: text('form').primaryKey(),
  next: integer('next').notNull(),
});

/** What the server signs with. */
export const secret = pgTable('secret', {
  name: text('name').primaryKey(),
  value: text('value').notNull(),
});

/** How a form's scenarios came out when they were last run, and of which state of the workspace. */
export const scenarioRun = pgTable('scenario_run', {
  form: text('form').primaryKey(),
  passed: integer('passed').notNull(),
  failed: integer('failed').notNull(),
  of: text('of').notNull(),
  /** Statements that they reached when that was last measured, in percent; null where it never was. */
  coverage: integer('coverage'),
  at: at('at'),
});

/** Runs of the scenarios of each form, as long as they are among the last ones. */
export const pastRun = pgTable(
  'past_run',
  {
    id: serial('id').primaryKey(),
    form: text('form').notNull(),
    passed: integer('passed').notNull(),
    failed: integer('failed').notNull(),
    /** The titles of those that failed. */
    failing: json('failing').notNull(),
    by: text('by'),
    at: at('at'),
    /** When they came out like that last. */
    until: at('until'),
  },
  (table) => [index('past_run_order').on(table.form, table.id)],
);

/** What the last check of a form found, apart from its scenarios, and of which state of the workspace. */
export const formCheck = pgTable('form_check', {
  form: text('form').primaryKey(),
  errors: integer('errors').notNull(),
  warnings: integer('warnings').notNull(),
  of: text('of').notNull(),
});

/** A search for faults in several forms, in chunks that workers take from a queue. */
export const searchRun = pgTable('search_run', {
  id: serial('id').primaryKey(),
  by: text('by'),
  at: at('at'),
  /** What for: `faults`, or `changes` for people since the last release. */
  what: text('what').notNull().default('faults'),
  /** Each form is searched with the seeds from 1 to this one. */
  seeds: integer('seeds').notNull(),
  stopped: boolean('stopped').notNull().default(false),
});

/** What a search goes over, as it was when the first chunk of the form was taken. */
export const searchGround = pgTable(
  'search_ground',
  {
    search: integer('search')
      .notNull()
      .references(() => searchRun.id, { onDelete: 'cascade' }),
    form: text('form').notNull(),
    /** The state of the form's documents and of those all forms share; empty until a chunk is taken. */
    of: text('of').notNull(),
    /** What each seed is searched with; null until a chunk is taken, and where the form cannot be searched. */
    request: json('request'),
    /** Why it cannot. */
    says: text('says'),
  },
  (table) => [primaryKey({ columns: [table.search, table.form] })],
);

/** A chunk that is done: one form with one seed, once. */
export const searchChunk = pgTable(
  'search_chunk',
  {
    search: integer('search')
      .notNull()
      .references(() => searchRun.id, { onDelete: 'cascade' }),
    form: text('form').notNull(),
    seed: integer('seed').notNull(),
    sessions: integer('sessions').notNull(),
    findings: json('findings').notNull(),
    /** Why it came to no end; null where it did. */
    says: text('says'),
    at: at('at'),
  },
  (table) => [primaryKey({ columns: [table.search, table.form, table.seed] })],
);

/** What the last search has found in a form, and of which state of the workspace. */
export const formFound = pgTable('form_found', {
  form: text('form').primaryKey(),
  of: text('of').notNull(),
  sessions: integer('sessions').notNull(),
  /** Findings that are wrong and not answered in the code. */
  wrong: integer('wrong').notNull(),
  findings: json('findings').notNull(),
  at: at('at'),
});

/** How many differences for people there are between a form's last release and the form, and of which state of the workspace. */
export const formChanged = pgTable('form_changed', {
  form: text('form').primaryKey(),
  of: text('of').notNull(),
  /** The number of the release that it was compared with. */
  release: integer('release').notNull(),
  sessions: integer('sessions').notNull(),
  /** Without those that were accepted. */
  count: integer('count').notNull(),
  at: at('at'),
});

/** What was taken into the workspace in one go, with what stood there before. */
export const taking = pgTable('taking', {
  id: serial('id').primaryKey(),
  /** Where it came from, in words. */
  what: text('what').notNull(),
  savedBy: text('saved_by'),
  savedAt: at('saved_at'),
  undoneAt: timestamp('undone_at', { withTimezone: true }),
  changes: json('changes').notNull(),
});

/** What a live folder and the workspace had in common last, by unit. */
export const folderBase = pgTable('folder_base', {
  unit: text('unit').primaryKey(),
  /** Of its canonical text, SHA-256 in hexadecimal. */
  digest: text('digest').notNull(),
});

/** Filling-ins that were kept to be looked into. */
export const recording = pgTable(
  'recording',
  {
    id: serial('id').primaryKey(),
    form: text('form').notNull(),
    /** Null for one that was brought in from a file. */
    filling: uuid('filling'),
    because: text('because').notNull(),
    says: text('says').notNull(),
    /** The number of the release that it happened in. */
    release: integer('release'),
    keptBy: text('kept_by').notNull(),
    keptAt: at('kept_at'),
    content: json('content').notNull(),
  },
  (table) => [
    index('recording_order').on(table.form, table.id),
    index('recording_filling').on(table.filling),
  ],
);

/** Differences between the last release and the form as it is that somebody has accepted as meant. */
export const acceptedDifference = pgTable(
  'accepted_difference',
  {
    form: text('form').notNull(),
    /** SHA-256 of what differs, in hexadecimal. */
    key: text('key').notNull(),
    content: json('content').notNull(),
    by: text('by').notNull(),
    at: at('at'),
  },
  (table) => [primaryKey({ columns: [table.form, table.key] })],
);

/** What people did in filling-ins that were saved, as long as the workspace keeps it. It goes with the record. */
export const keptFilling = pgTable(
  'kept_filling',
  {
    id: serial('id').primaryKey(),
    form: text('form').notNull(),
    record: text('record').notNull(),
    /** The number of the release that it was done in. */
    release: integer('release').notNull(),
    masked: boolean('masked').notNull(),
    content: json('content').notNull(),
    at: at('at'),
  },
  (table) => [
    index('kept_filling_order').on(table.form, table.id),
    index('kept_filling_record').on(table.form, table.record),
    index('kept_filling_age').on(table.at),
  ],
);
