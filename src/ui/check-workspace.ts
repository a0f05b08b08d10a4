/** Checking the whole workspace: the server answers with what it has so far, and is asked again until it is through. */
import type { Problem } from '@/core/problems/problems';
import { get } from './api';

export interface Checking {
  problems: Problem[];
  /** Forms checked, of how many. */
  done: number;
  of: number;
}

/** What was found, or why nothing was; `meanwhile` hears how far it is. */
export async function checkWorkspace(
  meanwhile: (checking: Checking) => void,
): Promise<Checking | { says: string }> {
  for (;;) {
    const reply = await get<Checking>('/api/problems');
    if (!reply.ok) return { says: reply.says };
    if (reply.status === 200) return reply.body;
    meanwhile(reply.body);
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}
