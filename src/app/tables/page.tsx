import type { Metadata } from 'next';
import { readHead, readTables } from '@/server/workspace/read';
import { NewTable } from '@/ui/manage/new-table';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'New table' };

export default async function Page() {
  const [head, tables] = await Promise.all([readHead(), readTables()]);
  return <NewTable workspace={head.title} taken={tables.map((table) => table.name)} />;
}
