import type { Metadata } from 'next';
import { readHead } from '@/server/workspace/read';
import { here } from '@/server/workspaces/page';
import { PeoplePage } from '@/ui/manage/people-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'People and roles' };

export default function Page() {
  return here(async () => {
    const { revision, ...head } = await readHead();
    return <PeoplePage head={head} revision={revision} />;
  });
}
