/**
 * The lines of a form's scripts that can say something of a part, with what has to hold for them to be reached: what
 * the question "why not?" is asked of. Plain data, so that it can be asked where no compiler is.
 */
import type ts from 'typescript-classic';
import { isModule, baseName } from '../script/script-name';
import { takingPart, type Source } from '../script/header';
import { actsOf, type Block, type Condition } from './acts';
import { flowOf } from './flow';
import { parse } from './parse';

export interface WriterCondition {
  /** Offsets in the source of the script. */
  start: number;
  end: number;
  line: number;
  text: string;
  /** Whether it has to hold, or to fail. */
  holds: boolean;
}

export interface Writer {
  /** The script without its ending. */
  script: string;
  sort: Block['sort'];
  /** The event of a handler; `keep` or `keep.each` of a rule. */
  event: string;
  /** What a handler is tied to; columns as `rows.column`. */
  tied: string[];
  /** The line at which it is tied, 1-based. */
  tiedAt: number;
  /** Columns as `rows.column`. */
  part: string;
  aspect: string;
  line: number;
  /** The source of what it says. */
  says: string;
  conditions: WriterCondition[];
}

export function writersOf(sources: readonly Source[]): Writer[] {
  return takingPart(sources)
    .filter(({ name }) => !isModule(name))
    .flatMap(writersIn);
}

function writersIn(source: Source): Writer[] {
  const { file, tooDeep } = parse(source);
  if (tooDeep !== null) return [];
  const lineOf = (node: ts.Node) =>
    file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1;
  const textOf = (node: ts.Node) => {
    const text = node.getText(file).replace(/\s+/g, ' ');
    return text.length > 80 ? `${text.slice(0, 79)}…` : text;
  };
  const conditionOf = ({ node, holds }: Condition): WriterCondition => ({
    start: node.getStart(file),
    end: node.getEnd(),
    line: lineOf(node),
    text: textOf(node),
    holds,
  });
  return flowOf(file).blocks.flatMap((block) =>
    actsOf(block, 'write').map((act) => ({
      script: baseName(source.name),
      sort: block.sort,
      event: block.event,
      tied: block.tied,
      tiedAt: lineOf(block.call),
      part: act.part,
      aspect: act.aspect,
      line: lineOf(act.target),
      says: act.value === null ? '' : textOf(act.value),
      conditions: act.conditions.map(conditionOf),
    })),
  );
}
