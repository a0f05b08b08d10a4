/** A comparison's worker in a browser. */
import { serveCompare } from './compare-serve';

const handle = serveCompare((message) => postMessage(message));
addEventListener('message', (event: MessageEvent<unknown>) => void handle(event.data));
