// What npm start does: installs, builds, starts the database, serves. Watched over by start.mjs.
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
  serveSearches,
  startDatabase,
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
const { url } = startDatabase();
prepareDatabase(url);
say(`serving on http://127.0.0.1:${port}`);
const server = serve(url, port);
const searches = serveSearches(url);
server.on('exit', (code) => {
  searches.kill();
  process.exit(code ?? 1);
});
