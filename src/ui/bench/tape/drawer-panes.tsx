'use client';
/** What stands in the middle of the drawer: values, watches with breakpoints and the prompt, comparisons, what scripts cost. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useId, useState } from 'react';
import { useStore } from 'zustand';
import { costsOf, type Cost } from '@/core/debugging/cost';
import type { Difference } from '@/core/debugging/differences';
import { variablesAt } from '@/core/debugging/notes';
import { valuesAt, type Decider } from '@/core/debugging/values';
import { FUEL_PER_RUN } from '@/core/limits';
import { fieldsOf } from '@/core/form/fields';
import type { Value } from '@/core/form/value';
import { becameInWords, valueInWords, type Names } from '@/core/tape/words';
import type { SaidName } from '@/core/wire/aspects';
import { lineInWords } from '@/core/wire/line';
import { Button, Line, Mono, Select } from '../../kit';
import { sessionKey, type Breakpoint, type Compared, type Hit } from './state';
import type { Bench } from '../create-bench';
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';

type Scope = 'said' | 'changed' | 'all' | 'sent';

export function ValuesPane({ bench, names }: { bench: Bench; names: Names }) {
  const { look, detailed, standing, sites } = useStore(bench.tape.store);
  const form = useMaterial(bench).form;
  const [scope, setScope] = useState<Scope>('said');
  if (look === null) return <Box color="soft">Running it again…</Box>;
  const all = valuesAt(look, form);
  const shown = all.filter((one) =>
    scope === 'said'
      ? one.said.length > 0
      : scope === 'changed'
        ? one.opened !== undefined
        : scope === 'sent'
          ? one.value !== undefined
          : true,
  );
  const variables =
    standing?.detail == null || detailed === null
      ? []
      : variablesAt(detailed, standing.detail, sites);
  const copied = JSON.stringify(
    scope === 'sent'
      ? look.outgoing.values
      : Object.fromEntries(shown.map((one) => [one.part, one])),
    null,
    2,
  );
  return (
    <Box fontSize="12.5px">
      <Flex gap="8px" align="center" mb="3px">
        <b>Values</b>
        <Select
          aria-label="Which values"
          fontSize="12px"
          py="0"
          value={scope}
          options={[
            { key: 'said', label: 'decided by scripts' },
            { key: 'changed', label: 'changed since it was opened' },
            { key: 'sent', label: 'to be submitted' },
            { key: 'all', label: 'all parts' },
          ]}
          onChange={(event) => setScope(event.target.value as Scope)}
        />
        <Button
          look="text"
          ml="auto"
          title="Copy these as JSON"
          onClick={() => {
            void navigator.clipboard
              .writeText(copied)
              .then(() => bench.screen.say('The values are in the clipboard, as JSON.'));
          }}
        >
          copy
        </Button>
      </Flex>
      {variables.length > 0 && (
        <Box mb="6px">
          <Box color="soft">Variables on this line</Box>
          {variables.map(({ name, value }) => (
            <Flex key={name} gap="8px" borderTopWidth="1px" borderColor="line">
              <Mono width="120px" flexShrink={0}>
                {name}
              </Mono>
              <Tree value={value} />
            </Flex>
          ))}
        </Box>
      )}
      {shown.length === 0 && <Box color="soft">There is none.</Box>}
      <chakra.table width="100%" style={{ borderCollapse: 'collapse' }}>
        <tbody>
          {shown.map((one) => (
            <chakra.tr key={one.part} borderTopWidth="1px" borderColor="line" verticalAlign="top">
              <chakra.td pr="8px" py="2px">
                <chakra.button
                  type="button"
                  cursor="pointer"
                  textAlign="left"
                  title={`${one.part}: ask why`}
                  onClick={() => bench.tape.ask(one.part)}
                >
                  {one.label}
                </chakra.button>
              </chakra.td>
              <chakra.td pr="8px" py="2px">
                {scope === 'sent' ? (
                  <>
                    <Mono>{JSON.stringify(one.sent ?? null)}</Mono>
                    {one.left !== null && (
                      <chakra.span color="said"> left out: {one.left}</chakra.span>
                    )}
                  </>
                ) : (
                  <>
                    {one.value !== undefined && <Mono>{JSON.stringify(one.value)}</Mono>}
                    {one.opened !== undefined && (
                      <chakra.span color="soft"> was {valueInWords(one.opened)}</chakra.span>
                    )}
                    {one.said
                      .filter(({ aspect }) => aspect !== 'value')
                      .map(({ aspect, now, base, by }) => (
                        <Box key={aspect}>
                          <chakra.span color="said">
                            {becameInWords(aspect as SaidName, now)}
                          </chakra.span>
                          <chakra.span color="soft">
                            {' '}
                            {becameInWords(aspect as SaidName, base) !==
                              becameInWords(aspect as SaidName, now) &&
                              `· without scripts ${becameInWords(aspect as SaidName, base)} `}
                            · {deciderInWords(by, names)}
                          </chakra.span>
                        </Box>
                      ))}
                  </>
                )}
              </chakra.td>
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}

function deciderInWords(by: Decider, names: Names): string {
  return by.is === 'rule'
    ? `${names.behaviour(by.behaviour)}, ${lineInWords(by.line)}`
    : by.is === 'handler'
      ? 'a handler'
      : 'the definition';
}

/** A value as a tree that opens. */
function Tree({ value, open = false }: { value: Value; open?: boolean }) {
  if (typeof value !== 'object' || value === null || Object.keys(value).length === 0)
    return <Mono>{JSON.stringify(value)}</Mono>;
  return (
    <details open={open}>
      <chakra.summary cursor="pointer">
        <Mono>
          {Array.isArray(value)
            ? `${value.length} items`
            : `{ ${Object.keys(value).slice(0, 4).join(', ')}${Object.keys(value).length > 4 ? ', …' : ''} }`}
        </Mono>
      </chakra.summary>
      <Box pl="14px">
        {Object.entries(value).map(([key, item]) => (
          <Flex key={key} gap="6px">
            <Mono color="soft">{key}</Mono>
            <Tree value={item as Value} />
          </Flex>
        ))}
      </Box>
    </details>
  );
}

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

