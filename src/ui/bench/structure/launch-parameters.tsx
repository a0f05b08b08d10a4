'use client';
/** What whoever opens the form may hand over. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { LaunchParameter } from '@/core/form/definition';
import { Button, Line, Select } from '../../kit';
import type { Bench } from '../create-bench';
import { Committed } from './inputs';
import { SCALAR_OPTIONS } from '@/core/form/scalar';

/** What whoever opens the form may hand over, with the kinds that scripts have them in. */
export function LaunchParameters({
  bench,
  parameters,
}: {
  bench: Bench;
  parameters: readonly LaunchParameter[];
}) {
  const [name, setName] = useState('');
  const put = (launch: readonly LaunchParameter[]) =>
    bench.structure.edit({
      do: 'changeForm',
      launch: launch.length === 0 ? undefined : [...launch],
    });
  const add = () => {
    if (name.trim() !== '' && put([...parameters, { name: name.trim(), kind: 'text' }]))
      setName('');
  };
  return (
    <chakra.fieldset>
      <chakra.legend fontWeight={620}>Launch parameters</chakra.legend>
      <Box color="soft" fontSize="12.5px">
        Scripts have them as form.launch.name. One that is not declared here is a text.
      </Box>
      {parameters.map((parameter, i) => (
        <Flex key={parameter.name} gap="8px" mt="4px" align="end" wrap="wrap">
          <Committed
            label={parameter.name}
            width="150px"
            value={parameter.label ?? ''}
            onCommit={(label) =>
              put(
                parameters.map((other, j) =>
                  i === j
                    ? { ...other, label: label.trim() === '' ? undefined : label.trim() }
                    : other,
                ),
              )
            }
          />
          <Select
            aria-label={`Kind of ${parameter.name}`}
            value={parameter.kind}
            options={SCALAR_OPTIONS}
            onChange={({ target }) =>
              put(
                parameters.map((other, j) =>
                  i === j ? { ...other, kind: target.value as LaunchParameter['kind'] } : other,
                ),
              )
            }
          />
          <Button
            look="text"
            color="soft"
            aria-label={`Remove ${parameter.name}`}
            onClick={() => put(parameters.filter((other) => other !== parameter))}
          >
            remove
          </Button>
        </Flex>
      ))}
      <Flex gap="8px" mt="6px">
        <Line
          aria-label="Name of a new launch parameter"
          placeholder="technical_name"
          fontFamily="mono"
          width="150px"
          value={name}
          onChange={(event) => setName(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && add()}
        />
        <Button disabled={name.trim() === ''} onClick={add}>
          Add
        </Button>
      </Flex>
    </chakra.fieldset>
  );
}
