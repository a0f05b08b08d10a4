/** The database: everything of a workspace, with revisions of scripts, immutable releases, and records. */
import { bigint, customType, integer, pgTable, primaryKey, serial, text, timestamp, uniqueIndex, uuid } from 'drizzle-orm/pg-core';

/** JSON kept as JSONB and handed out unread: every row is parsed with Zod in `store.ts`. */
const json = customType<{ data: unknown; driverData: string }>({
  dataType: () => 'jsonb',
  toDriver: (value) => JSON.stringify(value),
});

const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

const created = () => timestamp('created_at', { withTimezone: true }).notNull().defaultNow();

/** One row: title, roles and people. */
export const workspace = pgTable('workspace', { id: serial('id').primaryKey(), content: json('content').notNull(), revision: integer('revision').notNull().default(1) });

export const referenceTable = pgTable('reference_table', { name: text('name').primaryKey(), content: json('content').notNull(), revision: integer('revision').notNull().default(1) });

export const service = pgTable('service', { name: text('name').primaryKey(), content: json('content').notNull(), revision: integer('revision').notNull().default(1) });

export const form = pgTable('form', { name: text('name').primaryKey(), definition: json('definition').notNull(), revision: integer('revision').notNull().default(1) });

export const behaviour = pgTable(
  'behaviour',
  {
    form: text('form').notNull().references(() => form.name),
    name: text('name').notNull(),
    text: text('text').notNull(),
    revision: integer('revision').notNull(),
  },
  (table) => [primaryKey({ columns: [table.form, table.name] })],
);

/** Every text a behaviour has had. */
export const behaviourRevision = pgTable(
  'behaviour_revision',
  {
    form: text('form').notNull(),
    name: text('name').notNull(),
    revision: integer('revision').notNull(),
    text: text('text').notNull(),
    createdAt: created(),
  },
  (table) => [primaryKey({ columns: [table.form, table.name, table.revision] })],
);

export const scenario = pgTable(
  'scenario',
  {
    form: text('form').notNull().references(() => form.name),
    name: text('name').notNull(),
    content: json('content').notNull(),
  },
  (table) => [primaryKey({ columns: [table.form, table.name] })],
);

/** Never changed once made: form, tables and behaviours, sources and compiled. */
export const release = pgTable(
  'release',
  {
    id: serial('id').primaryKey(),
    form: text('form').notNull().references(() => form.name),
    number: integer('number').notNull(),
    content: json('content').notNull(),
    createdAt: created(),
  },
  (table) => [uniqueIndex('release_number').on(table.form, table.number)],
);

export const record = pgTable(
  'record',
  {
    form: text('form').notNull().references(() => form.name),
    id: text('id').notNull(),
    values: json('values').notNull(),
    /** Counts savings, so that one made from an older state is a conflict. */
    revision: integer('revision').notNull(),
    /** The release that made it; null for sample records. */
    release: integer('release'),
    savedBy: text('saved_by').notNull(),
    savedAt: timestamp('saved_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.form, table.id] })],
);

/** A filling-in that was handed out: what the server put in and will not take from a browser. */
export const filling = pgTable('filling', {
  id: uuid('id').primaryKey().defaultRandom(),
  release: integer('release').notNull().references(() => release.id),
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

/** The content of files, kept from when they are chosen; a record names them by field and name. */
export const fileContent = pgTable(
  'file_content',
  {
    filling: uuid('filling').notNull().references(() => filling.id),
    name: text('name').notNull(),
    size: integer('size').notNull(),
    type: text('type').notNull(),
    content: bytes('content').notNull(),
    form: text('form').notNull(),
    /** The record it belongs to; null until the filling-in is saved. */
    record: text('record'),
    createdAt: created(),
  },
  (table) => [primaryKey({ columns: [table.filling, table.name] })],
);

/** Numbers for new records, one sequence a form. */
export const recordNumber = pgTable('record_number', { form: text('form').primaryKey(), next: integer('next').notNull() });
