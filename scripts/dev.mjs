// npm run dev: the app from its sources, with the demo, on http://127.0.0.1:3000.
import { spawn } from 'node:child_process';
import {
  buildParts,
  needModules,
  needPackages,
  needPort,
  packages,
  prepareDatabase,
  root,
  startDatabase,
} from './steps.mjs';

const port = Number(process.env.PORT ?? 3000);
await needPort(port, 'PORT=3001 npm run dev');
needPackages([packages.postgresql]);
needModules();
buildParts();
const { url } = startDatabase();
prepareDatabase(url);
spawn('node_modules/.bin/next', ['dev', '-H', '127.0.0.1', '-p', String(port)], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, DATABASE_URL: url, NEXT_TELEMETRY_DISABLED: '1' },
});
