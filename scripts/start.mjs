// npm start: everything from a fresh machine to the demo in a browser. PORT (3000) and TAVRO_DB_PORT (54329) can be set.
// npm start -- DIR: opens the workspace folder DIR as well and keeps both the same; folders below DIR can be opened in the app.
//
// This process does nothing itself but watch over the one that does (start-app.mjs), which is a process group of its own:
// so it hears at every moment that it is to end, by Ctrl-C, by a signal to it or to npm, or because npm is gone, and ends
// all of them and the database that it started.
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { isDatabaseListening, root, say, stopDatabase } from './steps.mjs';

/** Milliseconds between two looks at whether whoever started this is still there, and until what hangs is killed. */
const LOOK = 500;
const PATIENCE = 8000;

const wasListening = isDatabaseListening();
const work = spawn('node', ['scripts/start-app.mjs', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
  detached: true,
  env: { ...process.env, INIT_CWD: process.env.INIT_CWD ?? process.cwd() },
});

let ending = false;
function end() {
  if (ending) return;
  ending = true;
  kill('SIGTERM');
  setTimeout(() => kill('SIGKILL'), PATIENCE).unref();
}

function kill(signal) {
  try {
    process.kill(-work.pid, signal);
  } catch {
    // There is nobody left in the group.
  }
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, end);

/** The processes above this one that stand for `npm start`: npm, and the shell in which it runs scripts. */
function above() {
  const parents = [process.ppid];
  try {
    if (/^(?:sh|dash|bash)$/.test(nameOf(process.ppid))) parents.push(parentOf(process.ppid));
  } catch {
    // Where the system does not tell, the parent alone is watched.
  }
  return parents.join(' ');
}
const nameOf = (pid) => readFileSync(`/proc/${pid}/comm`, 'utf8').trim();
const parentOf = (pid) =>
  Number(/^PPid:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]);

const startedBy = above();
// Started with nohup or by a service manager, it has no npm above it that could go.
if (process.env.npm_lifecycle_event === 'start')
  setInterval(() => {
    if (above() !== startedBy) end();
  }, LOOK).unref();

work.on('exit', (code) => {
  // Whatever is left of its group.
  kill('SIGKILL');
  if (!wasListening && isDatabaseListening())
    say(stopDatabase() ? 'PostgreSQL is stopped' : 'another app goes on using PostgreSQL');
  process.exit(ending ? 0 : (code ?? 1));
});
