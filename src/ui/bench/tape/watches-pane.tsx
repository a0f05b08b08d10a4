'use client';
/** Watches, breakpoints with their hits, and the prompt. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useId, useState } from 'react';
import { useStore } from 'zustand';
import { fieldsOf } from '@/core/form/fields';
import type { Value } from '@/core/form/value';
import type { Names } from '@/core/tape/words';
import type { SaidName } from '@/core/wire/aspects';
import { Button, Line, Mono, Select } from '../../kit';
import type { Breakpoint, Hit } from './state';
import type { Bench } from '../create-bench';
import { useRoom } from '../../use-room';
import { Tree } from './values-pane';

export function WatchesPane({ bench, names }: { bench: Bench; names: Names }) {
  const { breakpoints, watches, hits, watched, prompt, standing } = useStore(bench.tape.store);
  const example = useRoom(bench.core, ({ material: { form } }) => {
    const field = fieldsOf(form).find(({ kind }) => kind !== 'rows');
    return field === undefined ? 'form.isNew' : `fields.${field.name}.value`;
  });
  return (
    <Box fontSize="12.5px">
      <b>Watches</b>
      {watches.map((expression, i) => (
        <Flex key={i} gap="8px" borderTopWidth="1px" borderColor="line" align="baseline">
          <Mono flex="1" minW={0}>
            {expression}
          </Mono>
          <Came {...(watched[i] ?? { value: null, failed: null })} />
          <Button
            look="text"
            color="soft"
            aria-label={`Remove the watch ${expression}`}
            onClick={() => void bench.tape.removeWatch(i)}
          >
            ×
          </Button>
        </Flex>
      ))}
      <Expression
        bench={bench}
        label="Watch an expression"
        placeholder={`watch an expression, such as ${example}`}
        onEnter={(expression) => void bench.tape.addWatch(expression)}
      />
      <Box mt="8px">
        <b>Breakpoints</b>
        {breakpoints.length === 0 && (
          <Box color="soft">
            Press beside a line number in the code, or ask for changes of a part below.
          </Box>
        )}
        {breakpoints.map((breakpoint) => (
          <BreakpointRow
            key={breakpoint.id}
            bench={bench}
            names={names}
            breakpoint={breakpoint}
            hits={hits.filter((hit) => hit.breakpoint === breakpoint.id)}
          />
        ))}
        <OnChange bench={bench} names={names} />
      </Box>
      {hits.length > 0 && (
        <chakra.table
          width="100%"
          mt="4px"
          style={{ borderCollapse: 'collapse' }}
          aria-label="Hits"
        >
          <thead>
            <chakra.tr color="soft" textAlign="left">
              <chakra.th fontWeight={400}>hit</chakra.th>
              {watches.map((expression, i) => (
                <chakra.th key={i} fontWeight={400}>
                  <Mono>{expression}</Mono>
                </chakra.th>
              ))}
            </chakra.tr>
          </thead>
          <tbody>
            {hits.slice(0, 200).map((hit, i) => {
              const on =
                standing?.entry === hit.standing.entry && standing.detail === hit.standing.detail;
              return (
                <chakra.tr
                  key={i}
                  borderTopWidth="1px"
                  borderColor="line"
                  bg={on ? 'saidGround' : undefined}
                >
                  <td>
                    <Button look="text" onClick={() => void bench.tape.standOn(hit.standing)}>
                      {hit.step === 0 ? 'opening' : `step ${hit.step}`}
                    </Button>{' '}
                    {hit.failed !== null ? (
                      <chakra.span color="bad">{hit.failed}</chakra.span>
                    ) : (
                      hit.log !== undefined &&
                      hit.log !== null && <Mono color="said">{JSON.stringify(hit.log)}</Mono>
                    )}
                  </td>
                  {hit.watches.map((one, j) => (
                    <td key={j}>
                      <Came {...one} />
                    </td>
                  ))}
                </chakra.tr>
              );
            })}
          </tbody>
        </chakra.table>
      )}
      <Box mt="8px">
        <b>Ask</b>
        {prompt.map(({ expression, value, failed }, i) => (
          <Box key={i} borderTopWidth="1px" borderColor="line">
            <Mono color="soft">{expression}</Mono>
            <Box pl="12px">
              {failed === null ? (
                <Tree value={value} open />
              ) : (
                <chakra.span color="bad">{failed}</chakra.span>
              )}
            </Box>
          </Box>
        ))}
        <Expression
          bench={bench}
          label="Ask at this moment"
          placeholder="ask anything here…"
          onEnter={(expression) => void bench.tape.askPrompt(expression)}
        />
      </Box>
    </Box>
  );
}

/** An input for an expression, with completions of its last name. */
function Expression({
  bench,
  label,
  placeholder,
  onEnter,
}: {
  bench: Bench;
  label: string;
  placeholder: string;
  onEnter: (expression: string) => void;
}) {
  const [text, setText] = useState('');
  const [offered, setOffered] = useState<readonly string[]>([]);
  const list = useId();
  useEffect(() => {
    let wanted = true;
    if (text === '') setOffered([]);
    else void bench.tape.completionsOf(text).then((found) => wanted && setOffered(found));
    return () => {
      wanted = false;
    };
  }, [text, bench]);
  return (
    <>
      <Line
        aria-label={label}
        placeholder={placeholder}
        width="100%"
        fontFamily="mono"
        fontSize="12px"
        py="1px"
        list={list}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || text.trim() === '') return;
          onEnter(text.trim());
          setText('');
        }}
      />
      <datalist id={list}>
        {offered.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
    </>
  );
}

