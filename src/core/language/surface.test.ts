/** The typings describe what the session makes, no more and no less. */
import { expect, test } from 'vitest';
import {
  berths,
  button,
  choice,
  choices,
  date,
  datetime,
  file,
  formWith,
  lookup,
  money,
  number,
  page,
  reference,
  rows,
  section,
  text,
  time,
  track,
  yesNo,
} from '../../../tests/support/forms';
import { direct } from '../../../tests/support/hosts';
import { libs } from './generated/libs';
import { FormLanguage } from './language-service';

const fields = [
  text('note'),
  number('length'),
  money('dues'),
  date('arrival'),
  yesNo('power'),
  choice('pilot', ['own']),
  reference('berth', 'berths'),
  time('at'),
  datetime('moment'),
  choices('extras', ['water']),
  file('papers'),
];
const cargo = rows('cargo', [text('goods'), number('weight'), choices('marks', ['wet'])]);
const form = {
  ...formWith([]),
  pages: [page('main', [section('stay', [...fields, cargo])])],
  buttons: [button('go')],
  tracks: [track('visit', ['planned', 'done'])],
};
const setting = { form, tables: [berths], services: [lookup] };

const language = new FormLanguage(libs);
language.surround({ ...setting, roles: [{ key: 'clerk', label: 'Clerk' }] });

function typed(expression: string): string[] {
  const source = `on.load(() => { ${expression}.`;
  language.put({ name: 'x.ts', text: source });
  return language
    .complete('x.ts', source.length)
    .map(({ label }) => label)
    .sort();
}

function made(expression: string): string[] {
  const { opened } = direct({
    ...setting,
    scripts: {
      a: `on.load(() => { const names: string[] = []; for (const name in ${expression}) names.push(name); log(names); });`,
    },
  });
  return (opened.log[0]!.values[0] as string[]).toSorted();
}

test('each field has what its typing says, and together the typings say all a field has', () => {
  const all = new Set<string>();
  for (const { name } of fields) {
    const names = typed(`fields.${name}`);
    expect(names.filter((member) => !made(`fields.${name}`).includes(member))).toEqual([]);
    for (const member of names) all.add(member);
  }
  expect([...all].sort()).toEqual(made('fields.note'));
});

test.each([
  'sections.stay',
  'pages.main',
  'tracks.visit',
  'buttons.go',
  'form',
  'on',
  'checks',
  'tables.berths',
  'services.register',
  'fields',
  'fields.cargo',
  'fields.cargo.each',
  'fields.cargo.add()',
  'fields.cargo.add().fields',
  'sections',
  'pages',
  'tracks',
  'buttons',
  'services',
  'tables',
])('%s is the same typed and made', (expression) => {
  expect(made(expression)).toEqual(typed(expression));
});
