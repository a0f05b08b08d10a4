/**
 * The search against a corpus of faults (`finding/`): what is found in each, that its mended twin and behaviours that only
 * look wrong stay silent, and that what is found is there when it is played again. Every sixteenth case here, all of them in
 * `npm run attack`; the same seed finds the same each time.
 */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { KINDS, type Finding } from '../../src/core/explore/finding';
import { parentsOf, type Ground } from '../../src/core/explore/ground';
import { judged, meantIn } from '../../src/core/explore/meant';
import { mentionsOf } from '../../src/core/explore/mentions';
import { Checkpoints } from '../../src/core/explore/checkpoints';
import { Player } from '../../src/core/explore/play';
import { search } from '../../src/core/explore/search';
import { differencesOf } from '../../src/core/explore/state';
import { SEARCH_SESSIONS } from '../../src/core/limits';
import { FormSchema } from '../../src/core/form/definition';
import { materialOf } from '../../src/core/language/material';
import { DEFAULT_CLOCK } from '../../src/core/scenario/opening';
import { takingPart } from '../../src/core/script/header';
import { scriptsOf } from '../../src/core/script/of-form';
import { demo } from '../support/demo-language';
import { stageOf } from '../support/stage';
import { someOf, thorough } from '../support/thorough';
import { faults } from './finding/corpus';
import { mendedOf, type Fault } from './finding/fault';
import { FORMS, PARENTS, PEOPLE, RECORDS, SERVICES, TABLES, type FormName } from './finding/forms';
import { rightOnes } from './finding/right';

const SESSIONS = thorough ? 1000 : 600;
const EVERY = thorough ? 1 : 16;
const around = { tables: TABLES, services: SERVICES };

function groundOf(form: FormName, text: string) {
  const sources = [{ name: 'x.ts', text: `/** X: x. */\n${text}\n` }];
  const ground: Ground = {
    form: FORMS[form],
    ...around,
    people: PEOPLE,
    records: RECORDS[form] ?? [],
    parents: PARENTS[form] ?? [],
    clock: Date.parse(DEFAULT_CLOCK),
  };
  return { sources, ground, material: materialOf(FORMS[form], around, sources, 'traced') };
}

async function wrongIn(form: FormName, text: string): Promise<readonly Finding[]> {
  const { sources, ground, material } = groundOf(form, text);
  const options = { seed: 1, sessions: SESSIONS };
  const { findings } = search(ground, mentionsOf(sources), await stageOf(material), options);
  return findings.filter(({ level }) => level === 'wrong');
}

const inShort = ({ kind, part, aspect, says }: Finding) => `${kind} ${part}.${aspect}: ${says}`;

test('the corpus is large enough, and its forms are forms', () => {
  expect(faults.length).toBeGreaterThanOrEqual(120);
  expect(rightOnes.length).toBeGreaterThanOrEqual(40);
  expect(new Set(faults.map(({ about }) => about)).size).toBe(faults.length);
  for (const form of Object.values(FORMS)) expect(FormSchema.safeParse(form).error).toBeUndefined();
});

test('docs/finding.md names every kind of finding', () => {
  const page = readFileSync('docs/finding.md', 'utf8');
  expect(KINDS.filter((kind) => !page.includes(`\`${kind}\``))).toEqual([]);
});

const byUse = faults.filter(({ shows }) => shows === 'use');

/** What use can show and the search does not call wrong: that no input mends a computed value it only says may be so. */
const MISSED = ['a problem on what is computed, that no input can mend'];

describe.each(byUse.filter((_, i) => i % EVERY === 0))('$group: $about', (fault: Fault) => {
  test('is found, and not in its twin', async () => {
    const found = await wrongIn(fault.form, fault.faulty);
    const silent = await wrongIn(fault.form, mendedOf(fault));
    expect(silent.map(inShort)).toEqual([]);
    if (!MISSED.includes(fault.about)) expect(found.length).toBeGreaterThan(0);
  });

  test('what is found is there when it is played again', async () => {
    const { ground, material } = groundOf(fault.form, fault.faulty);
    for (const { kind, way, other, part, aspect } of await wrongIn(fault.form, fault.faulty)) {
      const stage = await stageOf(material);
      const player = new Player(
        ground.form,
        stage,
        new Checkpoints(),
        () => undefined,
        () => undefined,
      );
      const one = player.play(way.opening, way.steps);
      if (kind === 'throws' || kind === 'cycle') expect(one.failures).not.toEqual([]);
      if (other === null || kind === 'late-answer-overwrites' || kind === 'order-of-rows') continue;
      const differences = differencesOf(ground.form, one, player.play(other.opening, other.steps));
      expect(differences).toContainEqual(expect.objectContaining({ part, aspect }));
    }
  });
});

describe.each(rightOnes.filter((_, i) => i % EVERY === 0))('right: $about', ({ form, code }) => {
  test('nothing is called wrong', async () => {
    expect((await wrongIn(form, code)).map(inShort)).toEqual([]);
  });
});

test.each(someOf(demo.forms, 2))(
  'nothing is called wrong in $form.name of the demo',
  async (entry) => {
    const { form } = entry;
    const { tables, services, people } = demo;
    const sources = scriptsOf(form, entry.behaviours, demo.shared);
    const ground: Ground = {
      form,
      tables,
      services,
      people,
      records: entry.records.map(({ id, values }) => ({ id, values })),
      parents: parentsOf(form.name, demo.forms),
      clock: Date.parse(DEFAULT_CLOCK),
    };
    const material = materialOf(form, { tables, services }, sources, 'traced');
    // As many as `tavro find` plays: where fewer are, what one answer covers may be found by its other lines.
    const options = { seed: 1, sessions: SEARCH_SESSIONS };
    const { findings } = search(
      ground,
      mentionsOf(takingPart([...sources])),
      await stageOf(material),
      options,
    );
    const wrong = judged(findings, meantIn(sources)).findings.filter(
      ({ level }) => level === 'wrong',
    );
    expect(wrong.map(inShort)).toEqual([]);
  },
);
