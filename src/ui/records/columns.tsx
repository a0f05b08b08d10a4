'use client';
/** The columns of a list of records, as somebody chose them. */
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Field, Form } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import { listedFields } from '@/core/form/listing';
import { useAddress } from '../address';
import { Checkboxes } from '../kit';

/** Which columns are shown; those after the first ones of the form can be looked at, not sorted by. */
export function Columns({
  form,
  chosen,
  onChoose,
}: {
  form: Form;
  chosen: ReadonlySet<string>;
  onChoose: (names: ReadonlySet<string>) => void;
}) {
  return (
    <chakra.details position="relative" pb="4px">
      <chakra.summary cursor="pointer" color="act">
        Columns
      </chakra.summary>
      <Box
        position="absolute"
        zIndex={3}
        mt="4px"
        p="10px"
        minW="230px"
        maxH="360px"
        overflowY="auto"
        bg="sheet"
        borderWidth="1px"
        borderColor="line"
        boxShadow="raised"
      >
        <Checkboxes
          options={columnsOf(form).map(({ name, label }) => ({ key: name, label }))}
          chosen={[...chosen]}
          needed
          onChoose={(names) => onChoose(new Set(names))}
        />
      </Box>
    </chakra.details>
  );
}

/** Fields that fit into a cell. */
export function columnsOf(form: Form): Field[] {
  return fieldsOf(form).filter(({ kind }) => kind !== 'rows' && kind !== 'file');
}

/** Kept in the browser, for each form. */
export function useChosenColumns(
  form: Form,
): [ReadonlySet<string>, (names: ReadonlySet<string>) => void] {
  const key = useAddress()(`tavro.columns.${form.name}`);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(
    () => new Set(listedFields(form).map(({ name }) => name)),
  );
  // What is kept is known only in the browser; fields that are gone are none any more.
  useEffect(() => {
    const kept = readKept(key).filter((name) =>
      columnsOf(form).some((field) => field.name === name),
    );
    if (kept.length > 0) setChosen(new Set(kept));
  }, [key]);
  return [
    chosen,
    (names) => {
      setChosen(names);
      try {
        localStorage.setItem(key, JSON.stringify([...names]));
      } catch {
        // A convenience; a browser that keeps nothing still works.
      }
    },
  ];
}

function readKept(key: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    return Array.isArray(kept) ? kept.filter((name) => typeof name === 'string') : [];
  } catch {
    return [];
  }
}
