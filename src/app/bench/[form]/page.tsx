import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { newestRelease } from '@/server/releases';
import { readBehaviours, readDefinition, readForm, readHead, readParents, readRecords, readScenarios, readServices, readTables } from '@/server/store';
import { Bench } from '@/ui/bench/bench';

export const dynamic = 'force-dynamic';

interface Props {
  params: Promise<{ form: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const form = await readForm((await params).form);
  return { title: form === null ? 'No such form' : form.title };
}

export default async function BenchPage({ params }: Props) {
  const { form: name } = await params;
  const definition = await readDefinition(name);
  if (definition === null) notFound();
  const [head, tables, services, behaviours, scenarios, records, release, forms] = await Promise.all([
    readHead(), readTables(), readServices(), readBehaviours(name), readScenarios(name), readRecords(name), newestRelease(name), readParents(name),
  ]);
  const material = {
    ...head,
    ...definition,
    tables,
    services,
    forms,
    behaviours,
    scenarios,
    records: records.map(({ id, values }) => ({ id, values })),
    release: release?.number ?? null,
  };
  return <Bench material={material} />;
}
