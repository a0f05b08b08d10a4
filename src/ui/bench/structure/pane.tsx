'use client';
/** The structure of the form: adding parts, and the definition of the part chosen in the tree. Everything is in force in the live form and in the editor at once. */
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { fieldsOf } from '@/core/form/fields';
import { newDefinition, targetFor } from '@/core/structure/adding';
import { nameFor, namesTaken } from '@/core/structure/edit';
import { ConflictNotice, SavingLine } from '../../draft/saving';
import { Button, Line, Mono, Notice, Region, Select } from '../../kit';
import type { Bench } from '../create-bench';
import { Definition } from './definition';
import { FormDefinition } from './form-definition';
import { KIND_OPTIONS } from '@/core/form/traits';
import { PaneHead } from '../common/pane-parts';

export function StructurePane({ bench }: { bench: Bench }) {
  const isReady = useRoom(bench.structure, (state) => state.isReady);
  useEffect(() => void bench.structure.prepare(), [bench]);
  return isReady ? <Opened bench={bench} /> : <Box p="14px">Opening the structure…</Box>;
}

function Opened({ bench }: { bench: Bench }) {
  const structure = useStore(bench.structure.store);
  const material = useMaterial(bench);
  const { form } = material;
  const { selected, says, saving, history, renamed } = structure;
  const fields = fieldsOf(form).length;
  return (
    <Flex direction="column" flex="1" minH={0}>
      <PaneHead>
        <Add bench={bench} />
        <Button
          ml="auto"
          disabled={history.past.length === 0}
          onClick={bench.structure.undo}
          title="Undo the last edit of the structure"
        >
          Undo
        </Button>
        <Button disabled={history.future.length === 0} onClick={bench.structure.redo}>
          Redo
        </Button>
      </PaneHead>
      {says !== null && (
        <Box px="14px" pt="6px">
          <Notice tone="error">{says}</Notice>
        </Box>
      )}
      {renamed !== null && (
        <Flex px="14px" pt="6px" gap="8px" align="center">
          <Box flex="1">
            <Notice tone="info">
              <Mono>{renamed.from}</Mono> is <Mono>{renamed.to}</Mono> everywhere now.{' '}
              <Button look="text" onClick={() => void bench.structure.undoRenaming()}>
                Undo renaming
              </Button>
            </Notice>
          </Box>
          <Button onClick={bench.structure.forgetRenaming}>Close</Button>
        </Flex>
      )}
      {saving.state === 'conflict' && (
        <Box px="14px" pt="6px">
          <ConflictNotice
            says="Somebody else changed the structure meanwhile. Nothing is overwritten until you choose."
            onSettle={bench.structure.settle}
          />
        </Box>
      )}
      <Region flex="1" minW={0} overflowX="hidden" p="12px" aria-label="The part chosen">
        {selected === null ? (
          <FormDefinition bench={bench} />
        ) : (
          <Definition key={selected} bench={bench} part={selected} />
        )}
      </Region>
      <Flex
        px="14px"
        py="6px"
        borderTopWidth="1px"
        borderColor="line"
        color="soft"
        fontSize="13px"
        minH="33px"
        role="status"
      >
        <span>{counted(fields, 'field')}</span>
        <Box ml="auto">
          <SavingLine saving={saving} saved="structure saved" />
        </Box>
      </Flex>
    </Flex>
  );
}

/** Adds a part after the one that is chosen, or into it. */
function Add({ bench }: { bench: Bench }) {
  const structure = useStore(bench.structure.store);
  const material = useMaterial(bench);
  const [what, setWhat] = useState<string>('text');
  const [label, setLabel] = useState('');
  const { form, tables } = material;
  const frames = [
    { key: '@section', label: 'Section' },
    { key: '@page', label: 'Page' },
    { key: '@button', label: 'Button' },
    { key: '@track', label: 'Track' },
    { key: '@list', label: 'List of records' },
  ];
  const add = () => {
    const text = label.trim();
    if (text === '') return;
    const target = targetFor(form, structure.selected, what);
    const name = nameFor(text, namesTaken(form, target));
    const table = tables[0]?.name ?? null;
    const definition = newDefinition(form, what, name, text, table, material.others);
    if (definition === null || !bench.structure.edit({ do: 'add', ...target, definition })) return;
    setLabel('');
    bench.structure.select(target.sort === 'cell' ? `${target.into}.${name}` : name);
  };
  return (
    <Flex gap="6px" align="center">
      <chakra.span color="soft">Add</chakra.span>
      <Select
        aria-label="What to add"
        value={what}
        options={[...KIND_OPTIONS, ...frames]}
        onChange={(event) => setWhat(event.target.value)}
      />
      <Line
        aria-label="Label of the new part"
        placeholder="Label"
        width="130px"
        value={label}
        onChange={(event) => setLabel(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') add();
        }}
      />
      <Button disabled={label.trim() === ''} onClick={add}>
        Add
      </Button>
    </Flex>
  );
}
