import type { Metadata } from 'next';
import { readOverview } from '@/server/workspace/overview';
import { readHead } from '@/server/workspace/read';
import { RecordCounts } from '@/ui/records/record-counts';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Records' };

export default async function Page() {
  const [head, forms] = await Promise.all([readHead(), readOverview()]);
  return <RecordCounts workspace={head.title} forms={forms} />;
}
