import type { Metadata } from 'next';
import { readHead, readServices } from '@/server/content/read';
import { Services } from '@/ui/manage/services';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Services' };

export default function Page() {
  return drawn(async () => {
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