/** An expression that is written, with what its last name can become for the browser to offer. */
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
        {hits.length === 1 ? '1 hit' : `${hits.length} hits`}
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

const NONE_COMPARED: readonly Compared[] = [];

export function ComparePane({ bench, names }: { bench: Bench; names: Names }) {
  const session = useRoom(bench.form.session, sessionKey);
  // Of a session that went on, or was opened otherwise, nothing is known.
  const compared = useStore(bench.tape.store, (state) =>
    state.comparedOf === session ? state.compared : NONE_COMPARED,
  );
  const open = useRoom(bench.form.session, (state) => state.open);
  const replayed = useRoom(bench.form, (state) => state.replayed);
  const { people, services, records } = useMaterial(bench);
  const [what, setWhat] = useState('');
  const others = people.filter(({ key }) => key !== open.as);
  const conditions: { key: string; label: string; open: object }[] = [
    ...others.map(({ key, name }) => ({
      key: `as ${key}`,
      label: `as ${name}`,
      open: { as: key },
    })),
    { key: 'later', label: 'a year later', open: { clock: aYearLater(open.clock) } },
    ...(open.record == null
      ? records.slice(0, 5).map(({ id }) => ({
          key: `record ${id}`,
          label: `with record ${id}`,
          open: { record: id },
        }))
      : [{ key: 'new', label: 'as a new entry', open: { record: null } }]),
    ...services.flatMap(({ name, title }) => [
      {
        key: `${name} fails`,
        label: `${title} fails`,
        open: { services: { ...open.services, [name]: { fails: 'does not answer' } } },
      },
      {
        key: `${name} slow`,
        label: `${title} takes 10 s`,
        open: { services: { ...open.services, [name]: { delay: 10_000 } } },
      },
    ]),
  ];
  const chosen = conditions.find(({ key }) => key === what) ?? conditions[0];
  return (
    <Box fontSize="12.5px">
      <b>The same steps</b>{' '}
      <Select
        aria-label="Under which conditions"
        fontSize="12px"
        py="0"
        value={chosen?.key ?? ''}
        options={conditions}
        onChange={(event) => setWhat(event.target.value)}
      />{' '}
      <Button
        disabled={chosen === undefined}
        onClick={() => void bench.tape.compare(chosen!.label, chosen!.open)}
      >
        Compare
      </Button>{' '}
      <Button
        title="Lets the calls that wait now be answered in every order"
        onClick={() => void bench.tape.tryOrders()}
      >
        Orders of answers
      </Button>
      {compared.map(({ title, differences, errors }, i) => (
        <Box key={i} mt="6px" borderTopWidth="1px" borderColor="line">
          <b>{title}</b>
          <DifferenceList differences={differences} names={names} />
          {errors.map((error, j) => (
            <Box key={j} color="bad">
              {error}
            </Box>
          ))}
        </Box>
      ))}
      <Box mt="8px" borderTopWidth="1px" borderColor="line">
        <b>Before and after the last edit</b>
        {replayed === null ? (
          <Box color="soft">Nothing has been edited since these steps were done.</Box>
        ) : (
          <DifferenceList differences={replayed} names={names} />
        )}
      </Box>
    </Box>
  );
}

