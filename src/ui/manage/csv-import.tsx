'use client';
/** Importing CSV: what the columns seem to be, what does not fit, the first rows; nothing is taken before somebody has looked. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { TableRow, Table } from '@/core/form/table';
import type { Spelling } from '@/core/workspace/csv-spelling';
import { call } from '../api';
import { Button, Mono, Notice, Select } from '../kit';
import { SCALAR_OPTIONS } from '@/core/form/scalar';

type TableColumn = Table['columns'][number];

interface Preview {
  guess: {
    columns: (TableColumn & { heading?: string })[];
    key: string | null;
    rows: number;
    spelling: Spelling;
  } | null;
  rows: TableRow[];
  errors: { line: number; path: (string | number)[]; says: string }[];
}

export interface Taken {
  columns: TableColumn[];
  key: string;
  rows: TableRow[];
}

/** For a table that is there `columns` are its own; a new one is made of what the file has. */
export function CsvImport({
  columns,
  tableKey,
  onTake,
  onDone,
}: {
  columns: readonly TableColumn[] | null;
  tableKey: string | null;
  onTake: (taken: Taken, how: 'replace' | 'add') => void;
  onDone: () => void;
}) {
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [says, setSays] = useState<string | null>(null);

  const look = async (
    picked: { name: string; text: string },
    told: TableColumn[] | null,
    spelling: Spelling | null,
  ) => {
    const reply = await call<Preview>('POST', '/api/tables/preview', {
      file: picked.name,
      text: picked.text,
      ...(told === null ? {} : { columns: told }),
      ...(tableKey === null ? {} : { key: tableKey }),
      ...(spelling === null ? {} : { spelling }),
    });
    if (!reply.ok) return setSays(reply.says);
    setSays(null);
    // The kinds of a table that is there count, not what this file looks like.
    const { guess } = reply.body;
    const known =
      told === null && columns !== null && guess !== null
        ? guess.columns.map((column) => columns.find((own) => own.name === column.name) ?? column)
        : null;
    if (known !== null && known.some((column, i) => column.kind !== guess!.columns[i]!.kind))
      return look(picked, known.map(plain), spelling);
    setPreview(reply.body);
  };

  const guess = preview?.guess ?? null;
  const missing =
    guess === null || columns === null
      ? []
      : columns.filter((column) => !guess.columns.some((other) => other.name === column.name));
  const fresh =
    guess === null || columns === null
      ? []
      : guess.columns.filter((column) => !columns.some((other) => other.name === column.name));
  const good =
    guess !== null &&
    preview!.errors.length === 0 &&
    (tableKey === null || guess.columns.some((column) => column.name === tableKey));
  const taken = (): Taken => {
    const all = columns === null ? guess!.columns.map(plain) : [...columns, ...fresh.map(plain)];
    return {
      columns: all,
      key: tableKey ?? guess!.key ?? all[0]!.name,
      rows: preview!.rows.map((row) =>
        Object.fromEntries(all.map((column) => [column.name, row[column.name] ?? null])),
      ),
    };
  };

  return (
    <Box
      borderWidth="1px"
      borderColor="line"
      bg="sheet"
      p="12px"
      mb="14px"
      role="region"
      aria-label="Import CSV"
    >
      <Flex gap="10px" align="center" wrap="wrap">
        <chakra.label>
          <chakra.span mr="8px">CSV file, its first line naming the columns</chakra.span>
          <input
            type="file"
            accept=".csv,text/csv"
            onChange={(event) => {
              const picked = event.target.files?.[0];
              if (picked === undefined) return;
              void readText(picked).then((text) => {
                const next = { name: picked.name, text };
                setFile(next);
                return look(next, null, null);
              });
            }}
          />
        </chakra.label>
        <Button ml="auto" onClick={onDone}>
          Close
        </Button>
      </Flex>
      {says !== null && <Notice tone="error">{says}</Notice>}
      {preview !== null && guess === null && (
        <Notice tone="error">
          {preview.errors.map(({ line, says: what }) => `Line ${line}: ${what}.`).join(' ')}
        </Notice>
      )}
      {guess !== null && (
        <>
          <SpellingLine
            spelling={guess.spelling}
            onChange={(spelling) => file !== null && void look(file, null, spelling)}
          />
          <Box mt="8px">
            {counted(guess.rows, 'row')}.{' '}
            {fresh.length > 0 && `New columns: ${fresh.map((column) => column.name).join(', ')}. `}
            {missing.length > 0 &&
              `Left empty: ${missing.map((column) => column.name).join(', ')}. `}
            {tableKey !== null && !guess.columns.some((column) => column.name === tableKey) && (
              <chakra.b color="bad">The key {tableKey} is missing.</chakra.b>
            )}
          </Box>
          <Box overflowX="auto" mt="6px">
            <chakra.table borderCollapse="collapse" fontSize="13px">
              <thead>
                <tr>
                  {guess.columns.map((column, i) => (
                    <chakra.th
                      key={column.name}
                      scope="col"
                      textAlign="left"
                      pr="12px"
                      fontWeight={400}
                      verticalAlign="bottom"
                    >
                      <Mono>{column.name}</Mono>
                      <Select
                        aria-label={`Kind of ${column.name}`}
                        display="block"
                        value={column.kind}
                        options={SCALAR_OPTIONS}
                        onChange={(event) =>
                          file !== null &&
                          void look(
                            file,
                            guess.columns.map((other, j) =>
                              plain(
                                i === j
                                  ? { ...other, kind: event.target.value as TableColumn['kind'] }
                                  : other,
                              ),
                            ),
                            guess.spelling,
                          )
                        }
                      />
                    </chakra.th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {preview!.rows.slice(0, 6).map((row, i) => (
                  <tr key={i}>
                    {guess.columns.map((column) => (
                      <chakra.td
                        key={column.name}
                        pr="12px"
                        borderTopWidth="1px"
                        borderColor="line"
                      >
                        {cellText(row[column.name])}
                      </chakra.td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </chakra.table>
          </Box>
          {preview!.errors.length > 0 && (
            <Notice tone="error" mt="8px">
              {preview!.errors.length === 1
                ? 'One cell does not fit:'
                : `${preview!.errors.length} cells do not fit:`}
              <chakra.ul pl="16px">
                {preview!.errors.slice(0, 12).map((error, i) => (
                  <li key={i}>
                    line {error.line}
                    {error.path.length > 0 && `, ${error.path.join('.')}`}: {error.says}
                  </li>
                ))}
              </chakra.ul>
              Correct the file, or choose another kind for the column.
            </Notice>
          )}
          <Flex gap="8px" mt="10px">
            <Button look="go" disabled={!good} onClick={() => onTake(taken(), 'replace')}>
              {columns === null ? 'Make the table' : 'Replace all rows'}
            </Button>
            {columns !== null && (
              <Button disabled={!good} onClick={() => onTake(taken(), 'add')}>
                Add rows with new keys
              </Button>
            )}
          </Flex>
        </>
      )}
    </Box>
  );
}

/** How the file was read, to be corrected. */
function SpellingLine({
  spelling,
  onChange,
}: {
  spelling: Spelling;
  onChange: (spelling: Spelling) => void;
}) {
  const choice = <K extends keyof Spelling>(
    name: K,
    label: string,
    options: { key: Spelling[K]; label: string }[],
  ) => (
    <chakra.label display="flex" gap="6px" alignItems="center">
      {label}
      <Select
        value={spelling[name]}
        options={options}
        onChange={({ target }) => onChange({ ...spelling, [name]: target.value as Spelling[K] })}
      />
    </chakra.label>
  );
  return (
    <Flex mt="10px" gap="14px" wrap="wrap" color="soft">
      {choice('delimiter', 'Cells are separated by', [
        { key: ',', label: 'commas' },
        { key: ';', label: 'semicolons' },
        { key: '\t', label: 'tabs' },
        { key: '|', label: 'vertical bars' },
      ])}
      {choice('decimal', 'decimals by', [
        { key: '.', label: 'a point' },
        { key: ',', label: 'a comma' },
      ])}
      {choice('dates', 'dates are', [
        { key: 'ymd', label: 'year, month, day' },
        { key: 'dmy', label: 'day, month, year' },
        { key: 'mdy', label: 'month, day, year' },
      ])}
    </Flex>
  );
}

/** A file's text: UTF-8, UTF-16 where it says so, else what older spreadsheets write on Windows. */
async function readText(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const mark = `${bytes[0]} ${bytes[1]}`;
  if (mark === '255 254') return new TextDecoder('utf-16le').decode(bytes);
  if (mark === '254 255') return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

function plain({ name, label, kind }: TableColumn): TableColumn {
  return { name, kind, ...(label === undefined ? {} : { label }) };
}

function cellText(value: unknown): string {
  return value === null || value === undefined
    ? ''
    : value === true
      ? 'yes'
      : value === false
        ? 'no'
        : String(value);
}
