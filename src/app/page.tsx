import { takingPart } from '@/core/language/header';
import { compileServices } from '@/core/language/material';
import { compiled } from '@/server/compiled';
import { newestNumber } from '@/server/releases';
import { currentPerson } from '@/server/request';
import { readBehaviours, readForms, readHead, readRecords, readScenarios, readServices, readTables } from '@/server/store';
import { Forms } from '@/ui/manage/forms';

export const dynamic = 'force-dynamic';

export default async function Home() {
  const [head, forms, tables, services, person] = await Promise.all([readHead(), readForms(), readTables(), readServices(), currentPerson()]);
  const rows = await Promise.all(
    forms.map(async (form) => {
      const { name } = form;
      const [behaviours, scenarios, records, release] = await Promise.all([
        readBehaviours(name), readScenarios(name), readRecords(name), newestNumber(name),
      ]);
      return { form, scripts: takingPart(behaviours).map((behaviour) => compiled(behaviour, 'untraced')), scenarios, records: records.map(({ id, values }) => ({ id, values })), release };
    }),
  );
  return <Forms {...head} person={person.key} tables={tables} services={services} answering={compileServices(services)} forms={rows} />;
}
