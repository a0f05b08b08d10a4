/**
 * `tavro`: the command line. Reads a workspace folder, runs it in the same sandbox as everything else, needs no
 * database and no browser. Exit codes: 0 all well, 1 an expectation failed or an error was found, 2 the call or the
 * workspace is broken.
 */
import '../workers/brief';
import { parseArgs } from 'node:util';
import { check } from './check';
import { compare } from './compare';
import { diff } from './diff';
import { errorInWords } from './error';
import { pull, push } from './exchange';
import { find } from './find';
import { format } from './format';
import { grid } from './grid';
import { mutate } from './mutate';
import { create } from './new';
import { InvalidCall, type Call, type Command, type Option } from './call';
import { play } from './play';
import { test } from './test';
import { types } from './types';
import { why } from './why';
import { worker } from './worker';
import { complain, print } from './print';

const COMMANDS: Readonly<Record<string, Command>> = {
  new: create,
  test,
  grid,
  mutate,
  play,
  why,
  types,
  check,
  find,
  compare,
  format,
  diff,
  pull,
  push,
  worker,
};

const columns = (rows: readonly (readonly [string, string])[]): string => {
  const width = Math.max(...rows.map(([left]) => left.length));
  return rows.map(([left, right]) => `  ${left.padEnd(width)}  ${right}\n`).join('');
};

function usage(): string {
  const rows = Object.entries(COMMANDS).map(([name, { says }]) => [name, says] as const);
  return `usage: tavro COMMAND DIR [options]\n\n${columns(rows)}\nDIR is a workspace folder; docs/workspace.md says what is in one.\ntavro COMMAND --help says what a command takes.\n`;
}

const ONE = ['DIR'] as const;

function usageOf(name: string, { says, options, folders = ONE }: Command): string {
  const rows = Object.entries(options).map(
    ([option, { value, says: what }]) =>
      [`--${option}${value === undefined ? '' : ` ${value}`}`, what] as const,
  );
  const takes = rows.length === 0 ? '' : `\n${columns(rows)}`;
  return `usage: tavro ${name} ${folders.join(' ')}${rows.length === 0 ? '' : ' [options]'}\n\n${says}\n${takes}`;
}

async function main([name, ...rest]: string[]): Promise<number> {
  if (name === undefined || name === '--help' || name === '-h') {
    print(usage());
    return name === undefined ? 2 : 0;
  }
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name]! : null;
  if (command === null) throw new InvalidCall(`there is no command "${name}".\n\n${usage()}`);
  if (rest.includes('--help') || rest.includes('-h')) {
    print(usageOf(name, command));
    return 0;
  }
  return command.run(readCall(name, command, rest));
}

function readCall(name: string, command: Command, rest: string[]): Call {
  const wrong = (says: string) => new InvalidCall(`${says}\n\n${usageOf(name, command)}`);
  const { tokens, values, positionals } = parseArgs({
    args: rest,
    allowPositionals: true,
    strict: false,
    tokens: true,
    options: Object.fromEntries(
      Object.entries(command.options).map(([option, { value }]) => [
        option,
        { type: value === undefined ? ('boolean' as const) : ('string' as const) },
      ]),
    ),
  });
  const seen = new Set<string>();
  for (const token of tokens) {
    if (token.kind !== 'option') continue;
    const option = (command.options as Record<string, Option>)[token.name];
    if (option === undefined) throw wrong(`tavro ${name} takes no ${token.rawName}.`);
    if (option.value === undefined && token.value !== undefined)
      throw wrong(`${token.rawName} takes no value.`);
    if (option.value !== undefined && (token.value === undefined || token.value === ''))
      throw wrong(`${token.rawName} needs a value: ${token.rawName} ${option.value}.`);
    if (seen.has(token.name)) throw wrong(`${token.rawName} is there twice.`);
    seen.add(token.name);
  }
  // The other one is the same folder in another revision.
  const length = (command.folders ?? ONE).length - (values.git === undefined ? 0 : 1);
  if (positionals.length !== length)
    throw wrong(
      length === 0
        ? `tavro ${name} takes no folder.`
        : length === 1
          ? 'One workspace folder has to be named.'
          : 'Two workspace folders have to be named.',
    );
  const [folder, other] = positionals;
  return { folder: folder!, other, ...(values as Omit<Call, 'folder' | 'other'>) };
}

/** Runs a command line to its end and sets the exit code. */
export function runCommandLine(given: string[]): Promise<void> {
  // A reader that has seen enough, such as `head`, is no error.
  process.stdout.on('error', (error: { code?: string }) =>
    process.exit(error.code === 'EPIPE' ? 0 : 2),
  );
  return main(given).then(
    (code) => {
      // Not `process.exit`: what is still on its way into a pipe would be cut off.
      process.exitCode = code;
    },
    (error: unknown) => {
      complain(errorInWords(error));
      process.exitCode = 2;
    },
  );
}
