#!/usr/bin/env node
/**
 * `tavro`: the command line. Reads a workspace folder, runs it in the same sandbox as everything else, needs no
 * database and no browser. Exit codes: 0 all well, 1 an expectation failed or a fault was found, 2 the call or the
 * workspace is broken.
 */
import { parseArgs } from 'node:util';
import { BrokenWorkspace, faultInWords } from '../core/workspace/workspace';
import { NoSuchOpening } from '../core/scenario/opening';
import { check } from './check';
import { CallFault, type Call } from './call';
import { play } from './play';
import { test } from './test';
import { types } from './types';

const USAGE = `usage: tavro COMMAND DIR [options]

  test  DIR [--form F] [--scenario S] [--reporter spec|junit|tap|json]   runs the scenarios
             [--coverage FILE]                                           and writes the lines they reached as LCOV
  play  DIR --form F --steps FILE|- [--tape]                             opens the form, does the steps, prints what came out
  types DIR                                                              writes each form's typings and tsconfig.json
  types DIR --form F                                                     prints the form's typings
  check DIR [--form F]                                                   all problems, each as file:line:column

DIR is a workspace folder; docs/workspace.md says what is in one.
`;

const commands: Record<string, (call: Call) => Promise<number>> = { test, play, types, check };

async function main(argv: string[]): Promise<number> {
  const [command, ...rest] = argv;
  if (command === undefined || command === '--help' || command === '-h') {
    process.stdout.write(USAGE);
    return command === undefined ? 2 : 0;
  }
  const run = commands[command];
  if (run === undefined) throw new CallFault(`there is no command "${command}".\n\n${USAGE}`);
  return run(readCall(rest));
}

function readCall(rest: string[]): Call {
  try {
    const { values, positionals } = parseArgs({
      args: rest,
      allowPositionals: true,
      options: {
        form: { type: 'string' },
        scenario: { type: 'string' },
        steps: { type: 'string' },
        reporter: { type: 'string' },
        tape: { type: 'boolean' },
        coverage: { type: 'string' },
      },
    });
    const [folder, ...more] = positionals;
    if (folder === undefined || more.length > 0)
      throw new CallFault(`one workspace folder has to be named.\n\n${USAGE}`);
    return { folder, ...values };
  } catch (caught) {
    if (caught instanceof CallFault) throw caught;
    throw new CallFault(`${(caught as Error).message}\n\n${USAGE}`);
  }
}

// A reader that has seen enough, such as `head`, is no fault.
process.stdout.on('error', (error: { code?: string }) =>
  process.exit(error.code === 'EPIPE' ? 0 : 2),
);

main(process.argv.slice(2)).then(
  (code) => {
    // Not `process.exit`: what is still on its way into a pipe would be cut off.
    process.exitCode = code;
  },
  (error: unknown) => {
    if (error instanceof BrokenWorkspace)
      process.stderr.write(`${error.faults.map(faultInWords).join('\n')}\n`);
    else if (error instanceof CallFault || error instanceof NoSuchOpening)
      process.stderr.write(`tavro: ${error.message}\n`);
    else if (process.env.TAVRO_DEBUG !== undefined)
      process.stderr.write(
        `tavro: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`,
      );
    else
      process.stderr.write(
        `tavro: something went wrong that should not: ${error instanceof Error ? error.message : String(error)}. TAVRO_DEBUG=1 shows where.\n`,
      );
    process.exitCode = 2;
  },
);
