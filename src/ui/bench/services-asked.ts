/** The services that the behaviours of the form ask, and those that an opening already treats in its own way. */
import type { Service } from '@/core/form/service';
import type { BenchStore } from './store';

export function servicesAsked(bench: BenchStore): Service[] {
  const { open, behaviours, material } = bench.store.getState();
  return material.services.filter(
    ({ name }) =>
      behaviours.some(({ text }) => text.includes(name)) ||
      Object.keys(open.services ?? {}).some((key) => key.split('.')[0] === name),
  );
}
