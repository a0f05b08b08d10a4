/** Searching the scripts of a workspace, of behaviours and of services, for a text or a pattern, line by line. */
import { SEARCH_HITS } from '../limits';

export interface Searched {
  /** Null for the script of a service; empty for what forms share. */
  form: string | null;
  /** The name of a script, or `service.function`. */
  name: string;
  text: string;
}

export interface Hit {
  form: string | null;
  name: string;
  /** 1-based. */
  line: number;
  /** Where in the line it stands. */
  from: number;
  to: number;
  text: string;
}

export interface Query {
  wanted: string;
  pattern: boolean;
  /** Whether capitals count. */
  exact: boolean;
}

/** Every hit, at most SEARCH_HITS. Throws a SyntaxError for a pattern that is none. */
export function searched(scripts: readonly Searched[], { wanted, pattern, exact }: Query): Hit[] {
  if (wanted === '') return [];
  const source = pattern ? wanted : wanted.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const sought = new RegExp(source, exact ? 'gu' : 'giu');
  const hits: Hit[] = [];
  for (const { form, name, text } of scripts) {
    for (const [i, line] of text.split('\n').entries()) {
      for (const match of line.matchAll(sought)) {
        if (match[0] === '') continue;
        hits.push({
          form,
          name,
          line: i + 1,
          from: match.index,
          to: match.index + match[0].length,
          text: line,
        });
        if (hits.length === SEARCH_HITS) return hits;
      }
    }
  }
  return hits;
}
