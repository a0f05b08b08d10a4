/** The compiler's worker in a browser. */
import { serveCompiler } from './compiler-serve';

const handle = serveCompiler((reply) => postMessage(reply));
addEventListener('message', (event: MessageEvent<unknown>) => handle(event.data));
