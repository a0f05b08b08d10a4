import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { readTable } from '@/server/content/reference-data';
import { readHead } from '@/server/content/read';
import { TablePage } from '@/ui/manage/table-page';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Table' };

export default function Page({ params }: { params: Promise<{ name: string }> }) {
  return drawn(async () => {
    const [head, found] = await Promise.all([readHead(), readTable((await params).name)]);
    if (found === null) notFound();
    return <TablePage workspace={head.title} {...found} />;
  });
}
