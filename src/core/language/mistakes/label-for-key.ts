import { keyPlaces } from './compared';
import type { Mistake } from './mistake';

const TO_MEND = {
  compared: 'This never holds: compare',
  'looked up': 'This is never found: look up',
  assigned: 'Write',
};

/** The label of an option where its key belongs: what is compared is the key, so it never holds. */
export const labelForKey: Mistake = {
  code: 'label-for-key',
  title: 'A label where the key belongs',
  severity: 'error',
  find: ({ flow, parts, file }) =>
    keyPlaces(flow, parts).flatMap(({ literal, access, options, how }) => {
      if (options.some(({ key }) => key === literal.value)) return [];
      const meant = options.find(
        ({ label }) => label.trim().toLowerCase() === literal.value.trim().toLowerCase(),
      );
      if (meant === undefined) return [];
      const key = JSON.stringify(meant.key);
      return [
        {
          from: literal.node.getStart(file),
          to: literal.node.getEnd(),
          says: `“${literal.value}” is a label of ${parts.called(access.part)}, which holds keys. ${TO_MEND[how]} the key ${key}.`,
          fixes: [
            {
              title: `Use the key ${key}`,
              edits: [{ from: literal.node.getStart(file), to: literal.node.getEnd(), text: key }],
            },
          ],
        },
      ];
    }),
};
