import { notFound, redirect } from 'next/navigation';
import { isThere } from '@/server/revisions/documents';
import { Refusal } from '@/server/http/refusal';
import { sharedScript, type ScriptKey } from '@/server/content/behaviours';
import { formsUsing, readForms } from '@/server/content/read';
import { basePath } from '@/server/routes/page';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';

interface Props {
  params: Promise<{ folder: string; file: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

function keyOf(folder: string, file: string): ScriptKey | null {
  try {
    return sharedScript(folder, file);
  } catch (caught) {
    if (caught instanceof Refusal) return null;
    throw caught;
  }
}

/** A shared script on the bench of the first form that uses it. */
export default function ScriptPage({ params, searchParams }: Props) {
  return drawn(async () => {
    const { folder, file } = await params;
    const { line } = await searchParams;
    const key = keyOf(folder, file);
    if (key === null) notFound();
    const [form] = [...(await formsUsing(key.name)), ...(await readForms())];
    if (form === undefined || !(await isThere(key))) notFound();
    const query = new URLSearchParams({
      behaviour: key.name,
      ...(typeof line === 'string' ? { line } : {}),
    });
    redirect(`${await basePath()}/bench/${form.name}?${query.toString()}`);
  });
}
