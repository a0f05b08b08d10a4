/** The engine's worker on the server and the command line. */
import './brief';
import { readFileSync } from 'node:fs';
import { parentPort } from 'node:worker_threads';
import { readImage } from '../core/sandbox/image';
import { serve } from '../core/sandbox/serve';
import { IMAGES } from './machine-images';
import { threadNumber } from './thread-time';

/** What the images were made of; set by scripts/build-node.mjs, and absent in a bundle made for a test. */
declare const TAVRO_MACHINE: string | undefined;

function imageOf(temporal: boolean) {
  if (typeof TAVRO_MACHINE === 'undefined') return null;
  try {
    const file = new URL(temporal ? IMAGES.withTemporal : IMAGES.plain, import.meta.url);
    return readImage(readFileSync(file), TAVRO_MACHINE);
  } catch {
    return null;
  }
}

const port = parentPort!;
const thread = threadNumber();
if (thread !== null) port.postMessage({ thread });
const handle = serve((message) => port.postMessage(message), imageOf);
port.on('message', (message) => void handle(message));
