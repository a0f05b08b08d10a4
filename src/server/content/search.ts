/** Searching every script of the workspace, of behaviours and of services. */
import type { Hit, Query, Searched } from '../../core/language/search';
import { Refusal } from '../http/refusal';
import { task } from '../machines/tasks';
import { readReach } from './read';

/** Throws a Refusal (400) for a pattern that is none, and for one that takes too long. */
export async function searchScripts(query: Query): Promise<Hit[]> {
  const { forms, services, shared } = await readReach();
  const behaviours = forms.flatMap(({ form, behaviours: all }) =>
    all.map(({ name, text }): Searched => ({ form: form.name, name, text })),
  );
  const answering = services.flatMap((service) =>
    Object.entries(service.functions).flatMap(([name, { answers }]): Searched[] =>
      answers.from === 'script'
        ? [{ form: null, name: `${service.name}.${name}`, text: answers.script }]
        : [],
    ),
  );
  try {
    return await task('search', {
      scripts: [...behaviours, ...shared.map((one) => ({ form: '', ...one })), ...answering],
      query,
    });
  } catch (caught) {
    if (caught instanceof Refusal && caught.status === 422)
      throw new Refusal(400, `“${query.wanted}” cannot be searched for: ${caught.message}`);
    throw caught;
  }
}
