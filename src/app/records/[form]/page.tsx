import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { currentPerson } from '@/server/routes/person';
import { listRecords } from '@/server/records/list';
import { readForm, readHead, readTables } from '@/server/content/read';
import { Records } from '@/ui/records/records';
import { ServerData } from '@/ui/server-data';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Records' };

export default function RecordsPage({ params }: { params: Promise<{ form: string }> }) {
  return drawn(async () => {
    const form = await readForm((await params).form);
    if (form === null) notFound();
    const [head, tables, first, person] = await Promise.all([
      readHead(),
      readTables(),
      listRecords(form, { narrowed: [] }),
      currentPerson(),
    ]);
    return (
      <ServerData>
        <Records
          title={head.title}
          people={head.people}
          person={person.key}
          form={form}
          tables={tables}
          first={first}
        />
      </ServerData>
    );
  });
}
