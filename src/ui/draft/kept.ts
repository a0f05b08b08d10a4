'use client';
/**
 * What is not saved yet, kept in this browser (IndexedDB) and offered again after a reload or a crash. Each tab keeps its
 * own; what belongs to a tab that is still open is offered to no other, which the browser's locks tell.
 */
import { addressHere } from '../address';
import { HALF_FILLED_KEPT } from '@/core/limits';
import type { IDBPDatabase } from 'idb';
import type { Keeping } from './draft';

/** What a tab had not saved. */
export interface Left<T> {
  value: T;
  /** The revision it was made from. */
  revision: number;
  /** Milliseconds since 1970-01-01T00:00:00Z. */
  at: number;
}

interface KeptEntry extends Left<unknown> {
  id: string;
  key: string;
  tab: string;
}

const DATABASE = 'tavro';
const STORE = 'unsaved';
const TAB_LOCK = 'tavro tab ';

let opened: Promise<IDBPDatabase | null> | null = null;

/** The browser's database; null where there is none, as in private windows of some browsers. */
function kept(): Promise<IDBPDatabase | null> {
  opened ??= import('idb')
    .then(({ openDB }) =>
      openDB(DATABASE, 1, {
        upgrade: (db) =>
          void db.createObjectStore(STORE, { keyPath: 'id' }).createIndex('key', 'key'),
      }),
    )
    .catch(() => null);
  return opened;
}

let tab: string | null = null;

/** This tab, by a name that is held as a lock as long as the tab is there. */
function thisTab(): string {
  if (tab !== null) return tab;
  tab = crypto.randomUUID();
  void navigator.locks?.request(TAB_LOCK + tab, () => new Promise(() => undefined));
  return tab;
}

/** Keeps values under a key until they are saved. */
export function keepUnder<T>(key: string): Keeping<T> {
  const id = () => `${addressHere(key)} ${thisTab()}`;
  return {
    put(value, revision) {
      const entry: KeptEntry = {
        id: id(),
        key: addressHere(key),
        tab: thisTab(),
        value,
        revision,
        at: Date.now(),
      };
      void kept().then((db) => db?.put(STORE, entry).catch(() => undefined));
    },
    remove() {
      void kept().then((db) => db?.delete(STORE, id()).catch(() => undefined));
    },
  };
}

/** Real milliseconds after which a tab that has just been closed or reloaded has let go of its lock. */
const LETTING_GO = 1500;

/** What was left unsaved under a key by tabs that are gone: the newest of it. */
export async function leftUnder<T>(key: string): Promise<Left<T> | null> {
  const db = await kept();
  if (db === null) return null;
  const entries = async () =>
    ((await db.getAllFromIndex(STORE, 'key', addressHere(key))) as KeptEntry[]).filter(
      (entry) => entry.tab !== tab && Date.now() - entry.at < HALF_FILLED_KEPT,
    );
  if ((await entries()).length === 0) return null;
  let left = await ofTabsGone(await entries());
  if (left.length === 0) {
    await new Promise((resolve) => setTimeout(resolve, LETTING_GO));
    left = await ofTabsGone(await entries());
  }
  const [newest] = left.toSorted((a, b) => b.at - a.at);
  return newest === undefined
    ? null
    : { value: newest.value as T, revision: newest.revision, at: newest.at };
}

async function ofTabsGone(entries: readonly KeptEntry[]): Promise<KeptEntry[]> {
  const locks = await navigator.locks?.query();
  const there = new Set((locks?.held ?? []).map(({ name }) => name));
  return entries.filter((entry) => !there.has(TAB_LOCK + entry.tab));
}

/** Forgets what tabs that are gone left under a key. */
export async function forgetLeft(key: string): Promise<void> {
  const db = await kept();
  if (db === null) return;
  for (const entry of (await db.getAllFromIndex(STORE, 'key', addressHere(key))) as KeptEntry[])
    if (entry.tab !== tab) await db.delete(STORE, entry.id);
}
