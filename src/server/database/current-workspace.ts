/**
 * Which workspace a request is about. Each has a schema of PostgreSQL of its own, so that no query can meet the rows of
 * another; what is kept in memory is kept for each by itself.
 */
import { AsyncLocalStorage } from 'node:async_hooks';

export interface WorkspaceRef {
  /** What addresses call it. */
  name: string;
  /** Its schema in the database; never given twice. */
  schema: string;
}

/** The workspace at the root addresses: the first of an installation. */
export const HOME: WorkspaceRef = { name: 'home', schema: 'public' };

// On globalThis, since Next.js bundles pages and routes apart and both have to mean the same.
const kept = globalThis as {
  tavroWorkspace?: AsyncLocalStorage<WorkspaceRef>;
  tavroAlone?: WorkspaceRef;
  tavroPerWorkspace?: Map<string, Map<string, unknown>>;
};
const storage = (kept.tavroWorkspace ??= new AsyncLocalStorage<WorkspaceRef>());

/** Does work in a workspace. */
export function inWorkspace<T>(workspace: WorkspaceRef, work: () => Promise<T>): Promise<T> {
  return storage.run(workspace, work);
}

/** For programs that have no requests: everything outside `inWorkspace` is about this one. */
export function standAlone(workspace: WorkspaceRef): void {
  kept.tavroAlone = workspace;
}

/** The workspace that the work at hand is about. Throws where nothing says which. */
export function currentWorkspace(): WorkspaceRef {
  const workspace = storage.getStore() ?? kept.tavroAlone;
  if (workspace === undefined) throw new Error('nothing says which workspace this is about');
  return workspace;
}

/** What turns are taken by: the workspace that the work at hand is about, or the empty text for the app's own work. */
export function whoseWork(): string {
  return (storage.getStore() ?? kept.tavroAlone)?.schema ?? '';
}

/** Something kept in memory for each workspace by itself, under a name: pages and routes that ask for it mean the same. */
export function perWorkspace<T>(name: string, make: () => T): () => T {
  const all = (kept.tavroPerWorkspace ??= new Map<string, Map<string, unknown>>());
  return () => {
    const { schema } = currentWorkspace();
    let made = all.get(name) as Map<string, T> | undefined;
    if (made === undefined) all.set(name, (made = new Map<string, T>()));
    let one = made.get(schema);
    if (one === undefined) made.set(schema, (one = make()));
    return one;
  };
}

/** Forgets what is kept in memory, as where the process goes on with another database. */
export function forgetKept(): void {
  kept.tavroPerWorkspace?.clear();
}
