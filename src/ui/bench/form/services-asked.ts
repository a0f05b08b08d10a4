/** The services that the behaviours of the form ask, and those that an opening already treats in its own way. */
import type { Service } from '@/core/form/service';
import type { Bench } from '../create-bench';

export function servicesAsked(bench: Bench): Service[] {
  const { open } = bench.form.session.state;
  const { behaviours } = bench.code.store.getState();
  const { material } = bench.core;
  return material.services.filter(
    ({ name }) =>
      behaviours.some(({ text }) => text.includes(name)) ||
      Object.keys(open.services ?? {}).some((key) => key.split('.')[0] === name),
  );
}
