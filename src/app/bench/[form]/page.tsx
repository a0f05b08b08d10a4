import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import type { Form } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import type { Service } from '@/core/form/service';
import type { Table } from '@/core/form/table';
import { scriptsOf } from '@/core/script/of-form';
import { isModule } from '@/core/script/script-name';
import { isName } from '@/core/form/name';
import type { Open } from '@/core/scenario/definition';
import type { FormRecords } from '@/core/scenario/opening';
import { castOf, openOf } from '@/core/scenario/recorded';
import type { Recording } from '@/core/scenario/recording';
import { compiled, compiledServices } from '@/server/machines/compiled';
import { folderState } from '@/server/folders/live';
import { currentWorkspace } from '@/server/database/current-workspace';
import { idOf, readRecording } from '@/server/releases/recordings';
import { newestNumber, releaseNumbered, type Release } from '@/server/releases/releases';
import { readDocument } from '@/server/revisions/documents';
import {
  readBehaviours,
  readShared,
  readCast,
  readForm,
  readForms,
  readHead,
  readScenarios,
  readServices,
  readTables,
} from '@/server/content/read';
import { BenchPage } from '@/ui/bench/bench-page';
import { foundIn } from '@/server/searches/searches';
import type { BenchPlace } from '@/ui/bench/common/material';
import { ServerData } from '@/ui/server-data';
import { drawn, titled } from '@/app/drawn';

export const dynamic = 'force-dynamic';

type Query = Record<string, string | string[] | undefined>;

interface Props {
  params: Promise<{ form: string }>;
  searchParams: Promise<Query>;
}

export function generateMetadata({ params }: Props): Promise<Metadata> {
  return titled(async () => {
    const form = await readForm((await params).form);
    return { title: form === null ? 'No such form' : form.title };
  });
}

/** The bench of a form. `record`, `parent` (`form/record`) and `launch.NAME` say how it is opened at first; `behaviour` and `line`, `part`, `scenario` or `finding` what is looked at; `structure` a part whose label is to be written. `recording` is a kept filling-in to play, in its release or, with `code=today`, with the code of today. */
export default function Page({ params, searchParams }: Props) {
  return drawn(async () => {
    const { form: name } = await params;
    const definition = await readDocument({ kind: 'form', name });
    if (definition === null) notFound();
    const query = await searchParams;
    const recording = await recordingIn(query, name);
    if (recording === 'none') notFound();
    const wanted = wantedBy(query);
    const [head, of, scenarios, release, all] = await Promise.all([
      readHead(),
      recording?.release == null ? asToday(definition) : asReleased(recording.release),
      readScenarios(name),
      newestNumber(name),
      readForms(),
    ]);
    const [cast, scripts, answering, found] = await Promise.all([
      readCast(name, scenarios, wanted),
      compiled(of.behaviours, 'traced'),
      compiledServices(of.services),
      recording?.release == null ? foundIn(name) : [],
    ]);
    const material = {
      title: head.title,
      roles: head.roles,
      form: of.form,
      revision: of.revision,
      tables: of.tables,
      services: of.services,
      ...(recording === null
        ? { people: head.people, ...cast }
        : castOf(recording.content.opening, { people: head.people, ...cast })),
      others: all.map((form) => ({
        name: form.name,
        title: form.title,
        fields: fieldsOf(form).map(({ name: key, label }) => ({ key, label })),
      })),
      behaviours: of.behaviours.map((behaviour, i) => ({ ...behaviour, compiled: scripts[i]! })),
      answering,
      // Scenarios are of the form as it is today.
      scenarios: recording?.release == null ? scenarios : [],
      found,
      release: release?.number ?? null,
      live: recording?.release == null && folderState(currentWorkspace()) !== null,
      recording:
        recording === null ? null : { ...recording, release: recording.release?.number ?? null },
    };
    const opened =
      recording === null ? openedBy(query, wanted, material) : openOf(recording.content.opening);
    return (
      <ServerData>
        <BenchPage
          // Another recording, or the same with other code, is another session.
          key={
            material.recording === null
              ? ''
              : `${material.recording.id} ${material.recording.release}`
          }
          material={material}
          opened={opened}
          at={placeIn(query)}
        />
      </ServerData>
    );
  });
}

