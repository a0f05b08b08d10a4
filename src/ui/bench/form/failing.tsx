'use client';
/** The bar on the form: which behaviours failed, in the same words as in the editor and on the tape. */
import { FORM } from '@/core/session/tree';
import { lineInWords } from '@/core/wire/line';
import type { Seen } from '@/core/scenario/seen';
import { BareButton, Button, Notice } from '../../kit';
import type { Bench } from '../create-bench';
import { useHeads } from '../common/use-bench';
import type { Names } from '@/core/tape/words';

/** The bar on the form: which behaviours failed, in the same words as in the editor and on the tape. */
export function Failing({ bench, seen, names }: { bench: Bench; seen: Seen; names: Names }) {
  const heads = useHeads(bench);
  const broken = heads.filter((head) => head.broken !== null && head.runs);
  return (
    <>
      {broken.map((behaviour) => (
        <Notice key={behaviour.name} tone="error">
          {behaviour.title}, {lineInWords(behaviour.broken!.line ?? 1)}, {behaviour.broken!.says}{' '}
          The last version that worked goes on running.
        </Notice>
      ))}
      {seen.failing.map((failure, i) => (
        <Notice key={i} tone="error">
          {names.behaviour(failure.behaviour)}
          {failure.line !== null && (
            <>
              ,{' '}
              <Button
                look="text"
                color="bad"
                onClick={() => bench.code.goTo(failure.behaviour, failure.line!)}
              >
                {lineInWords(failure.line)}
              </Button>
              ,
            </>
          )}{' '}
          {failure.says}
        </Notice>
      ))}
      {seen.broken.map(({ title, behaviour, line, row }, i) => (
        <Notice key={`always ${i}`} tone="error">
          “{title}” does not hold{row !== null && ` for ${names.part(row)}`}:{' '}
          {names.behaviour(behaviour)},{' '}
          <Button look="text" color="bad" onClick={() => bench.code.goTo(behaviour, line)}>
            {lineInWords(line)}
          </Button>{' '}
          <BareButton
            aria-label={`Why does “${title}” not hold?`}
            title="Why, and since when?"
            color="act"
            px="3px"
            onClick={() => bench.tape.ask(row ?? FORM, `always:${title}`)}
          >
            ?
          </BareButton>
        </Notice>
      ))}
    </>
  );
}
