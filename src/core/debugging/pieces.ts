/** Sentences of answers: a list of pieces, some of which lead somewhere: to a line, to another question, to an entry of the tape. */
import type { Value } from '../form/value';
import type { Entry } from '../session/entries';
import type { Tape } from '../tape/tape';
import { entryInWords, valueInWords, type Names } from '../tape/words';
import type { Line } from '../wire/line';
import type { Question } from './question';

export type Piece =
  | string
  | { text: string; line: { script: string; line: Line } }
  | { text: string; ask: Question }
  | { text: string; entry: number };

export type Sentence = Piece[];

export function textOfSentence(sentence: Sentence): string {
  return sentence.map((piece) => (typeof piece === 'string' ? piece : piece.text)).join('');
}

/** What the answers are about, for names and for what people did. */
export interface Context {
  names: Names;
  who: string;
  tape: Tape;
}

export const quotedValue = (value: Value): string =>
  typeof value === 'string' ? JSON.stringify(value) : valueInWords(value);

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export const lineAt = (script: string, line: number): Exclude<Piece, string> => ({
  text: `line ${line}`,
  line: { script, line },
});

export function whereOf(line: Line, behaviour: string): Piece {
  return {
    text: typeof line === 'number' ? `line ${line}` : `${line.replace(':', ', line ')}`,
    line: { script: behaviour, line },
  };
}

export function listed(all: Piece[][]): Piece[] {
  return all.flatMap((one, i) => (i === 0 ? one : [i === all.length - 1 ? ' and ' : ', ', ...one]));
}

/** A step with its number on the tape; anything else that is a cause as it is. */
export function stepPiece(entry: Entry, { names, who, tape }: Context): Piece {
  const text = entryInWords(entry, names, who);
  return {
    text: entry.type === 'step' ? `${text} (step ${tape.stepOf(entry)})` : text,
    entry: entry.n,
  };
}