function Came({ value, failed }: { value: Value; failed: string | null }) {
  return failed === null ? (
    <Mono color="said">{JSON.stringify(value)}</Mono>
  ) : (
    <chakra.span color="bad">{failed}</chakra.span>
  );
}

function BreakpointRow({
  bench,
  names,
  breakpoint: { id, at, condition, log },
  hits,
}: {
  bench: Bench;
  names: Names;
  breakpoint: Breakpoint;
  hits: readonly Hit[];
}) {
  const where =
    at.is === 'line'
      ? `${names.behaviour(at.script)}, line ${at.line}`
      : `${names.part(at.part)}: ${at.aspect} changes`;
  return (
    <Flex gap="2px 6px" align="center" wrap="wrap" borderTopWidth="1px" borderColor="line">
      <chakra.span color="bad" aria-hidden>
        {log === '' ? '●' : '○'}
      </chakra.span>
      {at.is === 'line' ? (
        <Button look="text" onClick={() => bench.code.goTo(at.script, at.line)}>
          {where}
        </Button>
      ) : (
        <span>{where}</span>
      )}
      {at.is === 'line' && (
        <>
          <Edited
            label={`Condition of the breakpoint in ${where}`}
            placeholder="only where…"
            value={condition}
            onEdit={(changed) => void bench.tape.editBreakpoint(id, { condition: changed })}
          />
          <Edited
            label={`What the breakpoint in ${where} shows`}
            placeholder="show…"
            value={log}
            onEdit={(changed) => void bench.tape.editBreakpoint(id, { log: changed })}
          />
        </>
      )}
      <chakra.span color="soft" whiteSpace="nowrap">
        {counted(hits.length, 'hit')}
      </chakra.span>
      <Button
        look="text"
        color="soft"
        aria-label={`Remove the breakpoint in ${where}`}
        onClick={() => void bench.tape.removeBreakpoint(id)}
      >
        ×
      </Button>
    </Flex>
  );
}

/** An expression that is taken over with Enter, or when it is left. */
function Edited({
  label,
  placeholder,
  value,
  onEdit,
}: {
  label: string;
  placeholder: string;
  value: string;
  onEdit: (value: string) => void;
}) {
  const [changed, setChanged] = useState(value);
  const take = () => {
    if (changed.trim() !== value) onEdit(changed.trim());
  };
  return (
    <Line
      aria-label={label}
      placeholder={placeholder}
      flex="1"
      minW="90px"
      fontFamily="mono"
      fontSize="12px"
      py="0"
      value={changed}
      onChange={(event) => setChanged(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}

const CHANGES: readonly SaidName[] = [
  'shown',
  'value',
  'required',
  'locked',
  'options',
  'hint',
  'warning',
  'problem',
];

/** Stops wherever an aspect of the part that is asked about changes. */
function OnChange({ bench, names }: { bench: Bench; names: Names }) {
  const question = useStore(bench.tape.store, (state) => state.question);
  const [aspect, setAspect] = useState<string>('value');
  if (question === null) return null;
  return (
    <Flex gap="6px" align="center" mt="3px">
      <Button
        look="text"
        onClick={() => void bench.tape.addBreakpoint({ is: 'aspect', part: question.part, aspect })}
      >
        Stop when {names.part(question.part)} changes its
      </Button>
      <Select
        aria-label="Which aspect changes"
        fontSize="12px"
        py="0"
        value={aspect}
        options={CHANGES.map((key) => ({ key, label: key }))}
        onChange={(event) => setAspect(event.target.value)}
      />
    </Flex>
  );
}
