'use client';
/** The page of workspaces: how each stands, new ones, copies, the archive, removal and its undo. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import {
  soundnessInWords,
  type RemovedWorkspace,
  type WorkspaceRow,
} from '@/core/workspace/workspaces';
import { useDates } from '../writing';
import { SaidNotice, useAsking } from './use-change';
import { Anchor, Button, Cell, Labelled, Line, ListTable, Mono, Select } from '../kit';
import { PageHead } from '../page-head';
import { useHeldWhilePressed } from '../press';

interface WorkspacesProps {
  workspaces: readonly WorkspaceRow[];
  removed: readonly RemovedWorkspace[];
  /** Folders that can be opened. */
  offered: readonly OfferedFolder[];
}

/** Where a workspace begins. A plain link: each page is made for one workspace as a whole. */
const startOf = ({ name, first }: WorkspaceRow) => (first ? '/' : `/w/${name}`);

export function Workspaces({ removed, offered, ...now }: WorkspacesProps) {
  const workspaces = useHeldWhilePressed(now.workspaces);
  const { said, setSaid, ask } = useAsking<string>();
  const [naming, setNaming] = useState<string | null>(null);
  const [archive, setArchive] = useState(false);
  const dates = useDates();
  const copy = async ({ name, title }: WorkspaceRow) => {
    const made = await ask<{ name: string }>('POST', '/api/workspaces', {
      copyOf: name,
      title: `Copy of ${title}`.slice(0, 120),
    });
    if (made === null) return;
    setSaid({ tone: 'info', text: `${title} was copied. Give the copy a title of its own.` });
    setNaming(made.name);
  };
  const rename = async (name: string, title: string) => {
    if ((await ask('PUT', `/api/workspaces/${name}`, { title })) !== null) setNaming(null);
  };
  const remove = async ({ name, title }: WorkspaceRow) => {
    if ((await ask('DELETE', `/api/workspaces/${name}`)) !== null)
      setSaid({ tone: 'info', text: `${title} was removed.`, undo: name });
  };
  const close = async ({ name, title, folder }: WorkspaceRow) => {
    if ((await ask('DELETE', `/api/folders?workspace=${name}`)) !== null)
      setSaid({
        tone: 'info',
        text: `${title} and ${folder!.path} are not kept the same any more. Both stay as they are.`,
      });
  };
  const restore = async (name: string) => {
    if ((await ask('POST', `/api/workspaces/${name}/restore`, {})) !== null)
      setSaid({ tone: 'info', text: 'The workspace is back.' });
  };
  const shown = workspaces.filter(({ archived }) => archived === archive);
  const archived = workspaces.filter((one) => one.archived).length;
  return (
    <>
      <PageHead title="Workspaces" />
      <Box as="main" px="16px" py="14px" maxW="1180px">
        <NewWorkspace
          onMake={async (title, form) => {
            const made = await ask<{ name: string }>('POST', '/api/workspaces', { title, form });
            if (made !== null) location.assign(`/w/${made.name}`);
          }}
          onZip={async (file) => {
            const response = await fetch('/api/workspaces/zip', {
              method: 'POST',
              body: file,
              headers: { 'content-type': 'application/zip' },
            }).catch(() => null);
            const read = (await response?.json().catch(() => null)) as {
              name?: string;
              says?: string;
            } | null;
            if (read?.name !== undefined) location.assign(`/w/${read.name}`);
            else
              setSaid({
                tone: 'error',
                text: `${file.name} was not taken.\n${read?.says ?? 'The server is out of reach.'}`,
              });
          }}
        />
        <OpenFolder
          offered={offered}
          onOpen={async (folder) => {
            const made = await ask<{ name: string }>('POST', '/api/folders', { folder });
            if (made !== null) location.assign(`/w/${made.name}`);
          }}
        />
        <SaidNotice said={said} onUndo={(undo) => void restore(undo)} />
        <Box overflowX="auto">
          <ListTable
            caption={archive ? 'Archived workspaces' : 'Workspaces'}
            heads={['Workspace', 'Forms', 'Problems', 'Last changed', 'Actions']}
          >
            {shown.map((row) => (
              <tr key={row.name}>
                <Cell>
                  {naming === row.name ? (
                    <Naming row={row} onRename={rename} onDone={() => setNaming(null)} />
                  ) : (
                    <Anchor href={startOf(row)} fontWeight={620}>
                      {row.title}
                    </Anchor>
                  )}
                  <Mono as="div" color="soft">
                    {startOf(row)}
                  </Mono>
                  {row.folder !== null && <Folder folder={row.folder} />}
                </Cell>
                <Cell>{row.forms}</Cell>
                <Cell>
                  <Soundness row={row} />
                </Cell>
                <Cell>{row.changedAt === null ? 'never' : dates.moment(row.changedAt)}</Cell>
                <Cell>
                  <Flex gap="0 8px" wrap="wrap">
                    <Anchor
                      href={`${row.first ? '' : `/w/${row.name}`}/api/workspace`}
                      download
                      color="soft"
                      aria-label={`Download ${row.title} as a zip of its folder`}
                    >
                      download
                    </Anchor>
                    <Anchor
                      href={`${row.first ? '' : `/w/${row.name}`}/take`}
                      color="soft"
                      aria-label={`Bring a folder into ${row.title}`}
                    >
                      bring in
                    </Anchor>
                    {(
                      [
                        ['rename', 'Rename', () => setNaming(row.name)],
                        ['copy', 'Copy', () => void copy(row)],
                        [
                          row.archived ? 'unarchive' : 'archive',
                          row.archived ? 'Take out of the archive:' : 'Archive',
                          () =>
                            void ask('PUT', `/api/workspaces/${row.name}`, {
                              archived: !row.archived,
                            }),
                        ],
                        ...(row.folder === null
                          ? []
                          : ([
                              ['close folder', 'Close the folder of', () => void close(row)],
                            ] as const)),
                        ...(row.first
                          ? []
                          : ([['remove', 'Remove', () => void remove(row)]] as const)),
                      ] as const
                    ).map(([word, label, act]) => (
                      <Button
                        key={word}
                        look="text"
                        color="soft"
                        aria-label={`${label} ${row.title}`}
                        onClick={act}
                      >
                        {word}
                      </Button>
                    ))}
                  </Flex>
                </Cell>
              </tr>
            ))}
          </ListTable>
        </Box>
        {shown.length === 0 && (
          <Box color="soft" mt="8px">
            {archive ? 'Nothing is archived.' : 'Every workspace is archived.'}
          </Box>
        )}
        <Flex gap="14px" mt="12px" wrap="wrap" color="soft" fontSize="13px">
          {(archived > 0 || archive) && (
            <Button look="text" onClick={() => setArchive(!archive)}>
              {archive ? 'Back to the workspaces' : `Archive (${archived})`}
            </Button>
          )}
          {removed.map(({ name, title }) => (
            <span key={name}>
              {title} was removed.{' '}
              <Button look="text" onClick={() => void restore(name)}>
                Restore {title}
              </Button>
            </span>
          ))}
        </Flex>
      </Box>
    </>
  );
}

