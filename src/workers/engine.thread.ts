/** The engine's worker on the server and the command line. */
import './brief';
import { parentPort } from 'node:worker_threads';
import { serve } from '../core/sandbox/serve';
import { imageOf } from './images-beside';
import { threadNumber } from './thread-time';

const port = parentPort!;
const thread = threadNumber();
if (thread !== null) port.postMessage({ thread });
const handle = serve((message) => port.postMessage(message), imageOf);
port.on('message', (message) => void handle(message));
