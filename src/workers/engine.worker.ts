/** The engine's worker in a browser. */
import { serve } from '../core/sandbox/serve';

const handle = serve((message) => postMessage(message));
addEventListener('message', (event: MessageEvent<unknown>) => void handle(event.data));
