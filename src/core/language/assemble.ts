/**
 * What a session is made of, from a form and its sources: behaviours in their order and the scripts of services. Whoever
 * has them compiled already needs no compiler, which is by far the largest part.
 */
import type { Form } from '../form/definition';
import type { Service } from '../form/service';
import type { Table } from '../form/table';
import type { Material } from '../session/session';
import type { CompiledScript } from '../session/ties';
import type { Mode } from './compile';
import { takingPart, type Source } from './header';

/** The reference data and services that all forms of a workspace share. */
export interface Shared {
  tables: readonly Table[];
  services: readonly Service[];
}

export type Compile = (source: Source, mode: Mode) => CompiledScript;

export function assembled(
  form: Form,
  { tables, services }: Shared,
  sources: readonly Source[],
  mode: Mode,
  compile: Compile,
): Material {
  return {
    form,
    tables,
    services,
    answering: servicesAsSources(services).map(({ name, source }) => ({
      ...compile(source, 'untraced'),
      name,
    })),
    scripts: takingPart(sources).map((source) => compile(source, mode)),
    traced: mode === 'traced',
  };
}

/** Every source that is compiled for a form, with how. */
export function sourcesOf(
  { services }: Shared,
  sources: readonly Source[],
  mode: Mode,
): { source: Source; mode: Mode }[] {
  return [
    ...servicesAsSources(services).map(({ source }) => ({ source, mode: 'untraced' as const })),
    ...takingPart(sources).map((source) => ({ source, mode })),
  ];
}

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
