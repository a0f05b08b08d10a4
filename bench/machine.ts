/**
 * What a machine costs: the size of what it starts with, booting it, putting it back for an opening, and whether anything
 * grows over half a million steps, in the machine or around it.
 */
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { guest, temporal } from '../src/core/sandbox/generated/guest';
import { materialOf } from '../src/core/language/material';
import { startModule } from '../src/core/sandbox/quickjs';
import { Sandbox } from '../src/core/sandbox/sandbox';
import type { Opening, TimedStep } from '../src/core/session/step';
import { readFolder } from '../src/workers/files';
import { scriptsOf } from '../src/core/script/of-form';
import { readWorkspace } from '../src/core/workspace/workspace';

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;

const workspace = readWorkspace(readFolder('demo'));
const entry = workspace.forms[0]!;
const opening = (): Opening => ({
  person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
  record: null,
  launch: {},
  clock: 0,
  seed: 1,
  newId: 'new',
});
const median = (numbers: readonly number[]) =>
  [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)]!;
const timed = async (times: number, work: () => unknown): Promise<number> => {
  const taken: number[] = [];
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    await work();
    taken.push(performance.now() - start);
  }
  return Number(median(taken).toPrecision(3));
};

const first = await startModule();
const bare = await timed(5, async () => new Sandbox(await startModule(), { temporal: false }));
const whole = await timed(5, async () => new Sandbox(await startModule(), { temporal: true }));
const sandbox = new Sandbox(first, { temporal: true });
const material = materialOf(
  entry.form,
  workspace,
  scriptsOf(entry.form, entry.behaviours, workspace.shared),
  'untraced',
);
const load = await timed(9, () => sandbox.load(material));
const open = await timed(50, () => sandbox.open(opening()));
console.table({
  'guest, KB': { figure: Math.round(guest.length / 102.4) / 10 },
  'Temporal, KB (only where scripts name it)': { figure: Math.round(temporal.length / 102.4) / 10 },
  'boot with the WebAssembly module, ms': { figure: bare },
  'the same with Temporal, ms': { figure: whole },
  'loading the demo form’s behaviours, ms': { figure: load },
  'opening the demo form, ms': { figure: open },
});

const pilot = entry.behaviours.filter((behaviour) => behaviour.name === '20-pilot.ts');
const long = new Sandbox(await startModule(), { temporal: false });
long.load(materialOf(entry.form, workspace, pilot, 'untraced'));
long.open(opening());
const CHOICES = ['harbour_pilot', 'own', 'none'];
const step = (i: number): TimedStep =>
  i % 2 === 0
    ? { set: 'pilot_choice', to: CHOICES[(i / 2) % 3]! }
    : { set: 'vessel_kind', to: ['tanker', 'tug'][((i - 1) / 2) % 2]! };
const held: { steps: number; 'machine, KB': number; 'around it, KB': number }[] = [];
let done = 0;
for (const until of [1000, 10_000, 100_000, 250_000, 500_000]) {
  for (; done < until; done++) long.step(step(done));
  collect();
  held.push({
    steps: until,
    'machine, KB': Math.round(long.bytesUsed / 1024),
    'around it, KB': Math.round(process.memoryUsage().heapUsed / 1024),
  });
}
console.table(held);
