'use client';
/** The services that scripts can ask, and new ones. */
import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { addressHere } from '../address';
import { useState } from 'react';
import { isName } from '@/core/form/name';
import { Button, Cell, Labelled, Line, ListTable, Mono, NamedLink } from '../kit';
import { PageHead } from '../page-head';

interface ServicesProps {
  workspace: string;
  services: readonly { name: string; title: string; functions: readonly string[] }[];
}

export function Services({ workspace, services }: ServicesProps) {
  return (
    <>
      <PageHead workspace={workspace} section="services" title="Services" />
      <Box as="main" px="16px" py="14px" maxW="900px">
        {services.length === 0 ? (
          <Box color="soft">
            There is no service yet. A service answers what scripts ask: from a table, or with a
            script of its own that stands in for another system.
          </Box>
        ) : (
          <ListTable caption="Services" heads={['Service', 'Functions']}>
            {services.map(({ name, title, functions }) => (
              <tr key={name}>
                <Cell>
                  <NamedLink href={`/services/${name}`} title={title} name={name} />
                </Cell>
                <Cell>
                  {functions.length === 0 ? 'none yet' : <Mono>{functions.join(', ')}</Mono>}
                </Cell>
              </tr>
            ))}
          </ListTable>
        )}
        <NewService taken={services.map(({ name }) => name)} />
      </Box>
    </>
  );
}

/** Begins a service under a technical name. */
function NewService({ taken }: { taken: readonly string[] }) {
  const [name, setName] = useState('');
  const router = useRouter();
  const isTaken = taken.includes(name);
  const good = isName(name) && !isTaken;
  const go = () => good && router.push(addressHere(`/services/${name}`));
  return (
    <Flex gap="8px" mt="14px" align="end">
      <Labelled label="Technical name of a new service">
        <Line
          fontFamily="mono"
          width="210px"
          placeholder="technical_name"
          value={name}
          onChange={(event) => setName(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && go()}
        />
      </Labelled>
      <Button disabled={!good} onClick={go}>
        New service
      </Button>
      <Box color="soft" fontSize="13px" pb="4px" role="status">
        {isTaken
          ? 'There is a service of this name.'
          : name !== '' && !good
            ? 'Small letters, digits and _, beginning with a letter.'
            : ''}
      </Box>
    </Flex>
  );
}
