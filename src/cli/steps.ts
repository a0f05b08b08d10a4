/** What `tavro play` and `tavro why` do: an opening and steps from a file, or a recording. */
import { readFileSync } from 'node:fs';
import type * as z from 'zod';
import { openingOf } from '../core/scenario/opening';
import type { Opening, TimedStep } from '../core/session/step';
import { PlayInput } from '../core/workspace/schemas';
import { BrokenWorkspace, type Workspace, type WorkspaceForm } from '../core/workspace/workspace';
import { readJson, type FileError } from '../core/workspace/json';
import { castOf, InvalidCall, formOf, open, type Call } from './call';
import { textError } from './text-error';

export interface Done {
  workspace: Workspace;
  entry: WorkspaceForm;
  opening: Opening;
  steps: readonly TimedStep[];
}

/** Reads what the call names. Throws InvalidCall and BrokenWorkspace. */
export function readDone(call: Call): Done {
  if (call.steps === undefined)
    throw new InvalidCall('say with --steps which file holds the steps, or - for standard input.');
  const workspace = open(call);
  const input = readInput(call.steps);
  if ('opening' in input) {
    const entry = formOf({ ...call, form: call.form ?? input.form }, workspace);
    if (entry.form.name !== input.form)
      throw new InvalidCall(
        `${'recording' in input ? 'the recording' : 'what is to be played'} is of the form ${input.form}, not of ${call.form}.`,
      );
    return { workspace, entry, opening: input.opening, steps: input.steps };
  }
  const entry = formOf(call, workspace);
  const { open: how, steps } = Array.isArray(input)
    ? { open: { as: workspace.people[0]!.key }, steps: input }
    : input;
  return {
    workspace,
    entry,
    opening: openingOf(how, entry.form, castOf(workspace, entry)),
    steps,
  };
}

function readInput(file: string): z.infer<typeof PlayInput> {
  let text: string;
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (caught) {
    throw new InvalidCall(textError(file, caught));
  }
  const errors: FileError[] = [];
  const input = readJson(file === '-' ? 'standard input' : file, text, PlayInput, errors);
  if (input === null) throw new BrokenWorkspace(errors);
  return input;
}
