import { search } from '../../../src/core/explore/search';
import type { Ground } from '../../../src/core/explore/ground';
import { mentionsOf } from '../../../src/core/explore/mentions';
import { materialOf } from '../../../src/core/language/material';
import { stageOf } from '../../support/stage';
import { FORMS, PEOPLE, RECORDS, SERVICES, TABLES, type FormName } from './forms';
import { faults } from './corpus';
import { mendedOf } from './fault';
import { rightOnes } from './right';
const N = Number(process.argv[2] ?? 1200);
const half = process.argv[3] ?? 'tune';
const only = process.argv[4];
const cpu = () => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1e6;
};
export async function run(form: FormName, text: string, seed = 1) {
  const sources = [{ name: 'x.ts', text: `/** X: x. */\n${text}\n` }];
  const around = { tables: TABLES, services: SERVICES };
  const ground: Ground = {
    form: FORMS[form],
    ...around,
    sources,
    people: PEOPLE,
    records: RECORDS[form] ?? [],
    clock: Date.parse('2031-05-02T09:00:00Z'),
  };
  return search(ground, mentionsOf(sources), await stageOf(materialOf(FORMS[form], around, sources, 'traced')), {
    seed,
    sessions: N,
  });
}
const show = (f: any) =>
  `${f.level} ${f.kind} ${f.part}.${f.aspect} @${f.lines.map((l: any) => l.line)} | ${f.says.slice(0, 150)} | ${JSON.stringify(f.way.steps).slice(0, 160)} /// ${JSON.stringify(f.other?.steps ?? null).slice(0, 100)} ${f.way.opening.record?.id ?? 'new'} ${f.way.opening.person.key}`;
let found = 0,
  may = 0,
  n = 0,
  noisy = 0,
  time = 0,
  sessions = 0;
const seen = new Map<string, number>();
const list: string[] = [];
const every = Number(process.env.EVERY ?? 1);
let nth = 0;
for (const f of faults) {
  const i = seen.get(f.group) ?? 0;
  seen.set(f.group, i + 1);
  if (half === 'tune' ? i % 2 === 1 : half === 'aside' ? i % 2 === 0 : false) continue;
  if (f.shows !== 'use' && process.argv[5] !== 'source') continue;
  if (only && !f.about.includes(only)) continue;
  if (nth++ % every !== Number(process.env.SHARD ?? 0)) continue;
  const t = cpu();
  const a = await run(f.form, f.faulty);
  time += cpu() - t;
  sessions += a.sessions;
  n++;
  const b = await run(f.form, mendedOf(f));
  const key = (x: any) => `${x.kind} ${x.part}.${x.aspect}`;
  const twin = new Set(b.findings.filter((x) => x.level === 'wrong').map(key));
  const mine = a.findings.filter((x) => x.level === 'wrong' && !twin.has(key(x)));
  if (mine.length) found++;
  else {
    const m = a.findings.filter((x) => x.level === 'may');
    if (m.length) may++;
    list.push(
      `MISSED ${f.group}: ${f.about}` +
        m
          .slice(0, 4)
          .map((x) => '\n      ' + show(x))
          .join(''),
    );
  }
  if (twin.size) {
    noisy++;
    list.push(
      `TWIN ${f.group}: ${f.about}` +
        b.findings
          .filter((x) => x.level === 'wrong')
          .map((x) => '\n      ' + show(x))
          .join(''),
    );
  }
  if (only)
    list.push(
      ...a.findings.map((x) => '  F ' + show(x)),
      ...b.findings.map((x) => '  M ' + show(x)),
    );
}
if (half === 'right' || half === 'tune') {
  let i = 0;
  let rn = 0;
  for (const r of rightOnes) {
    if (rn++ % every !== Number(process.env.SHARD ?? 0)) continue;
    if (only && !r.about.includes(only)) continue;
    void i;
    const a = await run(r.form, r.code);
    const w = a.findings.filter((x) => x.level === 'wrong');
    if (w.length) list.push(`RIGHT ${r.about}` + w.map((x) => '\n      ' + show(x)).join(''));
  }
}
console.log(list.join('\n'));
console.log(
  half,
  `found ${found} of ${n}, may ${may} more, twins noisy ${noisy}; ${(time / n).toFixed(2)} s cpu each, ${Math.round(sessions / time)} sessions/s`,
);
