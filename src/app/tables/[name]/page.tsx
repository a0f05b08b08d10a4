import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { readTable } from '@/server/workspace/reference-data';
import { readHead } from '@/server/workspace/read';
import { here } from '@/server/workspaces/page';
import { TablePage } from '@/ui/manage/table-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Table' };

export default function Page({ params }: { params: Promise<{ name: string }> }) {
  return here(async () => {
    const [head, found] = await Promise.all([readHead(), readTable((await params).name)]);
    if (found === null) notFound();
    return <TablePage workspace={head.title} {...found} />;
  });
}
