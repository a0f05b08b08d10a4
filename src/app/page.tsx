import { currentPerson } from '@/server/person';
import { readOverview } from '@/server/workspace/overview';
import { readHead, readServices, readTables } from '@/server/workspace/read';
import { Forms } from '@/ui/manage/forms';

export const dynamic = 'force-dynamic';

export default async function Home() {
  const [head, forms, tables, services, person] = await Promise.all([
    readHead(),
    readOverview(),
    readTables(),
    readServices(),
    currentPerson(),
  ]);
  return (
    <Forms
      title={head.title}
      roles={head.roles}
      people={head.people}
      person={person.key}
      tables={tables.map(({ name, title, rows }) => ({ name, title, rows: rows.length }))}
      services={services.map(({ name, title }) => ({ name, title }))}
      forms={forms}
    />
  );
}
