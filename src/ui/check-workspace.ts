/** Checking the whole workspace: the server answers with what it has so far, and is asked again until it is through. */
import { useQuery } from '@tanstack/react-query';
import type { Problem } from '@/core/problems/problems';
import { answerOf } from './server-data';

/** Milliseconds between two questions to a server that is still checking. */
const PAUSE = 300;

export interface Checking {
  problems: Problem[];
  /** Forms checked, of how many. */
  done: number;
  of: number;
  /** Those that are checked. */
  forms: { name: string; title: string }[];
}

export interface WorkspaceCheck extends Checking {
  /** Through: no more comes. */
  over: boolean;
  /** Why there is no answer. */
  says: string | null;
}

/**
 * What has been found so far, once `asked`; `turn` tells one checking from the next. Of the whole workspace, or of the
 * forms that use a shared `script`.
 */
export function useWorkspaceCheck(
  asked: boolean,
  turn = 0,
  script: string | null = null,
): WorkspaceCheck {
  const { data, error } = useQuery({
    queryKey: ['check', turn, script],
    queryFn: async () => {
      const { status, body } = await answerOf<Checking>(
        `/api/problems${script === null ? '' : `?${new URLSearchParams({ script }).toString()}`}`,
      );
      return { ...body, over: status === 200 };
    },
    enabled: asked,
    // Another visit of the page is another checking.
    gcTime: 0,
    refetchInterval: ({ state }) =>
      state.data?.over === true || state.error !== null ? false : PAUSE,
    refetchIntervalInBackground: true,
  });
  return {
    ...(data ?? { problems: [], done: 0, of: 0, forms: [], over: false }),
    says: error?.message ?? null,
  };
}
