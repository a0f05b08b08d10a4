/** A machine of a worker's own with a form in it, as searches and comparisons play on it. */
import type { Ground, Stage } from '../core/explore/ground';
import type { Image } from '../core/sandbox/image';
import { startModule } from '../core/sandbox/quickjs';
import { needsTemporal, Sandbox } from '../core/sandbox/sandbox';
import type * as z from 'zod';
import type { Version } from '../core/compare/version';
import type { VersionSchema } from './compare-calls';
import type { FormRequestSchema } from './search-calls';

type Alive = () => void;
type ImageOf = (temporal: boolean) => Image | null;

export async function stageWith(
  { material, people, records, parents, clock, done }: z.output<typeof FormRequestSchema>,
  alive: Alive,
  imageOf: ImageOf,
): Promise<{ ground: Ground; stage: Stage }> {
  const temporal = needsTemporal(material);
  const machine = new Sandbox(await startModule(), { temporal, alive, image: imageOf(temporal) });
  machine.load(material);
  const { form, tables, services } = material;
  return {
    ground: { form, tables, services, people, records, parents, clock, done },
    stage: {
      open(opening) {
        alive();
        return machine.open(opening);
      },
      do: (step) => machine.step(step),
      checkpoint: () => machine.checkpoint(),
    },
  };
}

/** One of the two versions that are compared, in a machine of its own. */
export async function versionWith(
  of: z.output<typeof VersionSchema>,
  alive: Alive,
  imageOf: ImageOf,
): Promise<Version> {
  const { mentions, sources } = of;
  return { ...(await stageWith(of, alive, imageOf)), mentions, sources };
}
