// npm start: everything from a fresh machine to the demo in a browser. PORT (3000) and TAVRO_DB_PORT (54329) can be set.
// npm start -- DIR: opens the workspace folder DIR as well and keeps both the same; folders below DIR can be opened in the app.
import { statSync } from 'node:fs';
import { delimiter, resolve } from 'node:path';
import {
  buildApp,
  fail,
  needModules,
  needPackages,
  needPort,
  packages,
  prepareDatabase,
  say,
  serve,
  startDatabase,
  stopDatabase,
} from './steps.mjs';

const folders = process.argv.slice(2).map((dir) => resolve(process.env.INIT_CWD ?? '.', dir));
for (const folder of folders)
  if (!statSync(folder, { throwIfNoEntry: false })?.isDirectory())
    fail(`there is no folder ${folder}. tavro new makes one with a form to begin with.`);
process.env.TAVRO_FOLDERS = [process.env.TAVRO_FOLDERS ?? '', ...folders]
  .filter(Boolean)
  .join(delimiter);
const port = Number(process.env.PORT ?? 3000);
await needPort(port, 'PORT=3001 npm start');
needPackages([packages.postgresql]);
needModules();
buildApp();
say('starting PostgreSQL');
const { url, started } = startDatabase();
prepareDatabase(url);
say(`serving on http://127.0.0.1:${port}`);
const server = serve(url, port);
let ending = false;
const end = () => {
  if (ending) return;
  ending = true;
  server.kill('SIGTERM');
  // A server that hangs hears no signal of its own.
  setTimeout(() => server.kill('SIGKILL'), 3000).unref();
};
process.on('SIGINT', end);
process.on('SIGTERM', end);
server.on('exit', (code) => {
  if (started)
    say(stopDatabase() ? 'PostgreSQL is stopped' : 'another app goes on using PostgreSQL');
  process.exit(ending ? 0 : (code ?? 1));
});
