import { newestRelease } from '@/server/releases';
import { currentPerson } from '@/server/request';
import { countRecords, readBehaviours, readForms, readHead, readRecords, readScenarios, readTables } from '@/server/store';
import { Forms } from '@/ui/manage/forms';

export const dynamic = 'force-dynamic';

export default async function Home() {
  const [head, forms, tables, person] = await Promise.all([readHead(), readForms(), readTables(), currentPerson()]);
  const rows = await Promise.all(
    forms.map(async (form) => {
      const { name } = form;
      const [behaviours, scenarios, records, release, count] = await Promise.all([
        readBehaviours(name), readScenarios(name), readRecords(name), newestRelease(name), countRecords(name),
      ]);
      return { form, behaviours, scenarios, records: records.map(({ id, values }) => ({ id, values })), release: release === null ? null : { number: release.number, createdAt: release.createdAt }, count };
    }),
  );
  return <Forms {...head} person={person.key} tables={tables} forms={rows} />;
}
