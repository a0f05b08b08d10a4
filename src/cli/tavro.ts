#!/usr/bin/env node
/**
 * Where the command line starts: a command that runs forms has its thread start before the rest of the program is even
 * loaded, since both take about as long.
 */
import module from 'node:module';
import { availableParallelism } from 'node:os';
import { startThread } from './thread';

/** The commands that run forms, with the threads that the least call of them keeps busy. */
const THREADS: Readonly<Record<string, number>> = {
  play: 1,
  why: 1,
  test: 2,
  grid: 1,
  mutate: 2,
};

// From Node.js 22.1 on, what was compiled of this program before is taken again.
(module as { enableCompileCache?: () => void }).enableCompileCache?.();

const [command, ...given] = process.argv.slice(2);
if (command !== undefined && Object.hasOwn(THREADS, command) && !given.includes('--help'))
  for (let i = 0; i < Math.min(THREADS[command]!, availableParallelism()); i++) startThread();
const { runCommandLine } = await import('./main');
await runCommandLine(process.argv.slice(2));
