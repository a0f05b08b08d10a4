'use client';
/** Everything as it is at the moment that is looked at, with who decided it, and the variables in sight. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { useStore } from 'zustand';
import { variablesAt } from '@/core/debugging/notes';
import { valuesAt, type Decider } from '@/core/debugging/values';
import type { Value } from '@/core/form/value';
import { becameInWords, valueInWords, type Names } from '@/core/tape/words';
import type { SaidName } from '@/core/wire/aspects';
import { lineInWords } from '@/core/wire/line';
import { BareButton, Button, Mono, Select } from '../../kit';
import type { Bench } from '../create-bench';
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
                <BareButton
                  textAlign="left"
                  title={`${one.part}: ask why`}
                  onClick={() => bench.tape.ask(one.part)}
                >
                  {one.label}
                </BareButton>
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
export function Tree({ value, open = false }: { value: Value; open?: boolean }) {
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
