/** The language worker in a browser. */
import { serveLanguage } from './language-serve';

const handle = serveLanguage((reply) => postMessage(reply));
addEventListener('message', (event: MessageEvent<unknown>) => void handle(event.data));
