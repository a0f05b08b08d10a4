'use client';
/** Searching all forms for faults, and comparing them with their releases: begun here, worked through by the workers, followed until it is over. */
import { chakra, Flex } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { counted } from '@/core/counted';
import { call } from '../api';
import { Button, ProgressBar } from '../kit';
import { answerOf } from '../server-data';

/** Milliseconds between two looks at how far it is. */
const PAUSE = 1000;

/** As `/api/searches` tells it. */
export interface SearchState {
  id: number;
  what: 'faults' | 'changes';
  stopped: boolean;
  done: number;
  of: number;
  forms: { form: string; says: string | null }[];
}

const isUnderway = (state: SearchState | null | undefined) =>
  state != null && !state.stopped && state.done < state.of;

/** How far the last search of the workspace is, looked at for as long as it goes on. */
export function useSearch() {
  const [turn, setTurn] = useState(0);
  const router = useRouter();
  const { data, error } = useQuery({
    queryKey: ['search', turn],
    queryFn: async () => (await answerOf<SearchState | null>('/api/searches')).body,
    refetchInterval: ({ state }) => (isUnderway(state.data) ? PAUSE : false),
  });
  // What was found in a form stands in its row.
  useEffect(() => {
    if (data != null) router.refresh();
  }, [data?.done, data?.stopped]);
  return { state: data ?? null, says: error?.message ?? null, again: () => setTurn(turn + 1) };
}

export function FaultSearch() {
  const { state, says: lost, again } = useSearch();
  const [says, setSays] = useState<string | null>(null);
  const tell = async (method: 'POST' | 'DELETE', path: string, body?: object) => {
    const reply = await call(method, path, body);
    setSays(reply.ok ? null : reply.says);
    again();
  };
  const broken = state?.forms.filter((form) => form.says !== null) ?? [];
  return (
    <Flex gap="10px" align="center" wrap="wrap">
      {isUnderway(state) ? (
        <>
          <ProgressBar done={state!.done} of={state!.of} what="What the workers do" />
          <span role="status">
            {state!.what === 'faults' ? 'Searching' : 'Comparing'}: {state!.done} of{' '}
            {counted(state!.of, 'part')}
          </span>
          <Button look="text" onClick={() => void tell('DELETE', `/api/searches/${state!.id}`)}>
            Stop
          </Button>
        </>
      ) : (
        <>
          <Button
            title="Uses every form over and over, on the server; faults that no scenario expects stand in its row"
            onClick={() => void tell('POST', '/api/searches', { depth: 'quick' })}
          >
            Search for faults
          </Button>
          <Button
            title="Uses each form that has changed beside its last release, on the server; how much changed for people stands in its row"
            onClick={() => void tell('POST', '/api/searches', { depth: 'quick', what: 'changes' })}
          >
            Compare with releases
          </Button>
        </>
      )}
      {broken.length > 0 && (
        <chakra.span color="bad" fontSize="13px">
          {broken.map(({ form, says: why }) => `${form}: ${why}`).join('; ')}
        </chakra.span>
      )}
      {(says ?? lost) !== null && <chakra.span color="bad">{says ?? lost}</chakra.span>}
    </Flex>
  );
}
