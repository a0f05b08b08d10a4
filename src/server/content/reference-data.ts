/** Editing what forms share: tables, services, people and roles. */
import * as z from 'zod';
import { TITLE_CHARACTERS } from '../../core/limits';
import { cellsOf, fieldsOf } from '../../core/form/fields';
import { repeatsIn } from '../../core/form/repeats';
import type { Service } from '../../core/form/service';
import { RoleSchema, type Table } from '../../core/form/table';
import { HEAD_SHAPE } from '../../core/workspace/head';
import { task } from '../machines/tasks';
import { Refusal } from '../http/refusal';
import {
  readAllDocuments,
  readDocument,
  removeDocument,
  saveDocument,
  type Head,
  type Key,
} from '../revisions/documents';
import type { Saved } from '../revisions/save';
import { HEAD, readForms, readServices } from './read';
import { SCALARS } from '../../core/form/scalar';

export const HeadSchema = z
  .strictObject({
    ...HEAD_SHAPE,
    title: z.string().min(1).max(TITLE_CHARACTERS),
    roles: z.array(RoleSchema).min(1),
  })
  .superRefine(({ roles, people }, context) => {
    for (const i of repeatsIn(roles.map(({ key }) => key)))
      context.addIssue({ code: 'custom', message: `the role "${roles[i]!.key}" is there twice` });
    for (const i of repeatsIn(people.map(({ key }) => key)))
      context.addIssue({
        code: 'custom',
        message: `the person "${people[i]!.key}" is there twice`,
      });
    const known = new Set(roles.map((role) => role.key));
    for (const person of people) {
      for (const held of person.roles)
        if (!known.has(held))
          context.addIssue({
            code: 'custom',
            message: `${person.name} has the role "${held}", which there is not`,
          });
      if (new Set(person.roles).size < person.roles.length)
        context.addIssue({ code: 'custom', message: `${person.name} has a role twice` });
    }
  });

export function saveHead(head: Head, from: number, by: string): Promise<Saved<Head>> {
  return saveDocument(HEAD, head, from, by);
}

/** What a table has to be besides its shape. Throws a Refusal that names the first fault. */
function soundTable(table: Table): void {
  const [repeat] = repeatsIn(table.columns.map(({ name }) => name));
  if (repeat !== undefined)
    throw new Refusal(422, `The column "${table.columns[repeat]!.name}" is there twice.`);
  const columns = new Map(table.columns.map((column) => [column.name, column]));
  for (const role of ['key', 'label'] as const)
    if (!columns.has(table[role]))
      throw new Refusal(422, `There is no column "${table[role]}" to be the ${role}.`);
  const keys = new Set<string>();
  for (const [i, row] of table.rows.entries()) {
    for (const [name, cell] of Object.entries(row)) {
      const column = columns.get(name);
      if (column === undefined)
        throw new Refusal(422, `Row ${i + 1}: there is no column "${name.slice(0, 100)}".`);
      if (cell !== null && !SCALARS[column.kind].holds(cell))
        throw new Refusal(
          422,
          `Row ${i + 1}: ${column.label ?? name} takes ${SCALARS[column.kind].typed}.`,
        );
    }
    const key = String(row[table.key] ?? '');
    if (key === '') throw new Refusal(422, `Row ${i + 1} has no key (${table.key}).`);
    if (keys.has(key))
      throw new Refusal(422, `Row ${i + 1}: the key "${key.slice(0, 100)}" is there twice.`);
    keys.add(key);
  }
}

export async function readTable(name: string): Promise<{ table: Table; revision: number } | null> {
  const found = await readDocument({ kind: 'table', name });
  return found === null ? null : { table: found.content, revision: found.revision };
}

/** Saves a table made from revision `from`; 0 makes a new one. */
export async function saveTable(table: Table, from: number, by: string): Promise<Saved<Table>> {
  soundTable(table);
  return saveDocument({ kind: 'table', name: table.name }, table, from, by);
}

/** Removes a table that nothing refers to. Throws a Refusal that names what does. */
export async function removeTable(name: string, from: number, by: string): Promise<void> {
  for (const form of await readForms()) {
    const field = fieldsOf(form)
      .flatMap((one) => [one, ...cellsOf(one)])
      .find((one) => one.kind === 'reference' && one.table === name);
    if (field !== undefined)
      throw new Refusal(409, `${field.label} of ${form.title} refers to this table.`);
  }
  for (const service of await readServices()) {
    const answers = Object.values(service.functions).some(
      (made) => made.answers.from === 'table' && made.answers.table === name,
    );
    if (answers) throw new Refusal(409, `The service ${service.title} answers from this table.`);
  }
  await unused('tables', name, 'uses this table');
  await remove({ kind: 'table', name }, from, by);
}

export async function readService(
  name: string,
): Promise<{ service: Service; revision: number } | null> {
  const found = await readDocument({ kind: 'service', name });
  return found === null ? null : { service: found.content, revision: found.revision };
}

/** Saves a service made from revision `from`; 0 makes a new one. */
export async function saveService(
  service: Service,
  from: number,
  by: string,
): Promise<Saved<Service>> {
  for (const [called, { parameters, answers }] of Object.entries(service.functions)) {
    if (answers.from !== 'table') continue;
    const table = (await readTable(answers.table))?.table;
    if (table === undefined)
      throw new Refusal(
        422,
        `${called} answers from the table "${answers.table}", which there is not.`,
      );
    for (const [column, parameter] of Object.entries(answers.where)) {
      if (!table.columns.some((one) => one.name === column))
        throw new Refusal(422, `${called}: the table ${table.title} has no column "${column}".`);
      if (!parameters.some((one) => one.name === parameter))
        throw new Refusal(422, `${called} has no parameter "${parameter}".`);
    }
  }
  return saveDocument({ kind: 'service', name: service.name }, service, from, by);
}

/** Removes a service that no behaviour calls. Throws a Refusal that names who does. */
export async function removeService(name: string, from: number, by: string): Promise<void> {
  await unused('services', name, 'calls this service');
  await remove({ kind: 'service', name }, from, by);
}

/** Throws a Refusal (409) for the first behaviour that names a member of `tables` or `services`. */
async function unused(of: 'tables' | 'services', name: string, does: string): Promise<void> {
  const behaviours = await readAllDocuments('behaviour');
  const scripts = behaviours.map(({ form, name: file, content }) => ({
    form,
    name: file,
    text: content,
  }));
  // The name of a table or service is a technical one, of which nothing means anything to a pattern.
  const wanted = `\\b${of}\\s*(?:\\.|\\?\\.|\\[\\s*["'])\\s*${name.replace(/[^a-z0-9_]/g, '')}\\b`;
  const [user] = await task('mentions', { scripts, query: { wanted, pattern: true, exact: true } });
  if (user !== undefined)
    throw new Refusal(409, `The behaviour ${user.name} of ${user.form} ${does}.`);
}

/** Throws a Refusal (409) when somebody changed it meanwhile; one that is gone is removed. */
async function remove(key: Key<'table' | 'service'>, from: number, by: string): Promise<void> {
  const result = await removeDocument(key, from, by);
  if (!result.saved && result.theirs.revision > 0)
    throw new Refusal(409, 'Somebody else changed this meanwhile. Reload to see it.');
}
