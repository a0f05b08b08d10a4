/** Boots machines and writes their images into dist/; bundled and run by scripts/build-node.mjs. */
import { writeFileSync } from 'node:fs';
import { packImage } from '../core/sandbox/image';
import { startModule } from '../core/sandbox/quickjs';
import { Sandbox } from '../core/sandbox/sandbox';
import { IMAGES } from './machine-images';

declare const TAVRO_MACHINE: string;

for (const [file, temporal] of [
  [IMAGES.plain, false],
  [IMAGES.withTemporal, true],
] as const) {
  const { image } = new Sandbox(await startModule(), { temporal });
  writeFileSync(new URL(file, import.meta.url), packImage(image, TAVRO_MACHINE));
}
