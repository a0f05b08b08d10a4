/** Stages for searches: a machine as the search's worker has one. */
import type { Stage } from '../../src/core/explore/ground';
import { startModule } from '../../src/core/sandbox/quickjs';
import { needsTemporal, Sandbox } from '../../src/core/sandbox/sandbox';
import type { Material } from '../../src/core/session/material';

const machines = new Map<boolean, Sandbox>();

/** One stage at a time: all forms with the same needs share a machine. */
export async function stageOf(material: Material): Promise<Stage> {
  const temporal = needsTemporal(material);
  const machine = machines.get(temporal) ?? new Sandbox(await startModule(), { temporal });
  machines.set(temporal, machine);
  return stageOn(machine, material);
}

/** A stage with a machine of its own, beside others. */
export async function ownStageOf(material: Material): Promise<Stage> {
  return stageOn(new Sandbox(await startModule(), { temporal: needsTemporal(material) }), material);
}

function stageOn(machine: Sandbox, material: Material): Stage {
  machine.load(material);
  return {
    open: (opening) => machine.open(opening),
    do: (step) => machine.step(step),
    checkpoint: () => machine.checkpoint(),
  };
}
