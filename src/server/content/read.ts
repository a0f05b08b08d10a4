/** What a workspace is made of, read. */
import { listsChildren } from '../../core/form/fields';
import type { Form } from '../../core/form/definition';
import type { Service } from '../../core/form/service';
import type { Table } from '../../core/form/table';
import { inOrder } from '../../core/script/header';
import { scriptsOf } from '../../core/script/of-form';
import { recordsOf } from '../../core/scenario/inputs';
import type { Scenario } from '../../core/scenario/definition';
import type { FormRecords } from '../../core/scenario/opening';
import { readSamples } from '../records/read';
import {
  readAllDocuments,
  readDocument,
  readDocuments,
  type Document,
  type Head,
} from '../revisions/documents';

export const HEAD = { kind: 'head', name: 'head' } as const;

export interface StoredBehaviour {
  name: string;
  text: string;
  revision: number;
}

export interface StoredScenario {
  name: string;
  scenario: Scenario;
  revision: number;
}

export async function readHead(): Promise<Head & { revision: number }> {
  const head = await readDocument(HEAD);
  if (head === null)
    throw new Error('the database holds no workspace; start the app with npm start');
  return { ...head.content, revision: head.revision };
}

const contents = <K extends 'form' | 'table' | 'service'>(documents: readonly Document<K>[]) =>
  documents.map(({ content }) => content);

export async function readForms(): Promise<Form[]> {
  return contents(await readDocuments('form'));
}

export async function readForm(name: string): Promise<Form | null> {
  return (await readDocument({ kind: 'form', name }))?.content ?? null;
}

export async function readTables(): Promise<Table[]> {
  return contents(await readDocuments('table'));
}

export async function readServices(): Promise<Service[]> {
  return contents(await readDocuments('service'));
}

export const asScript = ({ name, content, revision }: Document<'behaviour' | 'shared'>) => ({
  name,
  text: content,
  revision,
});

/** A form's own behaviours in the order in which they run. */
export async function readBehaviours(form: string): Promise<StoredBehaviour[]> {
  return inOrder((await readDocuments('behaviour', form)).map(asScript));
}

/** Shared modules and behaviours for several forms. */
export async function readShared(): Promise<StoredBehaviour[]> {
  return (await readDocuments('shared')).map(asScript);
}

/** All that a form runs with: its own behaviours, those for several forms that are for it, and the modules they use. */
export async function readScripts(form: Form): Promise<StoredBehaviour[]> {
  const [own, shared] = await Promise.all([readDocuments('behaviour', form.name), readShared()]);
  return scriptsOf(form, own.map(asScript), shared);
}

export async function readScenarios(form: string): Promise<StoredScenario[]> {
  return (await readDocuments('scenario', form)).map(({ name, content, revision }) => ({
    name,
    scenario: content,
    revision,
  }));
}

/** The forms that run with a shared module or a behaviour for several forms. */
export async function formsUsing(script: string): Promise<Form[]> {
  const [forms, behaviours, shared] = await Promise.all([
    readForms(),
    readAllDocuments('behaviour'),
    readShared(),
  ]);
  return forms.filter((form) => {
    const own = behaviours.filter((one) => one.form === form.name).map(asScript);
    return scriptsOf(form, own, shared).some(({ name }) => name === script);
  });
}

/** Everything in which parts are named: each form with its behaviours and scenarios, and what all share. */
export async function readReach() {
  const [head, shared, forms, behaviours, scenarios, tables, services] = await Promise.all([
    readHead(),
    readShared(),
    readForms(),
    readAllDocuments('behaviour'),
    readAllDocuments('scenario'),
    readTables(),
    readServices(),
  ]);
  return {
    roles: head.roles,
    tables,
    services,
    shared: shared.map(({ name, text }) => ({ name, text })),
    forms: forms.map((form) => ({
      form,
      behaviours: inOrder(behaviours.filter((one) => one.form === form.name)).map(
        ({ name, content }) => ({ name, text: content }),
      ),
      scenarios: scenarios
        .filter((one) => one.form === form.name)
        .map(({ name, content }) => ({ name, scenario: content })),
    })),
  };
}

/** The ids of records that scenarios of a form are opened with: of the form itself, and of each form that is their parent. */
export function recordsNamed(scenarios: readonly Pick<StoredScenario, 'scenario'>[]): {
  own: string[];
  parents: Map<string, string[]>;
} {
  const parents = new Map<string, string[]>();
  for (const { scenario } of scenarios) {
    const { parent } = recordsOf(scenario);
    if (parent !== null)
      parents.set(parent.form, [...(parents.get(parent.form) ?? []), parent.record]);
  }
  return { own: scenarios.flatMap(({ scenario }) => recordsOf(scenario).own), parents };
}

/** Records to open a form with: samples of its own and of the forms that list it, with all that its scenarios name and `wanted`. */
export async function readCast(
  form: string,
  scenarios: readonly Pick<StoredScenario, 'scenario'>[],
  wanted: { record?: string; parent?: { form: string; record: string } } = {},
) {
  const named = recordsNamed(scenarios);
  const parents = (await readForms()).filter(
    (one) => named.parents.has(one.name) || listsChildren(one, form),
  );
  const [records, forms] = await Promise.all([
    readSamples(form, [...(wanted.record === undefined ? [] : [wanted.record]), ...named.own]),
    Promise.all(
      parents.map(async (one): Promise<FormRecords> => ({
        form: one,
        records: await readSamples(one.name, [
          ...(wanted.parent?.form === one.name ? [wanted.parent.record] : []),
          ...(named.parents.get(one.name) ?? []),
        ]),
      })),
    ),
  ]);
  return { records, forms };
}
