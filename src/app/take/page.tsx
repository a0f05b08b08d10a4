import type { Metadata } from 'next';
import { readTakings } from '@/server/workspaces/taking';
import { readHead } from '@/server/content/read';
import { TakePage } from '@/ui/manage/take-page';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Bring in a folder' };

export default function Page() {
  return drawn(async () => {
    const [{ title, people }, takings] = await Promise.all([readHead(), readTakings()]);
    return <TakePage title={title} people={people} takings={takings} />;
  });
}
