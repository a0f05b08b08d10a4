/**
 * The demo's dues against a table worked out by hand. The tariff, its rates and this table are invented: a rate for
 * each kind of vessel, by metre and day, a tenth less from the eighth day on, rounded to hundredths.
 */
import { beforeAll, expect, test } from 'vitest';
import { scriptsOf } from '../../src/core/script/of-form';
import { readWorkspace } from '../../src/core/workspace/workspace';
import { readFolder } from '../../src/workers/files';
import { bootMachine, inMachine } from '../support/hosts';

beforeAll(bootMachine);

const { forms, tables, services, shared } = readWorkspace(readFolder('demo'));
const { form, behaviours } = forms.find((one) => one.form.name === 'berth_visit')!;
const scripts = Object.fromEntries(
  scriptsOf(form, behaviours, shared).map(({ name, text }) => [name.replace(/\.ts$/, ''), text]),
);

test.each([
  // kind, length in m, arrival, departure, days, lines, dues
  ['coaster', 80, '2031-05-03', '2031-05-03', [[1, 68]], 68],
  ['coaster', 80, '2031-05-03', '2031-05-09', [[7, 476]], 476],
  [
    'coaster',
    80,
    '2031-05-03',
    '2031-05-10',
    [
      [7, 476],
      [1, 61.2],
    ],
    537.2,
  ],
  ['coaster', 78.4, '2031-04-12', '2031-04-14', [[3, 199.92]], 199.92],
  ['bulk', 168, '2031-04-15', '2031-04-21', [[7, 1293.6]], 1293.6],
  [
    'tanker',
    112.5,
    '2031-02-25',
    '2031-03-06',
    [
      [7, 1063.13],
      [3, 410.06],
    ],
    1473.19,
  ],
  [
    'survey',
    38.5,
    '2028-02-26',
    '2028-03-04',
    [
      [7, 161.7],
      [1, 20.79],
    ],
    182.49,
  ],
])('a %s of %d m from %s to %s', (kind, length, arrival, departure, lines, dues) => {
  const use = inMachine({ form, tables, services, scripts });
  for (const [set, to] of Object.entries({ vessel_kind: kind, length, arrival, departure }))
    use.do({ set, to });
  expect([use.value('tariff'), use.value('dues')]).toEqual([
    (lines as [number, number][]).map(([days, amount], i) => ({
      item: i === 0 ? 'Days at the full rate' : 'Further days, a tenth less',
      days,
      amount,
    })),
    dues,
  ]);
});
