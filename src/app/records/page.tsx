import type { Metadata } from 'next';
import { readRecordCounts } from '@/server/content/overview';
import { readHead } from '@/server/content/read';
import { RecordCounts } from '@/ui/records/record-counts';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Records' };

export default function Page() {
  return drawn(async () => {
    const [head, forms] = await Promise.all([readHead(), readRecordCounts()]);
    return <RecordCounts workspace={head.title} forms={forms} />;
  });
}
