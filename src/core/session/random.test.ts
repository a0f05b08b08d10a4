/**
 * A seeded random driver: random forms, scripts and steps, whatever people and behaviours come up with, hold the
 * invariants of the contract. A failing run prints its seed, its form, its scripts and its steps.
 */
import fc from 'fast-check';
import { beforeAll, expect, test } from 'vitest';
import { bootMachine, direct, inMachine, type Setting } from '../../../tests/support/hosts';
import type { Field } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Values } from '../form/value';
import { cellState } from '../scenario/seen';
import { shareOf } from '../../../tests/support/thorough';
import { anyUse } from '../../../tests/support/uses';

beforeAll(bootMachine);

const runs = (numRuns: number) => ({ seed: 20310502, numRuns: shareOf(numRuns) });

test('nothing hidden is checked, no row leaks, and a removed row’s state is gone', () => {
  fc.assert(
    fc.property(anyUse, ({ form, scripts, steps }) => {
      const open = direct({ form, scripts }, false);
      const list = fieldsOf(form).find((field) => field.name === 'list')! as Extract<
        Field,
        { kind: 'rows' }
      >;
      let before = 0;
      for (const step of steps) {
        const answer = open.do(step);
        const { seen } = open;
        for (const { part } of answer.submit?.stops ?? [])
          if (part !== null && open.part(part) !== undefined)
            expect(open.part(part).onScreen).toBe(true);
        const shown = seen.rows.list!;
        // Rows that are told are those in order, and each has a state of its own for every cell.
        expect(Object.keys(shown.byId).sort()).toEqual([...shown.order].sort());
        for (const id of shown.order) {
          const row = shown.byId[id]!;
          const number = row.values.n as number | null;
          const states = Object.fromEntries(
            list.fields.map((cell) => [cell.name, cellState(seen.parts.list!, row, cell)]),
          );
          if (Object.values(scripts).some((source) => source.includes('"y follows x"'))) {
            expect([states.y!.shown, states.y!.hint]).toEqual([
              row.values.x !== null,
              number === null ? null : String(number),
            ]);
          }
          if (Object.values(scripts).some((source) => source.includes('"problems"')))
            expect(states.n!.problem).toBe((number ?? 0) > 5 ? 'too many' : null);
        }
        // A person may write another total; once the sum changes, the rule that keeps it wins.
        const sum = shown.order.reduce(
          (all, id) => all + ((shown.byId[id]!.values.n as number | null) ?? 0),
          0,
        );
        const kept =
          Object.values(scripts).some((source) => source.includes('keep("total"')) &&
          answer.errors.every((error) => error.code !== 'cycle');
        if (kept && sum !== before) expect(open.value('total')).toBe(sum);
        before = sum;
      }
    }),
    runs(250),
  );
});

test('a failed handler left no trace: a session with it comes out as one without it, but for its errors', () => {
  const failing =
    'on.change(fields.a, () => { fields.b.value = null; fields.b.hint = "x"; fields.total.locked = true; fields.list.add({ n: 9 }); if (fields.list.count > 1) fields.list.remove(fields.list.rows[0]!); form.message("gone"); throw new Error("no"); });';
  fc.assert(
    fc.property(anyUse, ({ form, scripts, steps }) => {
      // Rows get their ids in order, so the two sessions are compared by what people see, not by ids.
      const look = (open: ReturnType<typeof direct>) => ({
        parts: open.seen.parts,
        rows: open.seen.rows.list!.order.map((id) => open.seen.rows.list!.byId[id]),
        page: open.seen.page,
        submit: open.seen.submit,
        changed: open.seen.changed,
      });
      const [plain, besides] = [
        direct({ form, scripts }, false),
        direct({ form, scripts: { ...scripts, '99-failing': failing } }, false),
      ];
      for (const step of steps) {
        const [one, other] = [plain.do(step), besides.do(step)];
        expect(other.messages).toEqual(one.messages);
        expect(other.refused).toBe(one.refused);
        expect(look(besides)).toEqual(look(plain));
      }
    }),
    runs(150),
  );
});

test('replays are equal, byte for byte, here and in the machine', () => {
  fc.assert(
    fc.property(anyUse, ({ form, scripts, steps }) => {
      const setting: Setting = { form, scripts };
      const tapes = [direct(setting), direct(setting), inMachine(setting)].map((open) => {
        for (const step of steps) open.do(step);
        return JSON.stringify(open.tape);
      });
      expect(tapes[1]).toBe(tapes[0]);
      expect(tapes[2]).toBe(tapes[0]);
    }),
    runs(40),
  );
});

test('a record saved and opened again shows the same values', () => {
  fc.assert(
    fc.property(anyUse, ({ form, steps }) => {
      const open = direct({ form }, false);
      for (const step of steps) open.do(step);
      const saved = open.do({ submit: true }).submit!;
      if (!saved.saved) return;
      const again = direct({ form, record: { id: '1', values: saved.values as Values } }, false);
      expect(again.do({ submit: true }).submit!.values).toEqual(saved.values);
      expect(again.seen.changed).toBe(false);
    }),
    runs(150),
  );
});
