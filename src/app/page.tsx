import { currentPerson } from '@/server/routes/person';
import { readOverview, readRemovedForms } from '@/server/content/overview';
import { readHead } from '@/server/content/read';
import { Forms } from '@/ui/manage/forms';
import { ServerData } from '@/ui/server-data';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';

export default function Home() {
  return drawn(async () => {
    const [head, forms, removed, person] = await Promise.all([
      readHead(),
      readOverview(),
      readRemovedForms(),
      currentPerson(),
    ]);
    return (
      <ServerData>
        <Forms
          workspace={head.title}
          people={head.people}
          person={person.key}
          forms={forms}
          removed={removed}
        />
      </ServerData>
    );
  });
}
