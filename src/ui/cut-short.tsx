'use client';
/** Forms whose check was cut short: nobody is blamed, and they are checked again by themselves. */
import type { Checking } from './check-workspace';
import { Notice } from './kit';

export function CutShort({ forms }: { forms: Checking['cutShort'] }) {
  if (forms.length === 0) return null;
  const reasons = [...new Set(forms.map(({ says }) => says))];
  return (
    <>
      {reasons.map((reason) => (
        <Notice key={reason} tone="info">
          Not checked to the end yet:{' '}
          {forms
            .filter(({ says }) => says === reason)
            .map(({ title }) => title)
            .join(', ')}
          . {reason} It is tried again by itself.
        </Notice>
      ))}
    </>
  );
}
