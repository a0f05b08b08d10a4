import type { Metadata } from 'next';
import { readForms, readHead } from '@/server/workspace/read';
import { here } from '@/server/workspaces/page';
import { ProblemsPage } from '@/ui/manage/problems-page';
import { ServerData } from '@/ui/server-data';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Problems' };

export default function Problems() {
  return here(async () => {
    const [head, forms] = await Promise.all([readHead(), readForms()]);
    return (
      <ServerData>
        <ProblemsPage
          title={head.title}
          forms={forms.map(({ name, title }) => ({ name, title }))}
        />
      </ServerData>
    );
  });
}
