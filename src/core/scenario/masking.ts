/**
 * Masking a filling-in before it is kept. What may stay is known, and everything else is masked: numbers, dates and
 * choices in fields of their kind, keys of options and of tables, names that the form and its services have, lengths and
 * shapes. So nothing that somebody typed, was called or was answered stays for want of a rule about it.
 */
import { isDate, isDateTime, isTime } from '../form/formats';
import type { Field, Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Service } from '../form/service';
import type { Table } from '../form/table';
import type { Value, Values } from '../form/value';
import type { Opening, TimedStep } from '../session/step';

/** What a filling-in was done in. */
export interface MaskedIn {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
}

export interface Masked {
  opening: Opening;
  steps: TimedStep[];
  ended: Values | null;
}

/** Of a text stay blanks and the punctuation of ASCII; the length in UTF-16 stays the same. */
function maskedText(text: string): string {
  return [...text]
    .map((letter) => {
      if (/^[\s!-/:-@[-`{-~]$/.test(letter)) return letter;
      if (/^\p{N}$/u.test(letter)) return '0'.repeat(letter.length);
      return (/^\p{Lu}$/u.test(letter) ? 'X' : 'x').repeat(letter.length);
    })
    .join('');
}

/** A value of which nothing is known: its shape stays, with the names in `names`. */
function maskedValue(value: Value, names: ReadonlySet<string>): Value {
  if (typeof value === 'string') return maskedText(value);
  if (typeof value === 'number') return maskedNumber(value);
  if (Array.isArray(value)) return value.map((one) => maskedValue(one as Value, names));
  if (typeof value === 'object' && value !== null)
    return withNames(
      Object.entries(value as Values).map(([name, one]) => [
        names.has(name) ? name : maskedText(name),
        maskedValue(one, names),
      ]),
    );
  return value;
}

/** Names that are masked may become the same; then they are numbered. */
function withNames(entries: readonly (readonly [string, Value])[]): Values {
  const found = new Map<string, Value>();
  for (const [name, value] of entries)
    found.set(found.has(name) ? `${name}_${found.size}` : name, value);
  return Object.fromEntries(found);
}

/** As many ones as there were digits, so that it stays as large. */
function maskedNumber(value: number): number {
  const masked = Number(String(value).replace(/\d/g, '1'));
  return Number.isFinite(masked) ? masked : 1;
}

const NOTHING: ReadonlySet<string> = new Set();

/** What people type while they enter a number: digits 0–9 and what stands between them. */
const isNumeral = (text: string) => /^[-+]?[\d., ]*(?:e[-+]?\d{1,3})?$/i.test(text);

class Mask {
  readonly #fields: ReadonlyMap<string, Field>;

  constructor(
    fields: readonly Field[],
    private readonly tables: readonly Table[],
  ) {
    this.#fields = new Map(fields.map((field) => [field.name, field]));
  }

  /** Of values by field; those of no field are left out. */
  values(values: Values): Values {
    return Object.fromEntries(
      Object.entries(values).flatMap(([name, value]) => {
        const field = this.#fields.get(name);
        return field === undefined ? [] : [[name, this.of(field, value)]];
      }),
    );
  }

  /** `part` as a step names it: a field, or a cell such as `cargo[0].name`. */
  at(part: string, value: Value): Value {
    const field = this.#fieldAt(part);
    return field === null ? maskedValue(value, NOTHING) : this.of(field, value);
  }

  #fieldAt(part: string): Field | null {
    const [, name, cell] = /^([^[\].]+)(?:\[\d+\](?:\.([^[\].]+))?)?$/.exec(part) ?? [];
    const field = this.#fields.get(name ?? '') ?? null;
    if (cell === undefined) return field;
    return field?.kind === 'rows' ? (field.fields.find((one) => one.name === cell) ?? null) : null;
  }

  /** One row, or several, of a rows field. */
  rows<R extends Values | Values[]>(name: string, rows: R): R {
    const field = this.#fields.get(name);
    const cells = new Mask(field?.kind === 'rows' ? field.fields : [], this.tables);
    return (Array.isArray(rows) ? rows.map((row) => cells.values(row)) : cells.values(rows)) as R;
  }

  of(field: Field, value: Value): Value {
    if (value === null) return null;
    switch (field.kind) {
      case 'number':
      case 'money':
        return this.#stays(value, (one) =>
          typeof one === 'string' ? isNumeral(one) : typeof one === 'number',
        );
      case 'date':
        return this.#stays(value, (one) => typeof one === 'string' && isDate(one));
      case 'time':
        return this.#stays(value, (one) => typeof one === 'string' && isTime(one));
      case 'datetime':
        return this.#stays(value, (one) => typeof one === 'string' && isDateTime(one));
      case 'yes_no':
        return this.#stays(value, (one) => typeof one === 'boolean');
      case 'choice':
        return this.#stays(value, (one) => field.options.some(({ key }) => key === one));
      case 'choices':
        return Array.isArray(value)
          ? value.map((one) =>
              this.#stays(one as Value, () => field.options.some(({ key }) => key === one)),
            )
          : maskedValue(value, NOTHING);
      case 'reference': {
        const table = this.tables.find(({ name }) => name === field.table);
        return this.#stays(
          value,
          (one) => table?.rows.some((row) => row[table.key] === one) ?? false,
        );
      }
      case 'rows':
        return Array.isArray(value)
          ? value.map((row) =>
              typeof row === 'object' && row !== null && !Array.isArray(row)
                ? (this.rows(field.name, row as Values) as Value)
                : maskedValue(row as Value, NOTHING),
            )
          : maskedValue(value, NOTHING);
      case 'file':
        return maskedFiles(value);
      case 'text':
        return maskedValue(value, NOTHING);
    }
  }

  #stays(value: Value, may: (value: Value) => boolean): Value {
    return may(value) ? value : maskedValue(value, NOTHING);
  }
}

const FILE = new Set(['name', 'size', 'type', 'digest']);
/** The first part of media types that are registered (RFC 6838, 4.2). */
const MEDIA = /^(?:application|audio|font|image|model|text|video)\//;

/** A file keeps its size and the sort of its type. */
function maskedFiles(value: Value): Value {
  if (Array.isArray(value)) return value.map((one) => maskedFiles(one as Value));
  if (typeof value !== 'object' || value === null) return maskedValue(value, NOTHING);
  const { size, type } = value as { size?: Value; type?: Value };
  const sort = typeof type === 'string' ? MEDIA.exec(type)?.[0] : undefined;
  return {
    ...(maskedValue(value, FILE) as Values),
    ...(typeof size === 'number' ? { size } : {}),
    ...(sort === undefined
      ? {}
      : { type: `${sort}${maskedText((type as string).slice(sort.length))}` }),
  };
}

/** The names that parts of a form have, as steps say them without places. */
function partsOf(form: Form): ReadonlySet<string> {
  return new Set([
    ...form.pages.flatMap((page) => [page.name, ...page.sections.map(({ name }) => name)]),
    ...fieldsOf(form).flatMap((field) => [
      field.name,
      ...(field.kind === 'rows' ? field.fields.map(({ name }) => `${field.name}.${name}`) : []),
    ]),
    ...[form.buttons, form.tracks, form.children].flatMap(
      (parts) => parts?.map(({ name }) => name) ?? [],
    ),
  ]);
}

/** Names of services, and of their functions as scripts and steps say them. */
function servicesOf(services: readonly Service[]): ReadonlySet<string> {
  return new Set(
    services.flatMap(({ name, functions }) => [
      name,
      ...Object.keys(functions).map((one) => `${name}.${one}`),
    ]),
  );
}

/** What services may answer with: the names of columns, of parameters, and those that their answers' types have. */
function answerNames(services: readonly Service[], tables: readonly Table[]): ReadonlySet<string> {
  const words = (text: string) => text.match(/[\p{L}_$][\p{L}\p{N}_$]*/gu) ?? [];
  return new Set([
    ...tables.flatMap(({ columns }) => columns.map(({ name }) => name)),
    ...services.flatMap(({ functions }) =>
      Object.values(functions).flatMap(({ answers, parameters }) => [
        ...parameters.map(({ name }) => name),
        ...(answers.from === 'script' ? words(answers.gives) : []),
      ]),
    ),
  ]);
}

/** A filling-in with everything masked that is not known to be harmless. */
export function masked(
  { opening, steps, ended }: Masked,
  { form, tables, services }: MaskedIn,
): Masked {
  const mask = new Mask(fieldsOf(form), tables);
  const parts = partsOf(form);
  const called = servicesOf(services);
  const answers = answerNames(services, tables);
  const part = (name: string) => (parts.has(name.replace(/\[\d+\]/, '')) ? name : maskedText(name));
  const { person, record, records, parent, launch } = opening;
  /** Records are distinguished by their ids, and not known by them. */
  const ids = new Map<string, string>();
  const id = (of: string) => {
    if (/^\d{1,9}$/.test(of)) return of;
    if (!ids.has(of)) ids.set(of, `x${ids.size + 1}`);
    return ids.get(of)!;
  };

  const step = (one: TimedStep): TimedStep => {
    if ('set' in one) return { ...one, set: part(one.set), to: mask.at(one.set, one.to) };
    if ('input' in one) return { ...one, input: part(one.input), to: mask.at(one.input, one.to) };
    if ('fromChild' in one)
      return { ...one, fromChild: part(one.fromChild), to: mask.at(one.fromChild, one.to) };
    if ('addRow' in one)
      return {
        ...one,
        addRow: part(one.addRow),
        ...(one.with === undefined ? {} : { with: mask.rows(one.addRow, one.with) }),
      };
    if ('answer' in one)
      return {
        ...one,
        answer: called.has(one.answer) ? one.answer : maskedText(one.answer),
        ...(one.with === undefined ? {} : { with: maskedValue(one.with, answers) }),
        ...(one.fails === undefined ? {} : { fails: maskedText(one.fails) }),
      };
    if ('focus' in one) return { ...one, focus: part(one.focus) };
    if ('blur' in one) return { ...one, blur: part(one.blur) };
    if ('click' in one) return { ...one, click: part(one.click) };
    if ('turnTo' in one) return { ...one, turnTo: part(one.turnTo) };
    if ('removeRow' in one) return { ...one, removeRow: part(one.removeRow) };
    if ('moveRow' in one) return { ...one, moveRow: part(one.moveRow) };
    // Nothing of these is anybody's word.
    return one;
  };

  return {
    opening: {
      ...opening,
      person: {
        ...person,
        key: maskedText(person.key),
        name: maskedText(person.name),
      },
      record: record === null ? null : { id: id(record.id), values: mask.values(record.values) },
      newId: id(opening.newId),
      launch: maskedLaunch(launch, form),
      ...(records === undefined
        ? {}
        : { records: records.map((one) => ({ id: id(one.id), values: mask.values(one.values) })) }),
      ...(parent == null
        ? {}
        : {
            parent: {
              ...parent,
              record: id(parent.record),
              values: new Mask(parent.fields, tables).values(parent.values),
            },
          }),
      ...(opening.services === undefined
        ? {}
        : {
            services: Object.fromEntries(
              Object.entries(opening.services).flatMap(([name, mood]) =>
                called.has(name)
                  ? [
                      [
                        name,
                        {
                          ...mood,
                          ...(mood.fails === undefined ? {} : { fails: maskedText(mood.fails) }),
                        },
                      ],
                    ]
                  : [],
              ),
            ),
          }),
    },
    steps: steps.map(step),
    ended: ended === null ? null : mask.values(ended),
  };
}

/** What the form was opened with: parameters that it declares are masked by their kind, others are left out. */
function maskedLaunch(launch: Values, form: Form): Values {
  const fields = (form.launch ?? []).map(
    ({ name, label = name, kind }) => ({ name, label, kind }) as Field,
  );
  return new Mask(fields, []).values(launch);
}
