import type { Metadata } from 'next';
import { here } from '@/server/workspaces/page';
import { readTakings } from '@/server/workspaces/taking';
import { readHead } from '@/server/workspace/read';
import { TakePage } from '@/ui/manage/take-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Bring in a folder' };

export default function Page() {
  return here(async () => {
    const [{ title, people }, takings] = await Promise.all([readHead(), readTakings()]);
    return <TakePage title={title} people={people} takings={takings} />;
  });
}
