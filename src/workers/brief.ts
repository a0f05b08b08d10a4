/**
 * For a process that ends soon: schemas are not compiled, since compiling one takes longer than the few times it is
 * used. Imported before any schema is made.
 */
import { isMainThread, workerData } from 'node:worker_threads';
import { config } from 'zod';

if (isMainThread || workerData === 'brief') config({ jitless: true });
