/** How far long work is, on a line of its own that goes away again; only where somebody watches. */

export interface Progress {
  /** Work on this begins. */
  at(what: string): void;
  end(): void;
}

const CLEAR = '\r\u001b[K';

export function progress(doing: string, total: number, to = process.stderr): Progress {
  if (!to.isTTY) return { at: () => undefined, end: () => undefined };
  let begun = 0;
  return {
    at: (what) => void to.write(`${CLEAR}${doing} ${what} (${++begun} of ${total})`),
    end: () => void to.write(CLEAR),
  };
}
