/** What people did lately, as searches and comparisons begin some of their sessions there. */
import { withoutTimes, type KeptFillingsPage } from '@/core/scenario/kept-steps';
import type { FormRequest } from '@/workers/search-calls';
import { get } from '../../api';
import type { BenchCore } from './core';

/** The last ones are enough: a walk is begun from one of them now and then. */
const LAST = 20;

/** Nothing where the server cannot say: it is no reason not to search. */
export async function doneByPeople({
  pathOf,
}: BenchCore): Promise<NonNullable<FormRequest['done']>> {
  const kept = await get<KeptFillingsPage>(pathOf(`kept?most=${LAST}`));
  return kept.ok ? kept.body.fillings.map(withoutTimes) : [];
}
