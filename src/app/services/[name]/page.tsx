import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { Name } from '@/core/form/definition';
import { readService } from '@/server/content/reference-data';
import { readHead, readTables } from '@/server/content/read';
import { ServicePage } from '@/ui/manage/service-page';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Service' };

/** A service, or with a name that no service has yet the beginning of one. */
export default function Page({ params }: { params: Promise<{ name: string }> }) {
  return drawn(async () => {
    const { name } = await params;
    if (!Name.safeParse(name).success) notFound();
    const [head, tables, found] = await Promise.all([readHead(), readTables(), readService(name)]);
    const service = found?.service ?? { name, title: name.replace(/_/g, ' '), functions: {} };
    return (
      <ServicePage
        workspace={head.title}
        tables={tables.map((table) => ({
          name: table.name,
          title: table.title,
          columns: table.columns.map((column) => column.name),
        }))}
        service={service}
        revision={found?.revision ?? 0}
      />
    );
  });
}
