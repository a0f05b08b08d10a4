/** The images of booted machines that stand beside the bundle of a thread. */
import { readFileSync } from 'node:fs';
import { readImage, type Image } from '../core/sandbox/image';
import { IMAGES } from './machine-images';

/** What the images were made of; set by scripts/build-node.mjs, and absent in a bundle made for a test. */
declare const TAVRO_MACHINE: string | undefined;

/** Null where there is none for this machine. */
export function imageOf(temporal: boolean): Image | null {
  if (typeof TAVRO_MACHINE === 'undefined') return null;
  try {
    const file = new URL(temporal ? IMAGES.withTemporal : IMAGES.plain, import.meta.url);
    return readImage(readFileSync(file), TAVRO_MACHINE);
  } catch {
    return null;
  }
}
