import type { Metadata } from 'next';
import { readForms, readHead } from '@/server/content/read';
import { ProblemsPage } from '@/ui/manage/problems-page';
import { ServerData } from '@/ui/server-data';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Problems' };

export default function Problems() {
  return drawn(async () => {
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
