/** `tavro both-ways`: each option and back again, on new and saved forms, at load and by hand. */
import { untilDone } from '../core/sandbox/cut-short';
import { takingPart } from '../core/script/header';
import { scriptsOf } from '../core/script/of-form';
import { namesFor } from '../core/tape/words';
import {
  bothWays as tryBothWays,
  contextsOf,
  drivingFields,
  findingInWords,
  grouped,
  openingInWords,
  type Grouped,
} from '../core/testing/both-ways';
import { spread } from '../core/testing/spread';
import { Cache } from './cache';
import {
  castOf,
  enginesFor,
  formsOf,
  load,
  open,
  withEngines,
  type Call,
  type Command,
} from './call';
import { progress } from './progress-line';
import { onOneLine, print } from './print';

async function run(call: Call): Promise<number> {
  const workspace = open(call);
  const forms = formsOf(call, workspace);
  const found: { form: string; findings: Grouped[] }[] = [];
  for (const entry of forms) {
    const cast = castOf(workspace, entry);
    const sources = takingPart(scriptsOf(entry.form, entry.behaviours, workspace.shared));
    const ground = {
      form: entry.form,
      source: workspace,
      cast,
      tables: workspace.tables,
      sources,
    };
    const pieces = drivingFields(entry.form, sources)
      .filter(({ name }) => call.part === undefined || call.part.split(',').includes(name))
      .flatMap((field) => contextsOf(cast, field).map((from) => ({ field, from })));
    if (pieces.length === 0) continue;
    const shown = progress(entry.form.name, pieces.length);
    const findings = await withEngines(enginesFor(pieces.length), async (engines) => {
      await Promise.all(
        engines.map((engine) => load(engine, new Cache(), workspace, entry, 'untraced')),
      );
      const tried = await spread(engines, pieces, (engine, { field, from }) => {
        shown.at(field.name);
        return tryBothWays(field, from, ground, (opening, steps) =>
          untilDone(() => engine.play(opening, steps)),
        );
      });
      return tried.flat();
    });
    shown.end();
    found.push({ form: entry.form.name, findings: grouped(findings) });
  }
  if (call.reporter === 'json') print(`${JSON.stringify(found, null, 2)}\n`);
  else
    for (const { form, findings } of found) {
      const entry = forms.find((one) => one.form.name === form)!;
      const names = namesFor(entry.form, [], workspace.people);
      print(`${form}: ${findings.length === 0 ? 'nothing found' : `${findings.length} found`}\n`);
      for (const { finding, openings } of findings)
        print(
          `  ${onOneLine(findingInWords(finding, names.part))} (${openings.map((one) => openingInWords(one, workspace.people)).join('; ')})\n`,
        );
    }
  return found.some(({ findings }) => findings.length > 0) ? 1 : 0;
}

export const bothWays: Command = {
  says: 'Tries each option and back again, from each other option and for each set of roles, and lists what does not come back, differs at load, or throws.',
  options: {
    form: { value: 'FORM', says: 'only this form' },
    part: { value: 'LIST', says: 'only these fields' },
    reporter: { value: 'NAME', says: 'json for a machine to read' },
  },
  run,
};
