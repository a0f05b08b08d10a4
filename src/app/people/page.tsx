import type { Metadata } from 'next';
import { readHeadRevision } from '@/server/reference';
import { readHead } from '@/server/store';
import { PeoplePage } from '@/ui/manage/people-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'People and roles' };

export default async function Page() {
  const [head, revision] = await Promise.all([readHead(), readHeadRevision()]);
  return <PeoplePage head={head} revision={revision} />;
}
