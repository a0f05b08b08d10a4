// npm start: everything from a fresh machine to the demo in a browser. PORT (3000) and TAVRO_DB_PORT (54329) can be set.
import {
  buildApp,
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
