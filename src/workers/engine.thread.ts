/** The engine's worker on the server and the command line. */
import { parentPort } from 'node:worker_threads';
import { serve } from '../core/sandbox/serve';

const port = parentPort!;
const handle = serve((message) => port.postMessage(message));
port.on('message', (message) => void handle(message));