function aYearLater(clock = '2031-05-02T09:00:00Z'): string {
  return `${Number(clock.slice(0, 4)) + 1}${clock.slice(4)}`;
}

export function DifferenceList({
  differences,
  names,
}: {
  differences: readonly Difference[];
  names: Names;
}) {
  if (differences.length === 0) return <Box color="soft">Nothing differs.</Box>;
  return (
    <Box as="ul" listStyleType="none">
      {differences.slice(0, 60).map(({ part, aspect, before, after }, i) => (
        <li key={i}>
          {names.part(part)}, {aspect}:{' '}
          <chakra.span color="soft">{shownAs(aspect, before)}</chakra.span> →{' '}
          <chakra.span color="said">{shownAs(aspect, after)}</chakra.span>
        </li>
      ))}
      {differences.length > 60 && <li>and {differences.length - 60} more</li>}
    </Box>
  );
}

function shownAs(aspect: string, value: Value | undefined): string {
  if (value === undefined) return 'not there';
  return aspect === 'shown' || aspect === 'locked' || aspect === 'required'
    ? becameInWords(aspect, value)
    : valueInWords(value);
}

export function CostPane({ bench, names }: { bench: Bench; names: Names }) {
  const answers = useRoom(bench.form.session, (state) => state.answers);
  const limit = useMaterial(bench).form.settings?.runLimit;
  const costs = costsOf(
    answers.map(({ tape }) => tape),
    limit,
  );
  const heaviest = costs.steps.indexOf(Math.max(...costs.steps));
  return (
    <Box fontSize="12.5px">
      <b>What scripts cost</b>
      <Box color="soft">
        Fuel of all runs so far; one run may use {FUEL_PER_RUN.toLocaleString('en')}. The heaviest
        step is {heaviest === 0 ? 'the opening' : `step ${heaviest}`} with{' '}
        {(costs.steps[heaviest] ?? 0).toLocaleString('en')}.
      </Box>
      <CostTable title="Behaviours" costs={costs.behaviours} bench={bench} names={names} />
      <CostTable title="Rules and handlers" costs={costs.ties} bench={bench} names={names} />
    </Box>
  );
}

function CostTable({
  title,
  costs,
  bench,
  names,
}: {
  title: string;
  costs: readonly Cost[];
  bench: Bench;
  names: Names;
}) {
  return (
    <chakra.table width="100%" mt="6px" style={{ borderCollapse: 'collapse' }}>
      <thead>
        <chakra.tr color="soft" textAlign="left">
          <chakra.th fontWeight={400}>{title}</chakra.th>
          <chakra.th fontWeight={400}>runs</chakra.th>
          <chakra.th fontWeight={400}>fuel</chakra.th>
          <chakra.th fontWeight={400}>most in a run</chakra.th>
        </chakra.tr>
      </thead>
      <tbody>
        {costs.map((cost, i) => (
          <chakra.tr key={i} borderTopWidth="1px" borderColor="line">
            <td>
              {cost.line === null ? (
                names.behaviour(cost.behaviour)
              ) : (
                <Button look="text" onClick={() => bench.code.goTo(cost.behaviour, cost.line!)}>
                  {cost.title}
                </Button>
              )}
            </td>
            <td>{cost.runs}</td>
            <td>{cost.fuel.toLocaleString('en')}</td>
            <td>
              {cost.most.toLocaleString('en')}
              {cost.near && <chakra.span color="bad"> near the limit</chakra.span>}
            </td>
          </chakra.tr>
        ))}
      </tbody>
    </chakra.table>
  );
}
