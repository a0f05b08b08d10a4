/** A search's worker in a browser. */
import { serveSearch } from './search-serve';

const handle = serveSearch((message) => postMessage(message));
addEventListener('message', (event: MessageEvent<unknown>) => void handle(event.data));
