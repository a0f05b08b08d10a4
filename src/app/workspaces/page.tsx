import type { Metadata } from 'next';
import { drawn } from '@/app/drawn';
import { offeredFolders } from '@/server/hosting/open-folders';
import { readWorkspaces } from '@/server/hosting/manage';
import { Workspaces } from '@/ui/manage/workspaces';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Workspaces' };

export default function Page() {
  return drawn(async () => (
    <Workspaces {...await readWorkspaces()} offered={await offeredFolders()} />
  ));
}
