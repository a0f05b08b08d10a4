'use client';
/** Who is using the app; stands in for a sign-in. */
import { Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import type { Person } from '@/core/form/table';
import { call } from './api';
import { Select } from './kit';

export function PersonSwitch({ people, person }: { people: readonly Person[]; person: string }) {
  const router = useRouter();
  return (
    <Flex align="center" gap="6px" color="soft">
      <label htmlFor="person">You are</label>
      <Select
        id="person"
        value={person}
        options={people.map(({ key, name, roles }) => ({
          key,
          label: `${name}, ${roles.join(', ')}`,
        }))}
        onChange={(event) =>
          void call('POST', '/api/person', { key: event.target.value }).then(() => router.refresh())
        }
      />
    </Flex>
  );
}
