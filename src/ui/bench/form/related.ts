/** For each list of a form, the records that refer to one. */
import type { Form } from '@/core/form/definition';
import type { RelatedRecords } from '../../form/child-list';
import { useAnswer } from '../../server-data';

/** For each list of a form, the records that refer to one; asked for when the bench turns to another record. */
export function useRelated(form: Form, record: string | null): Record<string, RelatedRecords> {
  const { data } = useAnswer<Record<string, RelatedRecords>>(
    record === null || form.children === undefined || form.children.length === 0
      ? null
      : `/api/fill/${form.name}/children?${new URLSearchParams({ record }).toString()}`,
  );
  return data ?? NONE_RELATED;
}

const NONE_RELATED: Record<string, RelatedRecords> = {};
