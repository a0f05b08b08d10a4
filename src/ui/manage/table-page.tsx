'use client';
/** A table: its columns, its rows to be edited in place, CSV in and out. Of long tables only the rows in view are drawn. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRouter } from 'next/navigation';
import { addressHere, useAddress } from '../address';
import { useRef, useState } from 'react';
import type { CellValue, TableRow, Table } from '@/core/form/table';
import { call } from '../api';
import { Anchor, Button, Checkbox, Labelled, Line, Mono, Notice, Region, Select } from '../kit';
import { PageHead } from '../page-head';
import { isName } from '@/core/form/name';
import { SavingNote, useDraft } from '../draft/use-draft';
import { CsvImport } from './csv-import';
import { useNumbers } from '../writing';
import { SCALARS, SCALAR_OPTIONS, type ScalarKind } from '@/core/form/scalar';

type TableColumn = Table['columns'][number];

export function TablePage({
  workspace,
  table: first,
  revision,
}: {
  workspace: string;
  table: Table;
  revision: number;
}) {
  const draft = useDraft(`/api/tables/${first.name}`, first, revision, (value, from) => ({
    table: value,
    from,
  }));
  const { value: table, edit } = draft;
  const [importing, setImporting] = useState(false);
  const [says, setSays] = useState<string | null>(null);
  const router = useRouter();
  const put = (rows: TableRow[]) => edit({ ...table, rows });
  const remove = async () => {
    await draft.save();
    const reply = await call('DELETE', `/api/tables/${table.name}?from=${draft.revision}`);
    if (reply.ok) router.push(addressHere('/tables'));
    else setSays(reply.says);
  };
  return (
    <>
      <PageHead workspace={workspace} section="tables" title={table.title}>
        <SavingNote draft={draft} />
        <Button onClick={() => setImporting(!importing)} aria-expanded={importing}>
          Import CSV…
        </Button>
        <Export name={table.name} />
        <Button color="bad" onClick={() => void remove()}>
          Remove table
        </Button>
      </PageHead>
      <Box as="main" px="16px" py="14px">
        {says !== null && <Notice tone="error">{says} It stays.</Notice>}
        {importing && (
          <CsvImport
            columns={table.columns}
            tableKey={table.key}
            onDone={() => setImporting(false)}
            onTake={(taken, how) => {
              const added = taken.rows.filter(
                (row) =>
                  how === 'replace' || !table.rows.some((old) => old[table.key] === row[table.key]),
              );
              edit({
                ...table,
                columns: taken.columns,
                rows: how === 'replace' ? taken.rows : [...table.rows, ...added],
              });
              setImporting(false);
            }}
          />
        )}
        <Flex gap="14px" align="end" wrap="wrap">
          <Labelled label="Title">
            <Line
              value={table.title}
              onChange={(event) =>
                event.target.value !== '' && edit({ ...table, title: event.target.value })
              }
            />
          </Labelled>
          <Labelled label="Key">
            <Select
              value={table.key}
              options={table.columns.map((column) => ({ key: column.name, label: column.name }))}
              onChange={(event) => edit({ ...table, key: event.target.value })}
            />
          </Labelled>
          <Labelled label="Read as">
            <Select
              value={table.label}
              options={table.columns.map((column) => ({ key: column.name, label: column.name }))}
              onChange={(event) => edit({ ...table, label: event.target.value })}
            />
          </Labelled>
          <AddColumn
            table={table}
            onAdd={(column) =>
              edit({
                ...table,
                columns: [...table.columns, column],
                rows: table.rows.map((row) => ({ ...row, [column.name]: null })),
              })
            }
          />
        </Flex>
        <Grid table={table} onPut={put} />
        <Button
          mt="8px"
          onClick={() =>
            put([
              ...table.rows,
              {
                ...Object.fromEntries(table.columns.map((column) => [column.name, null])),
                [table.key]: freeKey(table),
              },
            ])
          }
        >
          Add a row
        </Button>
      </Box>
    </>
  );
}

/** The rows as CSV. Cells that begin like formulas are kept from being any, unless that is switched off. */
function Export({ name }: { name: string }) {
  const [formulas, setFormulas] = useState(false);
  return (
    <Flex gap="6px" align="center">
      <Anchor download href={useAddress()(`/api/tables/${name}${formulas ? '?formulas=yes' : ''}`)}>
        Export CSV
      </Anchor>
      <Checkbox
        color="soft"
        fontSize="12.5px"
        title="Texts that begin with =, +, - or @ are run by spreadsheets. Without this an apostrophe stands before them."
        label="formulas as they are"
        on={formulas}
        onSet={setFormulas}
      />
    </Flex>
  );
}

function freeKey(table: Table): string {
  const taken = new Set(table.rows.map((row) => String(row[table.key])));
  for (let i = table.rows.length + 1; ; i++) if (!taken.has(`new_${i}`)) return `new_${i}`;
}

