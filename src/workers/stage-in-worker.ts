/** A machine of a worker's own with a form in it, as searches and comparisons play on it. */
import type { Ground, Stage } from '../core/explore/ground';
import type { Image } from '../core/sandbox/image';
import { startModule } from '../core/sandbox/quickjs';
import { needsTemporal, Sandbox } from '../core/sandbox/sandbox';
import type * as z from 'zod';
import type { FormRequestSchema } from './search-calls';

export async function stageWith(
  { material, people, records, parents, clock }: z.output<typeof FormRequestSchema>,
  alive: () => void,
  imageOf: (temporal: boolean) => Image | null,
): Promise<{ ground: Ground; stage: Stage }> {
  const temporal = needsTemporal(material);
  const machine = new Sandbox(await startModule(), { temporal, alive, image: imageOf(temporal) });
  machine.load(material);
  const { form, tables, services } = material;
  return {
    ground: { form, tables, services, people, records, parents, clock },
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
