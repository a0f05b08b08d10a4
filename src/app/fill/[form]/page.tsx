import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import type { Values } from '@/core/form/value';
import { CannotOpen, handOut } from '@/server/fillings/handing-out';
import { currentPerson } from '@/server/routes/person';
import { childrenOf, neighboursOf, readRecord } from '@/server/records/read';
import { newestRelease } from '@/server/releases/releases';
import { readForm, readHead } from '@/server/content/read';
import { CannotBeOpened } from '@/ui/fill/cannot-open';
import { Fill } from '@/ui/fill/fill';
import { NoRelease } from '@/ui/fill/no-release';
import { drawn, titled } from '@/app/drawn';

export const dynamic = 'force-dynamic';

const NONE = { previous: null, next: null };

interface Props {
  params: Promise<{ form: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export function generateMetadata({ params }: Props): Promise<Metadata> {
  return titled(async () => {
    const form = await readForm((await params).form);
    return { title: form === null ? 'No such form' : form.title };
  });
}

/** Hands the newest release out, which saves nothing. `record` opens one, `view` only to look at; every other parameter is a launch parameter. */
export default function FillPage({ params, searchParams }: Props) {
  return drawn(async () => {
    const { form: name } = await params;
    const { record: id, view, ...query } = await searchParams;
    const [form, head, release, person] = await Promise.all([
      readForm(name),
      readHead(),
      newestRelease(name),
      currentPerson(),
    ]);
    if (form === null) notFound();
    if (release === null)
      return <NoRelease workspace={head.title} title={form.title} name={name} />;
    const record = typeof id === 'string' ? await readRecord(name, id) : null;
    if (typeof id === 'string' && record === null) notFound();
    const launch: Values = Object.fromEntries(
      Object.entries(query).flatMap(([key, value]) =>
        typeof value === 'string' ? [[key, value]] : [],
      ),
    );
    const viewing = view !== undefined && record !== null;
    const handout = await handOut(release, person, record, { launch, viewing }).catch(
      (caught: unknown) => {
        if (caught instanceof CannotOpen) return caught;
        throw caught;
      },
    );
    if (handout instanceof CannotOpen)
      return (
        <CannotBeOpened
          workspace={head.title}
          name={name}
          title={form.title}
          says={handout.message}
        />
      );
    const [neighbours, related] = await Promise.all([
      record === null ? NONE : neighboursOf(name, record.id),
      childrenOf(release.material.form, record?.id ?? null),
    ]);
    return (
      <Fill
        key={handout.ticket}
        workspace={head.title}
        people={head.people}
        number={release.number}
        material={release.material}
        handout={handout}
        recordRevision={record?.revision ?? null}
        neighbours={neighbours}
        related={related}
      />
    );
  });
}
