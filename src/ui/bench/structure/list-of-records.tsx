'use client';
/** How a list of another form's records is defined. */
import { Flex } from '@chakra-ui/react';
import type { OtherForm } from '@/core/structure/adding';
import { Checkboxes, Fieldset, Labelled, Select } from '../../kit';
import { Choice, Text, type Shared } from './inputs';

/** A list of records: of which form, by which of its fields, showing which. */
export function ListOfRecords({
  definition,
  change,
  others,
}: Pick<Shared, 'definition' | 'change'> & { others: readonly OtherForm[] }) {
  const other = others.find(({ name }) => name === definition.form);
  const fields = (other?.fields ?? []).map(({ key, label }): [string, string] => [key, label]);
  const columns = definition.columns as string[];
  return (
    <Flex direction="column" gap="8px">
      <Labelled label="Records of">
        <Select
          value={definition.form as string}
          options={others.map(({ name, title }) => ({ key: name, label: title }))}
          onChange={({ target }) => {
            const first = others.find(({ name }) => name === target.value)?.fields[0]?.key;
            if (first !== undefined)
              change({ form: target.value, field: first, launch: first, columns: [first] });
          }}
        />
      </Labelled>
      <Choice
        definition={definition}
        change={change}
        name="field"
        label="whose field holds the id of this record"
        options={fields}
      />
      <Text
        definition={definition}
        change={change}
        name="launch"
        label="Launch parameter that hands it to a new one"
        mono
        needed
      />
      <Fieldset legend="Columns">
        <Checkboxes
          options={fields.map(([key, label]) => ({ key, label }))}
          chosen={columns}
          needed
          onChoose={(keys) => change({ columns: keys })}
        />
      </Fieldset>
    </Flex>
  );
}
