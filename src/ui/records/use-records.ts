'use client';
/** A form's records as they are listed: page by page from the server, again whenever what is asked for changes. */
import { useEffect, useRef, useState } from 'react';
import type { Values } from '@/core/form/value';
import { get } from '../api';

export interface ListedRecord {
  id: string;
  values: Values;
  revision: number;
  release: number | null;
  savedBy: string;
  savedAt: string;
}

export interface RecordPage {
  records: ListedRecord[];
  next: string | null;
  total: { count: number; more: boolean } | null;
}

/** What is asked for: `search`, `sort`, and `is.FIELD`, `from.FIELD`, `to.FIELD`. */
export type Asked = Readonly<Record<string, string>>;

export interface RecordsInView {
  records: ListedRecord[];
  total: RecordPage['total'];
  /** There are more to be loaded. */
  more: boolean;
  loading: boolean;
  says: string | null;
  loadMore: () => void;
}

/** Waits for a pause in the typing. */
const PAUSE = 250;

export function useRecords(form: string, asked: Asked, first: RecordPage | null): RecordsInView {
  const [view, setView] = useState<{
    records: ListedRecord[];
    next: string | null;
    total: RecordPage['total'];
  }>(first ?? { records: [], next: null, total: null });
  const [loading, setLoading] = useState(first === null);
  const [says, setSays] = useState<string | null>(null);
  /** Which asking is the newest: answers to older ones are late. */
  const turn = useRef(0);
  const query = new URLSearchParams(
    Object.entries(asked).filter(([, value]) => value !== ''),
  ).toString();
  const shown = useRef(first === null ? null : '');

  const ask = async (after: string | null): Promise<void> => {
    const mine = ++turn.current;
    setLoading(true);
    const reply = await get<RecordPage>(
      `/api/forms/${form}/records?${query}${after === null ? '' : `${query === '' ? '' : '&'}after=${encodeURIComponent(after)}`}`,
    );
    if (mine !== turn.current) return;
    setLoading(false);
    setSays(reply.ok ? null : reply.says);
    if (reply.ok)
      setView((before) =>
        after === null
          ? reply.body
          : {
              ...reply.body,
              total: before.total,
              records: [...before.records, ...reply.body.records],
            },
      );
  };

  useEffect(() => {
    if (shown.current === query) return;
    shown.current = query;
    const timer = setTimeout(() => void ask(null), PAUSE);
    return () => clearTimeout(timer);
  }, [query]);

  return {
    records: view.records,
    total: view.total,
    more: view.next !== null,
    loading,
    says,
    loadMore: () => {
      if (!loading && view.next !== null) void ask(view.next);
    },
  };
}
