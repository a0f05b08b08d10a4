/** Rows fields, their rows and cells, as scripts touch them. Rows and cells get a face when a script first meets them. */
import type { PartInfo } from '../wire/acts';
import { words } from '../wire/failures';
import { Cell, Slot, type PartSort } from '../wire/layout';
import type { Current } from './current';
import {
  Face,
  gather,
  makeSurface,
  without,
  type Behind,
  type Member,
  type Members,
  type Refusals,
  type Surface,
} from './face';
import type { Wire } from './wire';

export interface RowFaces {
  fieldSurface: Surface;
  /** A row by its number, its field's number and its id. Its cells have the numbers that follow. */
  row(number: number, field: number, id: number): object;
  /** The column that `fields.NAME.each.COLUMN` stands for, with the number of the field. */
  columnOf(token: unknown): readonly [number, string] | null;
}

export interface RowMaterial {
  wire: Wire;
  current: Current;
  refusals: Refusals;
  nested: Members;
  ofField: Members;
  read(slot: Slot): Member;
  /** Members with all else that can be said of a sort of part. */
  withSaid(sort: PartSort, members: Members): Members;
  /** The surface of cells, which are fields. */
  cell: Surface;
}

export function makeRowFaces({
  wire,
  current,
  refusals,
  nested,
  ofField,
  read,
  withSaid,
  cell,
}: RowMaterial): RowFaces {
  const faces: (object | null)[] = [];
  /** Fields that have rows, by number. */
  const fields = new Map<number, Behind>();
  const surfaces = new Map<number, Surface>();
  const tokens = new WeakMap<object, readonly [number, string]>();
  const lists = new Map<number, { version: unknown; faces: readonly object[] }>();
  /** What a member makes once for each field. */
  const once = <T>(make: (behind: Behind) => T): Member => {
    const made = new Map<number, T>();
    return Face.member((behind) => {
      const known = made.get(behind.number) ?? make(behind);
      made.set(behind.number, known);
      return known;
    });
  };

  const columnsOf = (behind: Behind): readonly PartInfo[] => behind.info.columns!;

  const fieldSurface = makeSurface(
    {
      ...without(ofField, ['previous', 'orphan', 'options', 'optionLabel', 'row']),
      rows: Face.member(rowsOf),
      count: read(Slot.Count),
      each: once(columnTokens),
      add: once((behind) => (values?: unknown) => {
        current.act(`fields.${behind.name}.add()`);
        const [number, id] = wire.act('addRow', {
          field: behind.number,
          values: (values ?? null) as never,
        });
        return row(number, behind.number, id);
      }),
      remove: once((behind) => (offered: unknown) => {
        current.act(`fields.${behind.name}.remove()`);
        const it = Face.behind(offered);
        if (it === null || it.row === null) return current.wrong(words.noRow(behind.name, offered));
        wire.act('removeRow', { field: behind.number, row: it.row });
      }),
      sum: once((behind) => (column: unknown) => {
        const name = String(column);
        const at = columnsOf(behind).findIndex((one) => one.name === name);
        if (at < 0)
          return current.wrong(
            words.noCell(
              behind.name,
              name,
              columnsOf(behind).map((one) => one.name),
            ),
          );
        const { kind } = columnsOf(behind)[at]!;
        if (kind !== 'number' && kind !== 'money')
          return current.wrong(words.notNumbers(behind.name, name));
        wire.cells[Cell.More] = at;
        return Face.read(behind, Slot.Sum, wire);
      }),
    },
    refusals,
    ({ name }) => `fields.${name}`,
  );

  function rowsOf(behind: Behind): readonly object[] {
    const version = Face.read(behind, Slot.Rows, wire);
    const known = lists.get(behind.number);
    if (known !== undefined && known.version === version) return known.faces;
    const told = wire.act('rows', { field: behind.number });
    const made: object[] = [];
    for (let i = 0; i < told.length; i += 2) made.push(row(told[i]!, behind.number, told[i + 1]!));
    lists.set(behind.number, { version, faces: Object.freeze(made) });
    return made;
  }

  function columnTokens(behind: Behind): object {
    const known = columnsOf(behind).map(({ name }) => name);
    const made = new Map(
      known.map((column) => {
        const token = Object.freeze({ name: column });
        tokens.set(token, [behind.number, column]);
        return [column, () => token] as const;
      }),
    );
    return gather(made, {
      assign: (name) => current.wrong(words.readOnly(`${behind.name}.each`, name)),
      unknown: (name) => current.wrong(words.noCell(behind.name, name, known)),
    });
  }

  /** The surface of the rows of one field, since their cells are named by its columns. */
  function surfaceOf(field: Behind): Surface {
    const made = surfaces.get(field.number);
    if (made !== undefined) return made;
    const names = columnsOf(field).map(({ name }) => name);
    const cells = makeSurface(
      Object.fromEntries(
        columnsOf(field).map((info, i): [string, Member] => [
          info.name,
          {
            ...Face.member(
              ({ number, name }) =>
                (faces[number + 1 + i] ??= cell.face({
                  number: number + 1 + i,
                  info,
                  name: `${name}.${info.name}`,
                  row: number,
                })),
            ),
            set(this: unknown) {
              current.wrong(words.assignPart('field', `${Face.behind(this)!.name}.${info.name}`));
            },
          },
        ]),
      ),
      {
        readOnly: refusals.readOnly,
        unknown: (_behind, name) => current.wrong(words.noCell(field.name, name, names)),
      },
      ({ name }) => `${name}.fields`,
    );
    const surface = makeSurface(
      withSaid('row', {
        fields: once((behind) => cells.face(behind)),
        values: read(Slot.Values),
        index: read(Slot.Index),
        ...without(nested, ['name', 'label']),
      }),
      refusals,
      ({ name }) => name,
    );
    surfaces.set(field.number, surface);
    return surface;
  }

  function row(number: number, field: number, id: number): object {
    const known = faces[number];
    if (known != null) return known;
    const behind = fields.get(field)!;
    const info: PartInfo = { ...behind.info, sort: 'row' };
    return (faces[number] = surfaceOf(behind).face({
      number,
      info,
      name: `${behind.name}#${id}`,
      row: number,
    }));
  }

  return {
    fieldSurface: {
      face(behind) {
        fields.set(behind.number, behind);
        return fieldSurface.face(behind);
      },
    },
    row,
    columnOf: (token) =>
      typeof token === 'object' && token !== null ? (tokens.get(token) ?? null) : null,
  };
}
