import type { Metadata } from 'next';
import { readHead } from '@/server/content/read';
import { PeoplePage } from '@/ui/manage/people-page';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'People and roles' };

export default function Page() {
  return drawn(async () => {
    const { revision, ...head } = await readHead();
    return <PeoplePage head={head} revision={revision} />;
  });
}
