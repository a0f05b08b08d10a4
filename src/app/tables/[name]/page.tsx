import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { readTable } from '@/server/workspace/reference';
import { readHead } from '@/server/workspace/read';
import { TablePage } from '@/ui/manage/table-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Table' };

export default async function Page({ params }: { params: Promise<{ name: string }> }) {
  const [head, found] = await Promise.all([readHead(), readTable((await params).name)]);
  if (found === null) notFound();
  return <TablePage workspace={head.title} {...found} />;
}
