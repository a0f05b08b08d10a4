// The app, built before, on 127.0.0.1: node scripts/serve.mjs PORT. What Next.js answers nothing to or a fault is answered
// here, and every answer has its headers, redirects too. SIGTERM and SIGINT let what is being answered come to its end.
import { AsyncLocalStorage } from 'node:async_hooks';
import { createServer } from 'node:http';
import next from 'next';

const port = Number(process.argv[2]);
const hostname = '127.0.0.1';
/** Methods that Next.js cannot make a request of. */
const UNKNOWN = new Set(['TRACE', 'CONNECT', 'TRACK']);
/** Of whatever is not said otherwise by next.config.ts or src/proxy.ts. */
const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'x-frame-options': 'DENY',
};

/** Likewise, but not of the app's own files: a worker would be held to the policy that its script comes with. */
const POLICY = "default-src 'none'; frame-ancestors 'none'";

function refuse(response, status, says, headers = {}) {
  response.writeHead(status, { 'content-type': 'application/json', ...headers });
  response.end(JSON.stringify({ says }));
}

/** By which the app says the status of a page that it cannot make (src/app/drawn.tsx). */
const answers = (globalThis.tavroAnswer = new AsyncLocalStorage());

const server = createServer();
const app = next({ dev: false, hostname, port, httpServer: server });
await app.prepare();
const handle = app.getRequestHandler();
server.on('request', (request, response) => {
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
  if (!request.url.startsWith('/_next/')) response.setHeader('content-security-policy', POLICY);
  if (UNKNOWN.has(request.method))
    return refuse(response, 405, 'Nothing here is asked for in this way.', {
      allow: 'GET, HEAD, POST, PUT, PATCH, DELETE, OPTIONS',
    });
  answers
    .run(response, () => handle(request, response))
    .catch((caught) => {
      console.error(caught);
      if (response.headersSent) response.destroy();
      else refuse(response, 500, 'Something went wrong on the server.');
    });
});
// Whoever asks to speak another protocol is not answered in it.
server.on('connect', (_request, socket) =>
  socket.end('HTTP/1.1 405 Method Not Allowed\r\ncontent-length: 0\r\nconnection: close\r\n\r\n'),
);
server.listen(port, hostname);

let ending = false;
function end() {
  if (ending) return;
  ending = true;
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  // What takes longer is not waited for.
  setTimeout(() => process.exit(0), 2000).unref();
}
process.on('SIGTERM', end);
process.on('SIGINT', end);
