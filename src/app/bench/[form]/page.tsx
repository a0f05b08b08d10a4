import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { fieldsOf } from '@/core/form/fields';
import { scriptsOf } from '@/core/script/of-form';
import { isModule } from '@/core/script/script-name';
import { isName } from '@/core/form/name';
import type { Open } from '@/core/scenario/definition';
import type { FormRecords } from '@/core/scenario/opening';
import { compiled, compiledServices } from '@/server/compiled';
import { folderState } from '@/server/folders/live';
import { currentWorkspace } from '@/server/workspaces/current';
import { newestNumber } from '@/server/releases';
import { readDocument } from '@/server/revisions/documents';
import { here } from '@/server/workspaces/page';
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
} from '@/server/workspace/read';
import { Bench } from '@/ui/bench/bench';
import type { BenchPlace } from '@/ui/bench/state';
import { ServerData } from '@/ui/server-data';

export const dynamic = 'force-dynamic';

type Query = Record<string, string | string[] | undefined>;

interface Props {
  params: Promise<{ form: string }>;
  searchParams: Promise<Query>;
}

export function generateMetadata({ params }: Props): Promise<Metadata> {
  return here(async () => {
    const form = await readForm((await params).form);
    return { title: form === null ? 'No such form' : form.title };
  });
}

/** The bench of a form. `record`, `parent` (`form/record`) and `launch.NAME` say how it is opened at first; `behaviour` and `line`, `part` or `scenario` what is looked at; `structure` a part whose label is to be written. */
export default function BenchPage({ params, searchParams }: Props) {
  return here(async () => {
    const { form: name } = await params;
    const definition = await readDocument({ kind: 'form', name });
    if (definition === null) notFound();
    const query = await searchParams;
    const wanted = wantedBy(query);
    const [head, tables, services, own, shared, scenarios, release, all] = await Promise.all([
      readHead(),
      readTables(),
      readServices(),
      readBehaviours(name),
      readShared(),
      readScenarios(name),
      newestNumber(name),
      readForms(),
    ]);
    // With every module, since any can be imported as soon as it is named.
    const modules = shared.filter((script) => isModule(script.name));
    const behaviours = [...new Set([...scriptsOf(definition.content, own, shared), ...modules])];
    const [cast, scripts, answering] = await Promise.all([
      readCast(name, scenarios, wanted),
      compiled(behaviours, 'traced'),
      compiledServices(services),
    ]);
    const material = {
      title: head.title,
      roles: head.roles,
      people: head.people,
      form: definition.content,
      revision: definition.revision,
      tables,
      services,
      ...cast,
      others: all.map((form) => ({
        name: form.name,
        title: form.title,
        fields: fieldsOf(form).map(({ name: key, label }) => ({ key, label })),
      })),
      behaviours: behaviours.map((behaviour, i) => ({ ...behaviour, compiled: scripts[i]! })),
      answering,
      scenarios,
      release: release?.number ?? null,
      live: folderState(currentWorkspace()) !== null,
    };
    return (
      <ServerData>
        <Bench material={material} opened={openedBy(query, wanted, material)} at={placeIn(query)} />
      </ServerData>
    );
  });
}

/** What a query leads to: `behaviour` and `line`, `part` or `structure`, or `scenario`. */
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
