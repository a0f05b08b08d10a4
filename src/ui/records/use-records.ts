'use client';
/** A form's records as they are listed: page by page from the server, again whenever what is asked for changes. */
import { keepPreviousData, useInfiniteQuery, type InfiniteData } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Values } from '@/core/form/value';
import { useHeldWhilePressed } from '../press';
import { answerOf } from '../server-data';

export interface ListedRecord {
  id: string;
  values: Values;
  revision: number;
  release: number | null;
  savedBy: string;
  savedAt: string;
  /** How many recordings there are of how it was filled in. */
  recordings?: number;
}

export interface RecordPage {
  records: ListedRecord[];
  next: string | null;
  total: { count: number; more: boolean } | null;
}

/** What is asked for: `search`, `sort`, and `is.FIELD`, `from.FIELD`, `to.FIELD`. */
export type ListQuery = Readonly<Record<string, string>>;

export interface RecordsInView {
  records: ListedRecord[];
  total: RecordPage['total'];
  /** There are more to be loaded. */
  more: boolean;
  loading: boolean;
  says: string | null;
  loadMore: () => void;
}

/** Milliseconds without a key after which what is typed is asked for. */
const PAUSE = 250;
/** Milliseconds for which the records that came with the page are not asked for again. */
const FRESH = 5_000;

type Pages = Pick<InfiniteData<RecordPage>, 'pages'>;
const NONE: Pages = { pages: [] };

/** `first`: the first page of all records, where it came with the page. */
export function useRecords(
  form: string,
  asked: ListQuery,
  first: RecordPage | null,
): RecordsInView {
  const query = useSettled(
    new URLSearchParams(Object.entries(asked).filter(([, value]) => value !== '')).toString(),
  );
  const found = useInfiniteQuery({
    queryKey: ['records', form, query],
    queryFn: async ({ pageParam }) => {
      const wanted = new URLSearchParams(query);
      if (pageParam !== null) wanted.set('after', pageParam);
      return (await answerOf<RecordPage>(`/api/forms/${form}/records?${wanted.toString()}`)).body;
    },
    initialPageParam: null as string | null,
    getNextPageParam: ({ next }: RecordPage) => next,
    placeholderData: keepPreviousData,
    staleTime: first === null ? 0 : FRESH,
    ...(first !== null && query === ''
      ? { initialData: { pages: [first], pageParams: [null] } }
      : {}),
  });
  // A search that is refused, as one too short, leaves what was found before it in view.
  const [{ pages: last }, show] = useState<Pages>(found.data ?? NONE);
  if (found.data !== undefined && found.data.pages !== last) show(found.data);
  // A row must not move away from under a press, nor by what is said above it.
  const pages = useHeldWhilePressed(last);
  const says = useHeldWhilePressed(found.error?.message ?? null);
  return {
    records: pages.flatMap(({ records }) => records),
    total: pages[0]?.total ?? null,
    more: (pages.at(-1)?.next ?? null) !== null,
    loading: found.isFetching,
    says,
    loadMore: () => {
      if (!found.isFetching && found.hasNextPage) void found.fetchNextPage();
    },
  };
}

/** A text once it has rested. */
function useSettled(text: string): string {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    if (text === settled) return;
    const timer = setTimeout(() => setSettled(text), PAUSE);
    return () => clearTimeout(timer);
  }, [text, settled]);
  return settled;
}
