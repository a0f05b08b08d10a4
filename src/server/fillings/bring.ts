/** Records that are brought in: each is entered as by hand, with the form's behaviours, and saved or refused by itself. */
import type { Person } from '../../core/form/table';
import type { RecordFormat } from '../../core/workspace/records-out';
import type { RecordIn, RecordsIn } from '../../core/workspace/records-in';
import { fieldsOf } from '../../core/form/fields';
import { submit } from './submitting';
import { Refusal } from '../http/refusal';
import { newestRelease } from '../releases/releases';
import { task } from '../machines/tasks';

/** What a file holds. Throws a Refusal (422) for a form without a release, since nobody could enter anything. */
export async function readBroughtRecords(
  form: string,
  text: string,
  as: RecordFormat,
): Promise<RecordsIn> {
  const release = await newestRelease(form);
  if (release === null)
    throw new Refusal(422, 'The form has no release yet, so nothing can be entered.');
  return task('readRecords', { form: release.material.form, text, as });
}

export type Entered =
  { line: number; id: string; says: null } | { line: number; id: null; says: string };

/** Enters records one after the other and gives the result of each, by its line. */
export async function enterRecords(
  form: string,
  records: readonly RecordIn[],
  person: Person,
): Promise<Entered[]> {
  const release = await newestRelease(form);
  const labels = new Map(
    release === null
      ? []
      : fieldsOf(release.material.form).map(({ name, label }) => [name, label] as const),
  );
  const entered: Entered[] = [];
  for (const { line, id, values } of records) {
    const came = await submit(
      form,
      { values, ...(id === null ? {} : { record: id }) },
      person,
    ).catch((caught: unknown) => {
      if (caught instanceof Refusal && caught.status !== 503)
        return { kind: 'refused' as const, says: caught.message };
      throw caught;
    });
    if (came.kind === 'saved') entered.push({ line, id: came.id, says: null });
    else if (came.kind === 'stopped' && came.outcome.stops.length > 0)
      entered.push({
        line,
        id: null,
        says: came.outcome.stops
          .map(({ part, says }) => (part === null ? says : `${labels.get(part) ?? part}: ${says}`))
          .join(' '),
      });
    // Whoever brings a file has done no steps.
    else
      entered.push({
        line,
        id: null,
        says: came.says.replace(/^Step \d+ could not be done by [^:]*: /, ''),
      });
  }
  return entered;
}
