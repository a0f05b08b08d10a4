/** A workspace to begin with, which shows how the parts hang together. */
import type { Workspace } from './workspace';

const BEHAVIOUR = `/** Reason: asked for, and only shown, when the answer is no. */
keep("reason when not", () => {
  fields.reason.shown = fields.agreed.value === false;
  fields.reason.required = fields.reason.shown;
});
`;

export function firstWorkspace(title: string): Workspace {
  return {
    title,
    roles: [{ key: 'clerk', label: 'Clerk' }],
    people: [{ key: 'first', name: 'First person', roles: ['clerk'] }],
    tables: [],
    shared: [],
    services: [],
    forms: [
      {
        form: {
          name: 'first_form',
          title: 'First form',
          pages: [
            {
              name: 'first_page',
              title: 'First form',
              sections: [
                {
                  name: 'answer',
                  title: 'Answer',
                  fields: [
                    { name: 'agreed', label: 'Agreed', kind: 'yes_no', required: true },
                    { name: 'reason', label: 'Reason', kind: 'text', lines: 3 },
                  ],
                },
              ],
            },
          ],
        },
        behaviours: [{ name: '10-reason.ts', text: BEHAVIOUR }],
        scenarios: [
          {
            name: 'reason',
            scenario: {
              title: 'A reason is asked for when it is not agreed, and no longer when it is',
              open: { as: 'first' },
              steps: [
                { expect: { reason: { shown: false } } },
                { set: 'agreed', to: false },
                { expect: { reason: { shown: true, required: true } } },
                { set: 'agreed', to: true },
                { expect: { reason: { shown: false } } },
              ],
            },
          },
        ],
        records: [],
      },
    ],
  };
}
