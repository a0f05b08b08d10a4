'use client';
/** Mutation: the code changed in small places, one at a time. What no scenario notices is a gap in the scenarios. */
import { useRoom } from '../../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useStore } from 'zustand';
import { MUTANT_KINDS, type Mutant } from '@/core/script/mutants';
import { RANDOM_SESSIONS, scoreOf, type Verdict } from '@/core/testing/mutation';
import { Button, Mono, Notice } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import type { Bench } from '../create-bench';

import { Progress } from './progress';

export function MutationTab({ bench }: { bench: Bench }) {
  const { underway, mutants, verdicts, failing, kept } = useHeldWhilePressed(
    useStore(bench.tests.store).mutation,
  );
  const behaviours = useRoom(bench.code, (state) =>
    state.behaviours.map(({ name }) => name).join('\n'),
  );
  const tried = mutants.filter(({ number }) => verdicts.has(number));
  const score = scoreOf(verdicts.values());
  const of = (is: Verdict['is']) => tried.filter(({ number }) => verdicts.get(number)!.is === is);
  const offered = of('survived').flatMap(({ number }) => {
    const verdict = verdicts.get(number);
    return verdict?.is === 'survived' && verdict.witness !== null && !kept.has(number)
      ? [number]
      : [];
  });
  const done = mutants.length > 0 && tried.length === mutants.length;
  const fileOf = (script: string) =>
    behaviours.split('\n').find((name) => name.replace(/\.[jt]s$/, '') === script) ?? script;
  return (
    <>
      <Box color="soft" mb="6px">
        The behaviours are changed in one small place at a time: a condition turned round, a
        boundary moved, an effect dropped. The scenarios must notice.
      </Box>
      <Button
        look="go"
        disabled={underway !== null}
        onClick={() => void bench.tests.mutation.run()}
      >
        {tried.length > 0 && !done ? 'Go on' : 'Try the changes'}
      </Button>
      {underway !== null && <Progress bench={bench} underway={underway} what="changes" />}
      {failing.length > 0 && (
        <Notice tone="warning" mt="6px">
          These scenarios fail as things are, so they judge nothing: {failing.join(', ')}.
        </Notice>
      )}
      {tried.length > 0 && (
        <Box role="status" my="8px">
          <b>{Math.round(score.share * 100)} %</b> of the changes were noticed: {score.caught} of{' '}
          {score.caught + score.survived}. {score.equivalent} make no difference that a session
          shows.
          {!done && ` ${mutants.length - tried.length} are not tried yet.`}
        </Box>
      )}
      {of('survived').length > 0 && (
        <Flex gap="10px" align="baseline">
          <Box fontWeight={620}>Not noticed</Box>
          {offered.length > 1 && (
            <Button look="text" onClick={() => void bench.tests.mutation.keepWitnesses(offered)}>
              keep a scenario for each of the {offered.length}
            </Button>
          )}
        </Flex>
      )}
      <Box as="ul" listStyleType="none">
        {of('survived').map((mutant) => {
          const verdict = verdicts.get(mutant.number) as Extract<Verdict, { is: 'survived' }>;
          return (
            <Box as="li" key={mutant.number} py="5px" borderTopWidth="1px" borderColor="line">
              <ChangeLine bench={bench} mutant={mutant} file={fileOf(mutant.script)} />
              <Flex gap="10px" pl="14px" wrap="wrap">
                {!verdict.reached && <chakra.span color="soft">no scenario gets there</chakra.span>}
                {verdict.witness === null ? (
                  <chakra.span color="soft">
                    what differs is nothing that a scenario can expect
                  </chakra.span>
                ) : kept.has(mutant.number) ? (
                  <span>✓ kept as “{verdict.witness.title}”</span>
                ) : (
                  <Button
                    look="text"
                    title={verdict.witness.title}
                    aria-label={`Keep a scenario that notices line ${mutant.line} of ${mutant.script}`}
                    onClick={() => void bench.tests.mutation.keepWitnesses([mutant.number])}
                  >
                    keep a scenario that notices it
                  </Button>
                )}
              </Flex>
            </Box>
          );
        })}
      </Box>
      {of('equivalent').length > 0 && (
        <chakra.details mt="8px">
          <chakra.summary cursor="pointer">
            {of('equivalent').length} that {RANDOM_SESSIONS} random sessions cannot tell apart from
            the code as it is
          </chakra.summary>
          {of('equivalent').map((mutant) => (
            <ChangeLine
              key={mutant.number}
              bench={bench}
              mutant={mutant}
              file={fileOf(mutant.script)}
            />
          ))}
        </chakra.details>
      )}
    </>
  );
}

function ChangeLine({ bench, mutant, file }: { bench: Bench; mutant: Mutant; file: string }) {
  const { kind, line, script, before, after } = mutant;
  return (
    <Box fontSize="13px">
      <Button
        look="text"
        onClick={() => bench.code.goTo(file, line)}
        aria-label={`Line ${line} of ${script}`}
      >
        {script}:{line}
      </Button>{' '}
      {MUTANT_KINDS[kind]}{' '}
      <Mono textDecoration="line-through" color="soft">
        {before}
      </Mono>{' '}
      {after !== null && <Mono>{after}</Mono>}
    </Box>
  );
}
