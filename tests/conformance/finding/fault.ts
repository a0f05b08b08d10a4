/** The shape of the corpus: a faulty behaviour, and what makes its mended twin of it. */
import type { FormName } from './forms';

export interface Fault {
  group: string;
  about: string;
  form: FormName;
  faulty: string;
  /** Texts of the faulty behaviour with what stands there in the mended one. */
  mend: readonly (readonly [from: string, to: string])[];
  /** `source` where every session shows the same, so that only reading the source can tell. */
  shows: 'use' | 'source';
}

/** Faults of one group, each in a line or a few. */
export function faultsOf(group: string, shows: Fault['shows'] = 'use') {
  return (about: string, form: FormName, faulty: string, ...mend: Fault['mend']): Fault => ({
    group,
    about,
    form,
    faulty: faulty.trim(),
    mend,
    shows,
  });
}

export function mendedOf({ about, faulty, mend }: Fault): string {
  return mend.reduce((text, [from, to]) => {
    if (!text.includes(from)) throw new Error(`${about}: nothing to mend at ${from}`);
    return text.replace(from, () => to);
  }, faulty);
}
