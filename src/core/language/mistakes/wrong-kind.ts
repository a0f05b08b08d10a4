import ts from 'typescript-classic';
import { actsOf, bare } from '../acts';
import { literalsIn } from './known-parts';
import type { Edit, Finding, Fix, Mistake, Subject } from './mistake';

/** TypeScript: a type that is not assignable. */
const NOT_ASSIGNABLE = 2322;

/** A value of another kind than the field's. */
export const wrongKind: Mistake = {
  code: 'wrong-kind',
  title: 'A value of the wrong kind',
  severity: 'error',
  find(subject) {
    const { flow, parts, file, typeErrors } = subject;
    const found = new Map<ts.Node, Finding>();
    for (const block of flow.blocks) {
      for (const act of actsOf(block, 'write')) {
        const field = parts.field(act.part);
        if (act.aspect !== 'value' || act.value === null || field === null || act.op !== '=')
          continue;
        const wrong =
          field.kind === 'rows' || field.kind === 'file'
            ? []
            : literalsIn(act.value).filter(
                ({ value, node }) =>
                  value !== '' && !inList(node, act.value!) && !parts.takes(act.part, value).ok,
              );
        for (const { node, value } of wrong) {
          const taken = parts.takes(act.part, value);
          found.set(node, {
            from: node.getStart(file),
            to: node.getEnd(),
            says: `${parts.called(act.part)} takes ${taken.ok ? '' : taken.takes}, not ${JSON.stringify(value)}.`,
            fixes: converted(subject, act.part, node, typeof value),
          });
        }
        if (field.kind !== 'text') {
          for (const { node } of literalsIn(act.value).filter(({ value }) => value === '')) {
            found.set(node, {
              from: node.getStart(file),
              to: node.getEnd(),
              says: `${parts.called(act.part)} is emptied with null; an empty text is no value of it.`,
              fixes: [
                {
                  title: 'Write null',
                  edits: [{ from: node.getStart(file), to: node.getEnd(), text: 'null' }],
                },
              ],
            });
          }
        }
        const type = typeErrors.find(
          (error) => error.code === NOT_ASSIGNABLE && error.from === act.target.getStart(file),
        );
        if (
          type === undefined ||
          wrong.length > 0 ||
          literalsIn(act.value).some(({ value }) => typeof value === 'string')
        )
          continue;
        const offered = /^Type '([^']*)'/.exec(type.says)?.[1] ?? 'this';
        found.set(act.value, {
          from: act.target.getStart(file),
          to: act.target.getEnd(),
          says: `${parts.called(act.part)} is a ${parts.kind(act.part)}, and what is written is ${offered}.`,
          fixes: converted(subject, act.part, act.value, offered),
        });
      }
    }
    return [...found.values()];
  },
};

/** Items of a list are compared with the options, not with the field as a whole. */
function inList(node: ts.Node, value: ts.Expression): boolean {
  for (let at: ts.Node = node; at !== value && at.parent !== undefined; at = at.parent)
    if (ts.isArrayLiteralExpression(at.parent)) return true;
  return ts.isArrayLiteralExpression(bare(value));
}

/** Turns what is written into the field's kind, where that is plain. */
function converted(
  { parts, file }: Subject,
  part: string,
  node: ts.Expression,
  offered: string,
): Fix[] {
  const kind = parts.field(part)?.kind;
  const [from, to] = [node.getStart(file), node.getEnd()];
  const wrap = (title: string, before: string, after: string): Fix[] => {
    const edits: Edit[] = [
      { from, to: from, text: before },
      { from: to, to, text: after },
    ];
    return [{ title, edits: edits.filter(({ text }) => text !== '') }];
  };
  const inner = bare(node);
  if ((kind === 'number' || kind === 'money') && offered.includes('string')) {
    const number = ts.isStringLiteralLike(inner) ? Number(inner.text) : NaN;
    if (ts.isStringLiteralLike(inner))
      return Number.isFinite(number) && inner.text.trim() !== ''
        ? [{ title: `Write ${number}`, edits: [{ from, to, text: String(number) }] }]
        : [];
    return wrap('Turn it into a number', 'Number(', ')');
  }
  if (
    kind === 'yes_no' &&
    ts.isStringLiteralLike(inner) &&
    /^(?:true|false|yes|no)$/i.test(inner.text)
  ) {
    const text = /^(?:true|yes)$/i.test(inner.text) ? 'true' : 'false';
    return [{ title: `Write ${text}`, edits: [{ from, to, text }] }];
  }
  if (kind === 'text' && /^(?:number|boolean)/.test(offered))
    return wrap('Turn it into a text', 'String(', ')');
  if (/PlainDate|PlainTime|Instant/.test(offered))
    return wrap('Spell it with .toString()', '', '.toString()');
  return [];
}
