/** A worker in a browser that does filling-ins again. */
import { serveReplay } from './replay-serve';

const handle = serveReplay((message) => postMessage(message));
addEventListener('message', (event: MessageEvent<unknown>) => void handle(event.data));