function AddColumn({ table, onAdd }: { table: Table; onAdd: (column: TableColumn) => void }) {
  const [name, setName] = useState('');
  const [kind, setKind] = useState<TableColumn['kind']>('text');
  const good = isName(name) && !table.columns.some((column) => column.name === name);
  return (
    <Flex gap="6px" align="end">
      <Labelled label="New column">
        <Line
          fontFamily="mono"
          width="140px"
          placeholder="technical_name"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </Labelled>
      <Select
        aria-label="Kind of the new column"
        value={kind}
        options={SCALAR_OPTIONS}
        onChange={(event) => setKind(event.target.value as TableColumn['kind'])}
      />
      <Button
        disabled={!good}
        onClick={() => {
          onAdd({ name, kind });
          setName('');
        }}
      >
        Add column
      </Button>
    </Flex>
  );
}

function Grid({ table, onPut }: { table: Table; onPut: (rows: TableRow[]) => void }) {
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: table.rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 34,
    overscan: 12,
    initialRect: { width: 900, height: 560 },
  });
  const set = (place: number, column: string, value: CellValue) =>
    onPut(table.rows.map((row, i) => (i === place ? { ...row, [column]: value } : row)));
  const width = `repeat(${table.columns.length}, minmax(120px, 1fr)) 70px`;
  return (
    <Region
      ref={scroller}
      mt="12px"
      maxH="calc(100vh - 220px)"
      borderWidth="1px"
      borderColor="line"
      aria-label={`Rows of ${table.title}`}
    >
      <Box
        role="table"
        aria-label={table.title}
        aria-rowcount={table.rows.length + 1}
        minW={`${table.columns.length * 130 + 70}px`}
      >
        <Box role="rowgroup" position="sticky" top={0} bg="ground" zIndex={1}>
          <Box
            role="row"
            display="grid"
            gridTemplateColumns={width}
            gap="6px"
            px="6px"
            py="3px"
            borderBottomWidth="1px"
            borderColor="line"
          >
            {table.columns.map((column) => (
              <Box role="columnheader" key={column.name} fontSize="12px" lineHeight="16px">
                {column.label ?? column.name}
                <chakra.span display="block" color="soft">
                  <Mono>{column.name}</Mono> {SCALARS[column.kind].label}
                </chakra.span>
              </Box>
            ))}
            <Box role="columnheader">
              <chakra.span srOnly>Remove</chakra.span>
            </Box>
          </Box>
        </Box>
        <Box role="rowgroup" position="relative" height={`${virtual.getTotalSize()}px`}>
          {virtual.getVirtualItems().map((item) => {
            const row = table.rows[item.index]!;
            return (
              <Box
                role="row"
                key={item.key}
                aria-rowindex={item.index + 2}
                display="grid"
                gridTemplateColumns={width}
                gap="6px"
                px="6px"
                py="2px"
                position="absolute"
                top={0}
                left={0}
                width="100%"
                transform={`translateY(${item.start}px)`}
              >
                {table.columns.map((column) => (
                  <Box role="cell" key={column.name}>
                    <CellInput
                      label={`${column.label ?? column.name}, row ${item.index + 1}`}
                      kind={column.kind}
                      value={row[column.name] ?? null}
                      onCommit={(value) => set(item.index, column.name, value)}
                    />
                  </Box>
                ))}
                <Box role="cell">
                  <Button
                    look="text"
                    color="soft"
                    aria-label={`Remove row ${item.index + 1}`}
                    onClick={() => onPut(table.rows.filter((_, i) => i !== item.index))}
                  >
                    remove
                  </Button>
                </Box>
              </Box>
            );
          })}
        </Box>
      </Box>
    </Region>
  );
}

/** A cell as text; what is not of the column's kind is kept as typed, marked, and not taken over. */
function CellInput({
  label,
  kind,
  value,
  onCommit,
}: {
  label: string;
  kind: ScalarKind;
  value: CellValue;
  onCommit: (value: CellValue) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const numbers = useNumbers();
  if (kind === 'yes_no') {
    const key = value === null ? '' : value === true ? 'yes' : 'no';
    return (
      <Select
        aria-label={label}
        width="100%"
        value={key}
        options={[
          { key: '', label: '' },
          { key: 'yes', label: 'yes' },
          { key: 'no', label: 'no' },
        ]}
        onChange={({ target }) => onCommit(target.value === '' ? null : target.value === 'yes')}
      />
    );
  }
  const shown =
    text ?? (value === null ? '' : typeof value === 'number' ? numbers.show(value) : String(value));
  const read = shown === '' ? null : SCALARS[kind].read(shown, numbers.style);
  const commit = () => {
    if (text === null || read === undefined) return;
    setText(null);
    if (read !== value) onCommit(read);
  };
  return (
    <Line
      aria-label={label}
      aria-invalid={read === undefined}
      title={read === undefined ? `This is not ${SCALARS[kind].typed}.` : undefined}
      width="100%"
      borderColor={read === undefined ? 'bad' : 'line'}
      value={shown}
      onChange={(event) => setText(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
        if (event.key === 'Escape') setText(null);
      }}
    />
  );
}
