/** Editing scenarios by hand: steps that are added, and tables of cases. */
import { fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, VISIT } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { button, lookup } from '../../../../tests/support/forms';
import type { Service } from '@/core/form/service';
import type { Scenario, ScenarioStep } from '@/core/scenario/definition';
import { CasesTable } from './cases';
import { AddStep } from './step-line';

afterEach(() => vi.unstubAllGlobals());

const ASKS = 'on.load(async () => { await services.register.find({ code: "x" }); });';

function steps(form = VISIT, services: Service[] = []) {
  const { bench } = benchOf({ form, services, behaviours: { '10-a.ts': ASKS } });
  const add = vi.fn<(step: ScenarioStep) => void>();
  const { getByLabelText, unmount } = drawn(<AddStep bench={bench} onAdd={add} />);
  const list = getByLabelText('Add a step') as HTMLSelectElement;
  return {
    add,
    unmount,
    offered: [...list.options].map(({ value }) => value).filter(Boolean),
    choose: (key: string) => fireEvent.change(list, { target: { value: key } }),
  };
}

test('steps are offered where the form has what they are about', () => {
  const bare = steps();
  expect(bare.offered).toContain('set');
  expect(bare.offered).not.toContain('click');
  expect(bare.offered).not.toContain('answer');
  bare.unmount();
  const full = steps({ ...VISIT, buttons: [button('go')] }, [lookup]);
  expect(full.offered).toEqual(expect.arrayContaining(['set', 'click', 'answer']));
});

test('a step begins with the first that it can be about', () => {
  const { add, choose } = steps({ ...VISIT, buttons: [button('go'), button('stop')] }, [lookup]);
  choose('set');
  choose('click');
  choose('answer');
  expect(add.mock.calls.map(([step]) => step)).toEqual([
    { set: 'vessel', to: null },
    { click: 'go' },
    { answer: 'register.find', with: null },
  ]);
});

const TABLE: Scenario = {
  title: 'Masters',
  open: { as: 'mira' },
  steps: [],
  cases: {
    inputs: ['vessel'],
    expected: ['master.shown'],
    rows: [{ title: 'first', inputs: ['Tern'], expected: [true] }],
  },
};

function table(scenario: Scenario) {
  const { bench } = benchOf();
  const change = vi.fn<(scenario: Scenario, says: string) => void>();
  drawn(
    <CasesTable
      bench={bench}
      form={VISIT}
      name="masters"
      scenario={scenario}
      result={undefined}
      onChange={change}
    />,
  );
  return change;
}

test('inputs that are not there yet can be added to a table of cases, and cases', () => {
  const change = table(TABLE);
  const inputs = screen.getByLabelText<HTMLSelectElement>('Add an input');
  const keys = [...inputs.options].map(({ value }) => value);
  expect(keys).toContain('master');
  expect(keys).not.toContain('vessel');
  fireEvent.change(inputs, { target: { value: 'master' } });
  expect(change.mock.lastCall![0].cases!.inputs).toEqual(['vessel', 'master']);
  fireEvent.click(screen.getByRole('button', { name: '+ case' }));
  expect(change.mock.lastCall![1]).toBe('A case was added');
});
