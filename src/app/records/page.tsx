import type { Metadata } from 'next';
import { readRecordCounts } from '@/server/workspace/overview';
import { readHead } from '@/server/workspace/read';
import { here } from '@/server/workspaces/page';
import { RecordCounts } from '@/ui/records/record-counts';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Records' };

export default function Page() {
  return here(async () => {
    const [head, forms] = await Promise.all([readHead(), readRecordCounts()]);
    return <RecordCounts workspace={head.title} forms={forms} />;
  });
}
