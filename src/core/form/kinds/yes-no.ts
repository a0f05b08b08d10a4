/** Yes or no; untouched is neither, and `false` is an answer. */
import type { FieldOf } from '../definition';
import type { Kind } from './kind';

export const yesNo: Kind<FieldOf<'yes_no'>> = {
  accept(offered) {
    return typeof offered === 'boolean'
      ? { ok: true, value: offered }
      : { ok: false, takes: 'yes or no (true or false)' };
  },
  check: () => null,
  type: () => 'boolean',
};
