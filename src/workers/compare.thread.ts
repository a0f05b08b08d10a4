/** A comparison's worker on the command line and the server. */
import './brief';
import { parentPort } from 'node:worker_threads';
import { serveCompare } from './compare-serve';
import { imageOf } from './images-beside';
import { threadNumber } from './thread-time';

const port = parentPort!;
const thread = threadNumber();
if (thread !== null) port.postMessage({ thread });
const handle = serveCompare((message) => port.postMessage(message), imageOf);
port.on('message', (message) => void handle(message));
