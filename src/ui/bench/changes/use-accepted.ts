/** Whether differences were accepted as meant, and by whom. */
import { useCallback } from 'react';
import { acceptedBy, type AcceptedBy } from '@/core/compare/accepted';
import type { Difference } from '@/core/compare/difference';
import { useRoom } from '../../use-room';
import type { Bench } from '../create-bench';

/** By whom a difference was accepted; null where nobody did. */
export function useAccepted(bench: Bench): (difference: Difference) => AcceptedBy | null {
  const accepted = useRoom(bench.changes, (state) => state.accepted);
  return useCallback(
    (difference) =>
      accepted.length === 0 ? null : acceptedBy(difference, accepted, bench.changes.sources()),
    [bench, accepted],
  );
}
