/** What is wrong with the scripts by which services answer: they are checked by their types, as behaviours are. */
import type { Service } from '../form/service';
import type { FormLanguage } from '../language/language-service';
import { typeOfParameter, type Surface } from '../language/typings';
import { NO_FORM } from '../script/no-form';
import type { Problem } from './problems';

/** What behaviours have and a service's script has not: it knows its parameters and the tables. */
const WITHHELD = [
  'fields',
  'sections',
  'pages',
  'buttons',
  'tracks',
  'form',
  'parent',
  'on',
  'keep',
  'always',
  'after',
  'services',
  'log',
];

/** Problems of services have the empty text as their form. */
export function problemsInServices(
  surface: Omit<Surface, 'form'>,
  language: FormLanguage,
): Problem[] {
  language.surround({ ...surface, form: NO_FORM });
  return surface.services.flatMap((service) => problemsInService(service, language));
}

function problemsInService(service: Service, language: FormLanguage): Problem[] {
  return Object.entries(service.functions).flatMap(
    ([called, { parameters, answers }]): Problem[] => {
      if (answers.from !== 'script') return [];
      const given = parameters.map(
        (parameter) => `${parameter.name}: ${typeOfParameter(parameter)}`,
      );
      const taken = new Set(parameters.map(({ name }) => name));
      const withheld = WITHHELD.filter((name) => !taken.has(name)).map((name) => `${name}: never`);
      // On one line with the script's first, so that lines are those of the script.
      const before = `const answer = (${[...given, ...withheld].join(', ')}): ${answers.gives.replace(/\s+/g, ' ')} => { `;
      const name = `${service.name}-${called}.ts`;
      language.put({ name, text: `${before}${answers.script}\n};` });
      const found = language.diagnose(name).filter(({ code }) => code.startsWith('TS'));
      language.remove(name);
      const lines = answers.script.split('\n');
      return found.map(({ line: at, column, severity, says, code }) => {
        // What is unfinished is missed only behind the script.
        const line = Math.min(at, lines.length);
        const isBefore = at === 1 && column <= before.length;
        return {
          form: '',
          at: {
            is: 'service',
            service: service.name,
            title: service.title,
            called,
            line,
            column:
              at > line
                ? lines.at(-1)!.length + 1
                : line === 1
                  ? Math.max(1, column - before.length)
                  : column,
          },
          sort: 'types',
          severity,
          says: isBefore ? `What it is declared to give, ${answers.gives}: ${says}` : says,
          code,
        };
      });
    },
  );
}