const TONES = { good: 'act', bad: 'bad', warning: 'said', unknown: 'soft' } as const;
const MARKS = { good: '✓ ', bad: '× ', warning: '! ', unknown: '' } as const;

function Soundness({ row }: { row: WorkspaceRow }) {
  const { tone, says } = soundnessInWords(row);
  return (
    <chakra.span color={TONES[tone]}>
      {MARKS[tone]}
      {says}
    </chakra.span>
  );
}

/** The folder of a workspace, and whether all is well there. */
function Folder({
  folder: { path, kept, wrong, says },
}: {
  folder: NonNullable<WorkspaceRow['folder']>;
}) {
  return (
    <Box fontSize="12.5px" color={wrong > 0 ? 'bad' : 'soft'}>
      {!kept
        ? `${path} is not kept up to date: the app was not started with it`
        : wrong > 0
          ? `× ${path}: ${wrong === 1 ? 'one thing' : `${wrong} things`} to settle, shown on the bench`
          : `kept the same as ${path}`}
      {says.map((line) => (
        <Box key={line} overflowWrap="anywhere">
          {line}
        </Box>
      ))}
    </Box>
  );
}

interface OfferedFolder {
  folder: string;
  name: string;
  workspace: string | null;
}

/** Folders that the start command allows to be opened; nothing where it allows none. */
function OpenFolder({
  offered,
  onOpen,
}: {
  offered: readonly OfferedFolder[];
  onOpen: (folder: string) => Promise<void>;
}) {
  const [chosen, setChosen] = useState('');
  const [opening, setOpening] = useState(false);
  const folders = offered.filter(({ workspace }) => workspace === null);
  if (folders.length === 0) return null;
  const folder = folders.some((one) => one.folder === chosen) ? chosen : folders[0]!.folder;
  const open = async () => {
    setOpening(true);
    await onOpen(folder);
    setOpening(false);
  };
  return (
    <Flex gap="12px" align="end" wrap="wrap" mb="12px">
      <Labelled label="Folder on this machine">
        <Select
          width="360px"
          value={folder}
          options={folders.map((one) => ({ key: one.folder, label: one.folder }))}
          onChange={(event) => setChosen(event.target.value)}
        />
      </Labelled>
      <Button disabled={opening} onClick={() => void open()}>
        Open folder
      </Button>
    </Flex>
  );
}

