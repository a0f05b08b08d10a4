import type { Metadata } from 'next';
import { listRecordings } from '@/server/releases/recordings';
import { readForms, readHead } from '@/server/content/read';
import { RecordingsPage } from '@/ui/manage/recordings-page';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Recordings' };

interface Props {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** Filling-ins that were kept to be looked into. `form` and `record` narrow them down. */
export default function Recordings({ searchParams }: Props) {
  return drawn(async () => {
    const { form, record } = await searchParams;
    const narrowed = {
      form: typeof form === 'string' ? form : undefined,
      record: typeof record === 'string' ? record : undefined,
    };
    const [head, forms, recordings] = await Promise.all([
      readHead(),
      readForms(),
      listRecordings(narrowed),
    ]);
    return (
      <RecordingsPage
        title={head.title}
        people={head.people}
        forms={forms.map(({ name, title }) => ({ name, title }))}
        narrowed={narrowed}
        recordings={recordings}
      />
    );
  });
}
