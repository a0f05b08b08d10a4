import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { currentPerson } from '@/server/request';
import { readForm, readHead, readRecords, readTables } from '@/server/store';
import { Records } from '@/ui/manage/records';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Records' };

export default async function RecordsPage({ params }: { params: Promise<{ form: string }> }) {
  const { form: name } = await params;
  const form = await readForm(name);
  if (form === null) notFound();
  const [head, tables, records, person] = await Promise.all([readHead(), readTables(), readRecords(name), currentPerson()]);
  return <Records {...head} person={person.key} form={form} tables={tables} records={records} />;
}
