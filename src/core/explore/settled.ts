/** Source and use settle each other: what a search can only suspect is wrong where a check of the source proves it. */
import { scriptAt, type Finding, type Kind } from './finding';

/** What a check found in the source. */
export interface Proof {
  behaviour: string;
  line: number;
  /** Of the mistake. */
  code: string;
}

const KEYS = ['option-gone', 'label-for-key'];

/** The mistakes that prove a kind of hint, by their codes. */
const PROVED_BY: Partial<Record<Kind, readonly string[]>> = {
  'one-sided': [
    ...KEYS,
    'never-holds',
    'never-reached',
    'beyond-limits',
    'text-of-no-row',
    'launch-of-no-name',
  ],
  'no-difference': KEYS,
  conflict: ['two-steer'],
};

/** Hints that the source proves are wrong. A lookup is written elsewhere than where it makes no difference. */
export function settled(findings: readonly Finding[], proofs: readonly Proof[]): Finding[] {
  return findings.map((finding) => {
    const codes = PROVED_BY[finding.kind] ?? [];
    const isProved = proofs.some(
      ({ behaviour, line, code }) =>
        codes.includes(code) &&
        finding.lines.some((at) => {
          const place = scriptAt(at);
          return (
            place.script === behaviour && (place.line === line || finding.kind === 'no-difference')
          );
        }),
    );
    return isProved ? { ...finding, level: 'wrong' } : finding;
  });
}

/** Whether a finding repeats what a check says at the same place. */
export const isProvable = ({ kind }: Pick<Finding, 'kind'>) => PROVED_BY[kind] !== undefined;
