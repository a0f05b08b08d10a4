/** What differs between both versions at the moment that is looked at. */
import { useMemo } from 'react';
import type { Differing } from '@/core/compare/difference';
import { seenAt } from '@/core/scenario/seen';
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';
import type { Bench } from '../create-bench';
import type { Beside } from './beside';

const NONE: readonly Differing[] = [];

/** None while either of them has not done all steps yet. */
export function useDifferingNow(bench: Bench, beside: Beside): readonly Differing[] {
  const { form } = useMaterial(bench);
  const live = useRoom(bench.form.session, ({ answers, at }) => ({ answers, at }));
  const then = useRoom(beside.session, ({ answers, at }) => ({ answers, at }));
  return useMemo(() => {
    const isThere = ({ answers, at }: typeof live) => answers.length > at;
    if (!isThere(live) || !isThere(then) || live.at !== then.at) return NONE;
    return beside.differing(seenAt(then.answers, then.at), {
      form,
      seen: seenAt(live.answers, live.at),
    });
  }, [beside, form, live, then]);
}
