/**
 * The places of a script that a detailed run reports: functions, statements, conditions and their operands, by the
 * number that the compiler gave each. What depends on what within the script is written down here too, so that
 * whoever reads a detailed run (`debugging/`) needs no compiler.
 */

/** Where a statement stands as far as reaching it goes: under a condition that held, or did not. */
export interface Control {
  /** The site of the condition, loop or `switch`. */
  site: number;
  /** Whether the condition holds there; null where it is no matter of holding: a case of a `switch`, a loop over items. */
  holds: boolean | null;
}

export type SiteKind =
  /** A function is entered; its parameters are its values. */
  | 'function'
  /** A statement; its values are the variables in sight, by `names`. */
  | 'statement'
  /** An item of a `for … of` or `for … in`, or what a `catch` caught. */
  | 'item'
  /** The condition of an `if`, a loop or a `?:`, or the left side of `&&`, `||` or `??`. */
  | 'condition'
  /** What a `switch` looks at. */
  | 'switch'
  /** A comparison within whatever expression. */
  | 'comparison'
  /** A side of a comparison. */
  | 'operand'
  /** What a function gives back. */
  | 'returned';

export interface Site {
  kind: SiteKind;
  /** 1-based. */
  line: number;
  /** Offsets in the source. */
  start: number;
  end: number;
  /** The source, cut to 80 characters. */
  text: string;
  /** The function that it stands in; null at the top level. */
  within: number | null;
  /** The names of the values that it reports. */
  names: readonly string[];
  /** Variables, by number, whose values it needs, gives anew, and changes from within. */
  uses: readonly number[];
  defines: readonly number[];
  changes: readonly number[];
  /** The innermost condition that it stands under; of an operand, the comparison that it is a side of. */
  under: Control | null;
  /** Conditions before it in its function under which the function, or the round of the loop, is left. */
  leaves: readonly Control[];
  /** Of the condition of an `if` or a `?:`, the line at which that begins; null of any other. */
  chooses: number | null;
  /** Of a comparison, how it compares: `===`, `<`, `includes`; `??` of what stands before one. */
  op: string | null;
  /** Whether it uses what is no part of the form and no variable. */
  marks: readonly Mark[];
  /** Of a function that is handed to a method where it stands, the name of that: `some`, `filter`. */
  passedTo: string | null;
}

/** Something that a place uses besides parts and variables; `previous` is what stood before the event. */
export type Mark = 'clock' | 'random' | 'previous';
