/** Checking the whole workspace: the server answers with what it has so far, and is asked again until it is through. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Problem } from '@/core/problems/problems';
import { call } from './api';
import { answerOf } from './server-data';

/** Milliseconds between two questions to a server that is still checking. */
const PAUSE = 300;

/** Milliseconds until a check that was cut short goes on by itself. */
const AGAIN_AFTER = 10_000;

export interface Checking {
  problems: Problem[];
  /** Forms checked, of how many. */
  done: number;
  of: number;
  /** Those that are checked. */
  forms: { name: string; title: string }[];
  /** Those whose check was cut short, with the reason: nothing is known of them yet. */
  cutShort: { name: string; title: string; says: string }[];
}

export interface WorkspaceCheck extends Checking {
  /** Through: no more comes, but of those that were cut short. */
  over: boolean;
  /** Has everything checked anew. */
  runAgain: () => void;
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
  const [again, setAgain] = useState(0);
  const { data, error } = useQuery({
    queryKey: ['check', turn, script, again],
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
      state.error !== null
        ? false
        : state.data?.over !== true
          ? PAUSE
          : state.data.cutShort.length > 0 && AGAIN_AFTER,
    refetchIntervalInBackground: true,
  });
  return {
    ...(data ?? { problems: [], done: 0, of: 0, forms: [], cutShort: [], over: false }),
    says: error?.message ?? null,
    runAgain: () =>
      void call('POST', '/api/problems', {}).then(() => setAgain((before) => before + 1)),
  };
}
