/** The language worker by its messages: what a page sends and gets. */
import { expose, wrap, type Remote } from 'comlink';
import { expect, test } from 'vitest';
import { demo } from '../../tests/support/demo-language';
import { compilerCalls, type CompilerCalls } from './compiler-serve';
import { languageCalls, type LanguageCalls } from './language-serve';

/** A worker as it is reached from outside: what is given and answered goes through a port. */
function reached<F extends LanguageCalls | CompilerCalls>(offered: F): Remote<F> {
  const { port1, port2 } = new MessageChannel();
  expose(offered, port1);
  return wrap<F>(port2);
}

const surfaceOf = (form: string) => {
  const { tables, services, roles, forms } = demo;
  return { form: forms.find((one) => one.form.name === form)!.form, tables, services, roles };
};

test('checks, completes and explains what it was given last', async () => {
  const worker = reached(languageCalls());
  await worker.surround(surfaceOf('vessel'));
  const source = { name: 'x.ts', text: 'on.load(() => log(fields.draugt.value));' };
  expect(await worker.diagnose(source)).toMatchObject([
    { line: 1, says: 'There is no field "draugt". Did you mean draught?' },
  ]);
  expect(await worker.explain('x.ts', 15)).toMatchObject({
    signature: 'function log(...values: unknown[]): void',
    leads: false,
  });
  const better = { name: 'x.ts', text: 'on.load(() => log(fields.draught.value));' };
  const at = better.text.indexOf('draught');
  expect(await worker.diagnose(better)).toEqual([]);
  expect(await worker.define('x.ts', at)).toEqual({ is: 'part', part: 'draught' });
  expect(await worker.complete(better, at)).toContainEqual(
    expect.objectContaining({ label: 'draught' }),
  );
  expect(await worker.format(better, 0)).toEqual({ text: `${better.text}\n`, position: 0 });
  expect(await worker.map()).toMatchObject({
    behaviours: [{ name: 'x.ts' }],
    reads: [{ part: 'draught' }],
  });
  await worker.remove('x.ts');
  expect(await worker.map()).toMatchObject({ behaviours: [] });
  expect(await worker.idleParts()).toContainEqual(expect.objectContaining({ part: 'look_up' }));
});

test('completes what is asked at a line with the names in sight there, and leaves the script as it was', async () => {
  const worker = reached(languageCalls());
  await worker.surround(surfaceOf('vessel'));
  const source = {
    name: 'x.ts',
    text: 'on.load(() => {\n  const size = fields.length.value ?? 0;\n  log(size);\n});',
  };
  await worker.diagnose(source);
  const labels = async (of: typeof source | null, line: number, expression: string) =>
    (await worker.completeAsked(of, line, expression)).map(({ label }) => label);
  expect(await labels(source, 3, 'si')).toContain('size');
  expect(await labels(source, 3, 'fields.draught.')).toEqual(
    expect.arrayContaining(['value', 'shown']),
  );
  // Between runs the form alone is in sight.
  expect(await labels(null, 0, 'fields.')).toContain('draught');
  expect(await labels(null, 0, 'si')).not.toContain('size');
  expect(await labels(source, 99, 'fields.')).toEqual([]);
  expect(await worker.diagnose(source)).toEqual([]);
  expect(await worker.map()).toMatchObject({ behaviours: [{ name: 'x.ts' }] });
});

test('the compiler answers with what runs, or why nothing does', async () => {
  const compiler = reached(compilerCalls());
  expect(await compiler.compile({ name: 'x.ts', text: 'on.load(() => log(1));' })).toMatchObject({
    name: 'x',
    failure: null,
  });
  expect(await compiler.compile({ name: 'x.ts', text: 'on.load(() => ' })).toMatchObject({
    code: null,
    failure: { code: 'syntax', line: 1 },
  });
});

test('what is not of the shape that a function takes is refused, and the worker goes on', async () => {
  const worker = reached(languageCalls());
  const { fly, diagnose } = worker as unknown as Record<string, (of: unknown) => Promise<unknown>>;
  await expect(fly!('x')).rejects.toThrow();
  await expect(diagnose!('x')).rejects.toThrow('expected object');
  await expect(worker.rename('x.ts', 0, 'not a name')).rejects.toThrow('pattern');
  await worker.surround(surfaceOf('vessel'));
  expect(await worker.diagnose({ name: 'x.ts', text: 'on.load(() => log(1));' })).toEqual([]);
});
