'use client';
/** What the live form waits for, with a way to answer a service's call by hand. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Seen } from '@/core/scenario/seen';
import type { Value } from '@/core/form/value';
import { Button, Mono, Notice, TextArea } from '../../kit';
import type { Bench } from '../create-bench';
import { valueInWords } from '@/core/tape/words';

export function WaitingBar({ bench, seen, frozen }: { bench: Bench; seen: Seen; frozen: boolean }) {
  const [answering, setAnswering] = useState<string | null>(null);
  const calls = seen.waiting.flatMap((run) => run.calls);
  const names = [...new Set(calls.map((call) => call.name))];
  if (names.length === 0) return null;
  return (
    <Box
      bg="saidGround"
      borderWidth="1px"
      borderColor="saidEdge"
      borderRadius="4px"
      px="10px"
      py="5px"
      role="status"
      fontSize="13px"
    >
      {names.map((name) => {
        const [first, ...others] = calls.filter((call) => call.name === name);
        const due =
          first!.due === null
            ? 'until it is answered by hand'
            : `${Math.max(0, first!.due - seen.clock)} ms more`;
        return (
          <Flex key={name} gap="8px" align="baseline" wrap="wrap">
            <span>
              Waiting for <Mono>{name}</Mono>
              {name !== 'after' && (
                <chakra.span color="soft"> {valueInWords(first!.args)}</chakra.span>
              )}
              , {due}
              {others.length > 0 && `, and ${others.length} more like it`}
            </span>
            {name.includes('.') && !frozen && (
              <Flex ml="auto" gap="6px">
                <Button
                  onClick={() => setAnswering(answering === name ? null : name)}
                  aria-expanded={answering === name}
                >
                  Answer…
                </Button>
                <Button
                  onClick={() => void bench.form.step({ answer: name, fails: 'failed by hand' })}
                >
                  Fail
                </Button>
              </Flex>
            )}
            {answering === name && (
              <Answer
                key={name}
                bench={bench}
                name={name}
                onAnswer={(value) => (
                  setAnswering(null),
                  void bench.form.step({ answer: name, with: value })
                )}
              />
            )}
          </Flex>
        );
      })}
    </Box>
  );
}

/** Begins with what the service itself would answer this call. */
function Answer({
  bench,
  name,
  onAnswer,
}: {
  bench: Bench;
  name: string;
  onAnswer: (value: Value) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const [says, setSays] = useState<string | null>(null);
  useEffect(() => {
    let here = true;
    void bench.tape.usualAnswer(name).then(
      (usual) => here && setText(JSON.stringify(usual, null, 1)),
      () => here && setText('null'),
    );
    return () => {
      here = false;
    };
  }, [bench, name]);
  if (text === null)
    return (
      <Box width="100%" color="soft">
        Working out what it would answer…
      </Box>
    );
  const send = () => {
    try {
      onAnswer(JSON.parse(text) as Value);
    } catch {
      setSays('This is not JSON. A text stands in quotes; nothing found is null.');
    }
  };
  return (
    <Box width="100%">
      <TextArea
        aria-label={`What ${name} answers, as JSON`}
        rows={4}
        fontSize="12px"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {says !== null && <Notice tone="error">{says}</Notice>}
      <Flex gap="6px" mt="4px">
        <Button look="go" onClick={send}>
          Send this answer
        </Button>
        <Button onClick={() => onAnswer(null)}>Nothing found</Button>
      </Flex>
    </Box>
  );
}
