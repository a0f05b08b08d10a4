import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { compileServices } from '@/core/language/material';
import { compiled } from '@/server/compiled';
import { newestNumber } from '@/server/releases';
import { readBehaviours, readDefinition, readForm, readForms, readHead, readParents, readRecords, readRelated, readScenarios, readServices, readTables } from '@/server/store';
import { fieldsOf } from '@/core/form/definition';
import type { Open } from '@/core/scenario/definition';
import type { FormRecords } from '@/core/scenario/opening';
import { Bench } from '@/ui/bench/bench';
import type { BenchPlace } from '@/ui/bench/store';

export const dynamic = 'force-dynamic';

interface Props {
  params: Promise<{ form: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const form = await readForm((await params).form);
  return { title: form === null ? 'No such form' : form.title };
}

/** The bench of a form. `record`, `parent` (`form/record`) and `launch.NAME` say how it is opened at first; `behaviour` and `line`, `part` or `scenario` what is looked at. */
export default async function BenchPage({ params, searchParams }: Props) {
  const { form: name } = await params;
  const definition = await readDefinition(name);
  if (definition === null) notFound();
  const [head, tables, services, behaviours, scenarios, records, release, forms, related, all] = await Promise.all([
    readHead(), readTables(), readServices(), readBehaviours(name), readScenarios(name), readRecords(name), newestNumber(name), readParents(name), readRelated(definition.form), readForms(),
  ]);
  const material = {
    ...head,
    ...definition,
    tables,
    services,
    forms,
    related,
    others: all.map((form) => ({ name: form.name, title: form.title, fields: fieldsOf(form).map(({ name: key, label }) => ({ key, label })) })),
    behaviours: behaviours.map((behaviour) => ({ ...behaviour, compiled: compiled(behaviour, 'traced') })),
    answering: compileServices(services),
    scenarios,
    records: records.map(({ id, values }) => ({ id, values })),
    release: release?.number ?? null,
  };
  const query = await searchParams;
  return <Bench material={material} opened={openedBy(query, material)} at={placeIn(query)} />;
}

/** What a query leads to: `behaviour` and `line`, `part`, or `scenario`. */
function placeIn(query: Record<string, string | string[] | undefined>): BenchPlace {
  if (typeof query.behaviour === 'string') return { is: 'line', behaviour: query.behaviour, line: Math.max(1, Math.trunc(Number(query.line)) || 1) };
  if (typeof query.part === 'string') return { is: 'part', part: query.part };
  return typeof query.scenario === 'string' ? { is: 'scenario', name: query.scenario } : null;
}

/** What of a query can be: a record and a parent that are there, and launch parameters with technical names. */
function openedBy(query: Record<string, string | string[] | undefined>, material: { records: readonly { id: string }[]; forms: readonly FormRecords[] }): Partial<Open> {
  const launch = Object.fromEntries(Object.entries(query).flatMap(([key, value]) => (/^launch\.[a-z][a-z0-9_]*$/.test(key) && typeof value === 'string' ? [[key.slice(7), value]] : [])));
  const [form, record] = typeof query.parent === 'string' ? query.parent.split('/') : [];
  const parent = material.forms.find((one) => one.form.name === form)?.records.some(({ id }) => id === record) === true;
  return {
    ...(material.records.some(({ id }) => id === query.record) ? { record: query.record as string } : {}),
    ...(Object.keys(launch).length > 0 ? { launch } : {}),
    ...(parent ? { parent: { form: form!, record: record! } } : {}),
  };
}