/** Loads what the bench edits and runs: the form, its behaviours, and the tables and services they use. */
interface OnBench {
  form: Form;
  revision: number;
  tables: Table[];
  services: Service[];
  behaviours: { name: string; text: string; revision: number }[];
}

async function asToday(definition: { content: Form; revision: number }): Promise<OnBench> {
  const [tables, services, own, shared] = await Promise.all([
    readTables(),
    readServices(),
    readBehaviours(definition.content.name),
    readShared(),
  ]);
  // With every module, since any can be imported as soon as it is named.
  const modules = shared.filter((script) => isModule(script.name));
  return {
    form: definition.content,
    revision: definition.revision,
    tables,
    services,
    behaviours: [...new Set([...scriptsOf(definition.content, own, shared), ...modules])],
  };
}

/** As it was released, to be looked at alone: a revision that nothing has, so that nothing saved from it would be taken. */
function asReleased({ material, sources }: Release): OnBench {
  return {
    form: material.form,
    revision: 0,
    tables: [...material.tables],
    services: [...material.services],
    behaviours: sources.map(({ name, text }) => ({ name, text, revision: 0 })),
  };
}

/** The recording that a query names, with its release unless today's code is asked for; `none` for one that is not there. */
async function recordingIn(
  { recording, code }: Query,
  form: string,
): Promise<{ id: number; content: Recording; release: Release | null } | 'none' | null> {
  if (recording === undefined) return null;
  const id = typeof recording === 'string' ? idOf(recording) : null;
  const content = id === null ? null : await readRecording(id);
  if (content === null || content.form !== form) return 'none';
  const release =
    content.release === null || code === 'today'
      ? null
      : await releaseNumbered(form, content.release);
  return { id: id!, content, release };
}

/** What a query leads to: `behaviour` and `line`, `part` or `structure`, `scenario`, `finding`, `faults` (the list of them) or `changes`. */
function placeIn(query: Query): BenchPlace {
  if (typeof query.behaviour === 'string')
    return {
      is: 'line',
      behaviour: query.behaviour,
      line: Math.max(1, Math.trunc(Number(query.line)) || 1),
    };
  if (typeof query.structure === 'string')
    return { is: 'part', part: query.structure, atLabel: true };
  if (typeof query.part === 'string') return { is: 'part', part: query.part };
  if (typeof query.finding === 'string') return { is: 'finding', key: query.finding };
  if (query.faults !== undefined) return { is: 'finding', key: null };
  if (query.changes !== undefined) return { is: 'changes' };
  return typeof query.scenario === 'string' ? { is: 'scenario', name: query.scenario } : null;
}

interface Wanted {
  record?: string;
  parent?: { form: string; record: string };
}

/** The records that a query asks for. */
function wantedBy({ record, parent }: Query): Wanted {
  const [form, id] = typeof parent === 'string' ? parent.split('/') : [];
  return {
    ...(typeof record === 'string' ? { record } : {}),
    ...(form === undefined || id === undefined ? {} : { parent: { form, record: id } }),
  };
}

/** What of a query can be: a record and a parent that are there, and launch parameters with technical names. */
function openedBy(
  query: Query,
  { record, parent }: Wanted,
  material: { records: readonly { id: string }[]; forms: readonly FormRecords[] },
): Partial<Open> {
  const launch = Object.fromEntries(
    Object.entries(query).flatMap(([key, value]) =>
      key.startsWith('launch.') && isName(key.slice(7)) && typeof value === 'string'
        ? [[key.slice(7), value]]
        : [],
    ),
  );
  const isThere =
    material.forms
      .find((one) => one.form.name === parent?.form)
      ?.records.some(({ id }) => id === parent?.record) === true;
  return {
    ...(material.records.some(({ id }) => id === record) ? { record: record! } : {}),
    ...(Object.keys(launch).length > 0 ? { launch } : {}),
    ...(isThere ? { parent: parent! } : {}),
  };
}
