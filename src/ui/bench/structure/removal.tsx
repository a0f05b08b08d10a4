'use client';
/** Removing a part, after a look at what uses it. */
import { useMaterial } from '../common/use-bench';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { PartName } from '@/core/structure/edit';
import { get } from '../../api';
import { Button } from '../../kit';
import type { Bench } from '../create-bench';
import { Decision } from './decision';

interface Uses {
  code: { form: string; behaviour: string; title: string; lines: number[] }[];
  scenarios: { title: string }[];
  lists: { list: string }[];
}

/** Removing shows first which behaviours and scenarios would break. */
export function Remove({ bench, part }: { bench: Bench; part: PartName }) {
  const [uses, setUses] = useState<Uses | 'asking' | 'unknown' | null>(null);
  const form = useMaterial(bench).form.name;
  const remove = () => {
    setUses(null);
    bench.structure.edit({ do: 'remove', part });
  };
  const ask = async () => {
    setUses('asking');
    const reply = await get<Uses>(
      `/api/forms/${form}/uses?${new URLSearchParams({ part }).toString()}`,
    );
    const found = reply.ok ? reply.body : null;
    if (found === null) setUses('unknown');
    else if (found.code.length === 0 && found.scenarios.length === 0 && found.lists.length === 0)
      remove();
    else setUses(found);
  };
  return (
    <Box borderTopWidth="1px" borderColor="line" pt="8px">
      <Button color="bad" disabled={uses === 'asking'} onClick={() => void ask()}>
        Remove this part
      </Button>
      {uses !== null && uses !== 'asking' && (
        <Decision label="What removing this part breaks">
          {uses === 'unknown' ? (
            'It could not be looked up what uses this part.'
          ) : (
            <>
              Removing it breaks:
              <chakra.ul pl="16px">
                {uses.code.map((use) => (
                  <li key={`${use.form}/${use.behaviour}`}>
                    {use.title},{' '}
                    {use.lines.length === 1
                      ? `line ${use.lines[0]}`
                      : `lines ${use.lines.join(', ')}`}
                  </li>
                ))}
                {uses.scenarios.map(({ title }) => (
                  <li key={title}>scenario “{title}”</li>
                ))}
                {uses.lists.map(({ list }) => (
                  <li key={list}>the list “{list}”</li>
                ))}
              </chakra.ul>
            </>
          )}
          <Flex gap="8px" mt="4px">
            <Button onClick={remove}>Remove it all the same</Button>
            <Button onClick={() => setUses(null)}>Keep it</Button>
          </Flex>
        </Decision>
      )}
    </Box>
  );
}
