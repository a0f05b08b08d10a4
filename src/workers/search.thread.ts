/** A search's worker on the command line and the server. */
import './brief';
import { parentPort } from 'node:worker_threads';
import { imageOf } from './images-beside';
import { serveSearch } from './search-serve';
import { threadNumber } from './thread-time';

const port = parentPort!;
const thread = threadNumber();
if (thread !== null) port.postMessage({ thread });
const handle = serveSearch((message) => port.postMessage(message), imageOf);
port.on('message', (message) => void handle(message));
