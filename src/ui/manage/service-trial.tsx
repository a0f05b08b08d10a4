'use client';
/** On the page of a service: calling a function as it stands there, and what is wrong with its script. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Service, ServiceFunction } from '@/core/form/service';
import type { Value } from '@/core/form/value';
import type { Problem } from '@/core/problems/problems';
import { call } from '../api';
import { Button, Labelled, Line, Mono, Notice } from '../kit';

type Came = { answers: Value } | { fails: string } | { refused: string };

/** Calls a function with what is typed, and shows what comes. */
export function Trial({
  service,
  called,
  parameters,
}: {
  service: Service;
  called: string;
  parameters: ServiceFunction['parameters'];
}) {
  const [given, setGiven] = useState<Record<string, string>>({});
  const [came, setCame] = useState<Came | null>(null);
  const [asking, setAsking] = useState(false);
  const ask = async () => {
    setAsking(true);
    const reply = await call<Came>('POST', `/api/services/${service.name}/trials`, {
      service,
      called,
      given: Object.fromEntries(parameters.map(({ name }) => [name, given[name] ?? ''])),
    });
    setAsking(false);
    setCame(reply.ok ? reply.body : { refused: reply.says });
  };
  return (
    <Flex
      as="form"
      gap="8px"
      mt="8px"
      wrap="wrap"
      align="end"
      onSubmit={(event) => {
        event.preventDefault();
        void ask();
      }}
    >
      {parameters.map(({ name }) => (
        <Labelled key={name} label={name}>
          <Line
            width="140px"
            value={given[name] ?? ''}
            onChange={({ target }) => setGiven({ ...given, [name]: target.value })}
          />
        </Labelled>
      ))}
      <Button type="submit" disabled={asking} aria-label={`Try ${called}`}>
        {asking ? 'Asking…' : 'Try it'}
      </Button>
      {came !== null && (
        <Box role="status" aria-label={`What ${called} answers`} width="100%" fontSize="13px">
          {'answers' in came ? (
            <>
              answers{' '}
              <chakra.pre fontFamily="mono" fontSize="12.5px" whiteSpace="pre-wrap">
                {came.answers === null
                  ? 'null: nothing found'
                  : JSON.stringify(came.answers, null, 1)}
              </chakra.pre>
            </>
          ) : 'fails' in came ? (
            <chakra.span color="bad">fails: {came.fails}</chakra.span>
          ) : (
            <chakra.span color="bad">{came.refused}</chakra.span>
          )}
        </Box>
      )}
    </Flex>
  );
}

/** Milliseconds after the last key until a script is checked. */
const PAUSE = 500;

/** What is wrong with the scripts of a service as they stand; what was found last, while they are checked. */
export function useScriptProblems(service: Service): readonly Problem[] {
  const [found, setFound] = useState<readonly Problem[]>([]);
  const scripts = JSON.stringify(service.functions);
  useEffect(() => {
    if (!scripts.includes('"from":"script"')) return setFound([]);
    let here = true;
    const timer = setTimeout(() => {
      void call<Problem[]>('POST', `/api/services/${service.name}/checks`, { service }).then(
        (reply) => here && reply.ok && setFound(reply.body),
      );
    }, PAUSE);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [scripts, service.name]);
  return found;
}

/** The problems of one function's script. */
export function ScriptProblems({
  problems,
  called,
}: {
  problems: readonly Problem[];
  called: string;
}) {
  const mine = problems.filter(({ at }) => at.is === 'service' && at.called === called);
  if (mine.length === 0) return null;
  return (
    <Notice tone="error" mt="6px">
      {mine.map(({ at, says }, i) => (
        <Box key={i}>
          <Mono>line {at.is === 'service' ? at.line : 1}</Mono> {says}
        </Box>
      ))}
    </Notice>
  );
}
