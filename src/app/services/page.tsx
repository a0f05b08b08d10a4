import type { Metadata } from 'next';
import { readHead, readServices } from '@/server/workspace/read';
import { here } from '@/server/workspaces/page';
import { Services } from '@/ui/manage/services';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Services' };

export default function Page() {
  return here(async () => {
    const [head, services] = await Promise.all([readHead(), readServices()]);
    return (
      <Services
        workspace={head.title}
        services={services.map(({ name, title, functions }) => ({
          name,
          title,
          functions: Object.keys(functions),
        }))}
      />
    );
  });
}
