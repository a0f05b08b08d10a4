/** The scripts of services as sources. Without the compiler, which whoever has them compiled already does not need. */
import type { Service } from '../form/service';
import type { Source } from './header';

/** The sources of the scripts by which services answer, each with its name as `service.function`. */
export function servicesAsSources(
  services: readonly Service[],
): { name: string; source: Source }[] {
  return services.flatMap((service) =>
    Object.entries(service.functions).flatMap(([name, { parameters, answers }]) => {
      if (answers.from !== 'script') return [];
      // On one line with the script's first, so that lines are those of the script. Each has its parameters by name.
      const text = `const { ${parameters.map((parameter) => parameter.name).join(', ')} } = parameters; ${answers.script}`;
      return [
        { name: `${service.name}.${name}`, source: { name: `${service.name}.${name}.ts`, text } },
      ];
    }),
  );
}
