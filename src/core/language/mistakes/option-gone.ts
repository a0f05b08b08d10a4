import { nearest } from '../../wire/failures';
import { keyPlaces } from './compared';
import type { Mistake } from './mistake';

const EFFECT = {
  compared: ', so this never holds',
  'looked up': ', so this is never found',
  assigned: '',
};

/** More keys than this are not listed in a finding. */
const MOST_LISTED = 8;

/** A key that no option has (any more). */
export const optionGone: Mistake = {
  code: 'option-gone',
  title: 'A key that no option has',
  severity: 'error',
  find: ({ flow, parts, file }) =>
    keyPlaces(flow, parts).flatMap(({ literal, access, options, how }) => {
      const { value } = literal;
      const like = (text: string) => text.trim().toLowerCase() === value.trim().toLowerCase();
      if (value === '' || options.some(({ key, label }) => key === value || like(label))) return [];
      const keys = options.map(({ key }) => key);
      const meant = keys.find(like) ?? nearest(value, keys);
      const listed =
        keys.length > MOST_LISTED
          ? `${keys.slice(0, MOST_LISTED).join(', ')} and ${keys.length - MOST_LISTED} more`
          : keys.join(', ');
      const [from, to] = [literal.node.getStart(file), literal.node.getEnd()];
      return [
        {
          from,
          to,
          says: `${access.aspect === 'roles' ? 'There is no role' : `${parts.called(access.part)} has no ${access.aspect === 'stage' ? 'stage' : 'option'}`} "${value}"${EFFECT[how]}. ${access.aspect === 'roles' ? 'There are' : 'It has'} ${listed}.`,
          fixes:
            meant === null
              ? []
              : [
                  {
                    title: `Use ${JSON.stringify(meant)}`,
                    edits: [{ from, to, text: JSON.stringify(meant) }],
                  },
                ],
        },
      ];
    }),
};
