/** What a session is made of, from a form and its sources: behaviours in their order and the scripts of services. */
import type { Form } from '../form/definition';
import type { Service } from '../form/service';
import type { Table } from '../form/table';
import type { Material } from '../session/material';
import { compile, type Mode } from './compile';
import { takingPart, type Source } from '../script/header';
import { modulesUsed } from '../script/imports';
import { servicesAsSources } from '../script/service-sources';

/** The reference data and services that all forms of a workspace share. */
interface Shared {
  tables: readonly Table[];
  services: readonly Service[];
}

export function materialOf(
  form: Form,
  { tables, services }: Shared,
  sources: readonly Source[],
  mode: Mode,
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
    modules: modulesUsed(sources).map((source) => compile(source, mode)),
    traced: mode === 'traced',
  };
}
