'use client';
/** How one part is defined, to be read and changed: its words, its limits, its options, its technical name, its removal. */
import { useMaterial } from '../common/use-bench';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useStore } from 'zustand';
import type { Option } from '@/core/form/definition';
import { placeOf, type PartName } from '@/core/structure/edit';
import { Labelled, Select } from '../../kit';
import type { Bench } from '../create-bench';
import { Choice, Text, Tick, type DefinitionValues } from './inputs';
import { Limits } from './limits';
import { ListOfRecords } from './list-of-records';
import { Options } from './options';
import { Remove } from './removal';
import { Rename } from './renaming';
import { kindInWords } from '@/core/form/traits';

export function Definition({ bench, part }: { bench: Bench; part: PartName }) {
  const structure = useStore(bench.structure.store);
  const material = useMaterial(bench);
  const place = placeOf(material.form, part);
  if (place === null) return <Box color="soft">This part is gone.</Box>;
  const definition = place.definition as unknown as DefinitionValues;
  const change = (to: DefinitionValues) => bench.structure.edit({ do: 'change', part, to });
  const kind = (definition.kind as string | undefined) ?? place.sort;
  const sections = material.form.pages.flatMap((page) =>
    page.sections.map((section) => ({ key: section.name, label: section.title })),
  );
  const pages = material.form.pages.map((page) => ({ key: page.name, label: page.title }));
  const targets = place.sort === 'field' ? sections : place.sort === 'section' ? pages : [];
  const shared = { definition, change };
  const isField = place.sort === 'field' || place.sort === 'cell';
  return (
    <Flex direction="column" gap="8px" fontSize="13.5px">
      <Flex align="baseline" gap="8px">
        <chakra.h2 fontSize="15px" fontWeight={640}>
          {(definition.label ?? definition.title) as string}
        </chakra.h2>
        <chakra.span color="soft">
          {isField
            ? kindInWords(place.definition as never)
            : place.sort === 'list'
              ? 'list of records'
              : place.sort}
        </chakra.span>
      </Flex>
      <Rename bench={bench} part={part} />
      <Text
        {...shared}
        name={'label' in definition ? 'label' : 'title'}
        label={'label' in definition ? 'Label' : 'Title'}
        needed
        focused={structure.atLabel}
      />
      {isField && <Text {...shared} name="help" label="Help, below the field" />}
      {isField && <Text {...shared} name="hint" label="Hint, until a script says another" />}
      {isField && <Text {...shared} name="warning" label="Warning, until a script says another" />}
      <Flex gap="14px" wrap="wrap">
        {place.sort !== 'track' && place.sort !== 'list' && (
          <Tick {...shared} name="locked" label="locked from the start" />
        )}
        {place.sort !== 'list' && <Tick {...shared} name="hidden" label="hidden from the start" />}
        {isField && <Tick {...shared} name="required" label="required" />}
        {isField && <Tick {...shared} name="scriptOnly" label="only scripts write it" />}
        {(isField || place.sort === 'section') && (
          <Tick {...shared} name="keepsSpace" label="keeps its space" />
        )}
      </Flex>
      {isField && (
        <Flex gap="10px" wrap="wrap">
          <Choice
            {...shared}
            name="whenHidden"
            label="When hidden"
            options={[
              ['', 'keeps its value'],
              ['omit', 'is left out'],
              ['clear', 'is cleared'],
            ]}
          />
          <Choice
            {...shared}
            name="width"
            label="Width"
            options={[
              ['', 'full'],
              ['half', 'one column'],
            ]}
          />
        </Flex>
      )}
      <Limits kind={kind} shared={shared} tables={material.tables} />
      {(kind === 'choice' || kind === 'choices') && (
        <Options
          bench={bench}
          part={part}
          list="options"
          options={definition.options as Option[]}
          title="Options"
        />
      )}
      {kind === 'track' && (
        <Options
          bench={bench}
          part={part}
          list="stages"
          options={definition.stages as Option[]}
          title="Stages"
        />
      )}
      {kind === 'list' && <ListOfRecords {...shared} others={material.others} />}
      {(kind === 'button' || kind === 'list') && (
        <Choice
          {...shared}
          name="section"
          label="Stands in"
          options={[
            ['', 'the foot of the form'],
            ...sections.map(({ key, label }): [string, string] => [key, label]),
          ]}
        />
      )}
      {targets.length > 1 && (
        <Labelled label="Move to">
          <Select
            value={place.into ?? ''}
            options={targets}
            onChange={(event) =>
              bench.structure.edit({
                do: 'move',
                part,
                into: event.target.value,
                at: Number.MAX_SAFE_INTEGER,
              })
            }
          />
        </Labelled>
      )}
      <Remove bench={bench} part={part} />
    </Flex>
  );
}