function Naming({
  row,
  onRename,
  onDone,
}: {
  row: WorkspaceRow;
  onRename: (name: string, title: string) => Promise<void>;
  onDone: () => void;
}) {
  const [title, setTitle] = useState(row.title);
  const done = () =>
    title.trim() === '' || title.trim() === row.title
      ? onDone()
      : void onRename(row.name, title.trim());
  return (
    <Line
      autoFocus
      aria-label={`Title of ${row.title}`}
      value={title}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTitle(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => {
        if (event.key === 'Enter') done();
        if (event.key === 'Escape') onDone();
      }}
    />
  );
}

function NewWorkspace({
  onMake,
  onZip,
}: {
  onMake: (title: string, form: string | null) => Promise<void>;
  onZip: (file: File) => Promise<void>;
}) {
  const zip = useRef<HTMLInputElement>(null);
  const [title, setTitle] = useState('');
  const [form, setForm] = useState('');
  const [making, setMaking] = useState(false);
  const make = async () => {
    if (title.trim() === '' || making) return;
    setMaking(true);
    await onMake(title.trim(), form.trim() === '' ? null : form.trim());
    setMaking(false);
  };
  const enter = (event: { key: string }) => event.key === 'Enter' && void make();
  return (
    <Flex gap="12px" align="end" wrap="wrap" mb="12px">
      <Labelled label="Title of a new workspace">
        <Line
          width="240px"
          value={title}
          onChange={(event) => setTitle(event.target.value)}
          onKeyDown={enter}
        />
      </Labelled>
      <Labelled label="Title of its first form (optional)">
        <Line
          width="220px"
          value={form}
          onChange={(event) => setForm(event.target.value)}
          onKeyDown={enter}
        />
      </Labelled>
      <Button look="go" disabled={title.trim() === '' || making} onClick={() => void make()}>
        Make workspace
      </Button>
      <input
        ref={zip}
        type="file"
        accept=".zip,application/zip"
        aria-label="Zip of a workspace folder"
        hidden
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file !== undefined)
            void onZip(file).finally(() => {
              target.value = '';
            });
        }}
      />
      <Button onClick={() => zip.current?.click()}>From a zip…</Button>
    </Flex>
  );
}
