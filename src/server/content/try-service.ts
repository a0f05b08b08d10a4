/** Trying a service on its page: what it answers to a call, in a machine like those that forms run in. */
import * as z from 'zod';
import type { Form } from '../../core/form/definition';
import type { Service } from '../../core/form/service';
import type { Values } from '../../core/form/value';
import { ValueSchema } from '../../core/session/schema';
import { CannotStart, wasCutShort } from '../../core/sandbox/cut-short';
import { compiledScripts, compiledServices } from '../machines/compiled';
import { CutShort } from '../http/refusal';
import { machines } from '../machines/server-pool';
import { currentWorkspace } from '../database/current-workspace';
import { readTables } from './read';

const TriedSchema = z.union([
  z.strictObject({ answers: ValueSchema }),
  z.strictObject({ fails: z.string() }),
]);
export type Tried = z.infer<typeof TriedSchema>;

/** A form of a button that asks and a field that takes what comes. */
const FORM: Form = {
  name: 'trial',
  title: 'Trial',
  pages: [
    {
      name: 'trial_page',
      title: 'Trial',
      sections: [
        {
          name: 'trial_section',
          title: 'Trial',
          fields: [{ kind: 'text', name: 'came', label: 'What came', scriptOnly: true }],
        },
      ],
    },
  ],
  buttons: [{ name: 'ask', label: 'Ask' }],
};

/** Calls a function of a service as it is being edited. Throws CutShort where no machine was free. */
export async function tryService(service: Service, called: string, given: Values): Promise<Tried> {
  const ask = `services.${service.name}.${called}(${Object.keys(given).length === 0 ? '' : JSON.stringify(given)})`;
  const text = `on.click(buttons.ask, async () => {
  try {
    fields.came.value = JSON.stringify({ answers: await ${ask} });
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    fields.came.value = JSON.stringify({ fails: error.reason });
  }
});`;
  const services = [service];
  const [compiled, answering, tables] = await Promise.all([
    compiledScripts([{ name: '10-trial.ts', text }], 'untraced'),
    compiledServices(services),
    readTables(),
  ]);
  const material = { form: FORM, tables, services, answering, ...compiled, traced: false };
  const form = `${currentWorkspace().schema}: a service`;
  try {
    const answers = await machines().play(
      // What is tried once is not kept for the next.
      { id: `${form} ${crypto.randomUUID()}`, form, material },
      {
        person: { key: 'somebody', name: 'Somebody', roles: [] },
        record: null,
        launch: {},
        clock: Date.now(),
        seed: 1,
        newId: 'trial',
      },
      [{ click: 'ask' }, { answer: `${service.name}.${called}`, usual: true }, { submit: true }],
    );
    const [error] = answers.flatMap(({ errors }) => errors);
    const came = answers.at(-1)?.submit?.values.came;
    return typeof came === 'string' ? read(came) : { fails: error?.says ?? 'It did not answer.' };
  } catch (caught) {
    if (caught instanceof CannotStart || wasCutShort(caught))
      throw new CutShort(10, 'The server was too busy to try it, or the script takes too long.');
    throw caught;
  }
}

/** What the trial wrote down; a script may have got at how it is spelled. */
function read(came: string): Tried {
  try {
    return TriedSchema.parse(JSON.parse(came));
  } catch {
    return { fails: 'What it answered cannot be read.' };
  }
}
