import type { Metadata } from 'next';
import { offeredFolders } from '@/server/folders/open-folders';
import { readWorkspaces } from '@/server/workspaces/manage';
import { Workspaces } from '@/ui/manage/workspaces';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Workspaces' };

export default async function Page() {
  return <Workspaces {...await readWorkspaces()} offered={await offeredFolders()} />;
}
