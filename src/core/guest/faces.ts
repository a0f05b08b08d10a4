/**
 * The parts of a form as scripts touch them: `fields`, `sections`, `pages`, `tracks`, `buttons`, all frozen. Each face
 * only passes reads and writes on to the session; a name or aspect that does not exist is answered in words. Rows and
 * cells are `row-faces.ts`. `language/typings.ts` describes the same surface to the editor, and a test holds the two
 * together.
 */
import { isEmpty, type Value } from '../form/value';
import type { PartInfo } from '../wire/acts';
import { nearest, words } from '../wire/failures';
import { Slot, type PartSort } from '../wire/layout';
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
import { makeRowFaces, type RowFaces } from './row-faces';
import type { Tables } from './tables';
import type { Wire } from './wire';

export interface Faces extends RowFaces {
  globals: { fields: object; sections: object; pages: object; tracks: object; buttons: object };
  /** The face of a part of the form by its number. */
  part(number: number): object;
  /** Parts of the form have lower numbers, rows and cells these and higher ones. */
  readonly fixed: number;
}

/** What each sort of part has besides what all have; `PartSort` says which there are. */
export function makeFaces(
  parts: readonly PartInfo[],
  wire: Wire,
  current: Current,
  tables: Tables,
): Faces {
  const refusals: Refusals = {
    readOnly: ({ name }, member) => current.wrong(words.readOnly(name, member)),
    unknown: ({ name }, member, known) => current.wrong(words.noAspect(name, member, known)),
  };
  const read = (slot: Slot): Member => Face.aspect(slot, wire, current, false);
  const both = (slot: Slot): Member => Face.aspect(slot, wire, current, true);
  const value = (behind: Behind): Value => Face.read(behind, Slot.Value, wire) as Value;

  const nested: Members = {
    name: Face.member(({ info }) => info.name),
    label: Face.member(({ info }) => info.label),
    shown: both(Slot.Shown),
    locked: both(Slot.Locked),
    onScreen: read(Slot.OnScreen),
    editable: read(Slot.Editable),
  };
  const ofField: Members = {
    ...nested,
    value: both(Slot.Value),
    previous: read(Slot.Previous),
    initial: read(Slot.Initial),
    empty: Face.member((behind) => isEmpty(value(behind))),
    orphan: read(Slot.Orphan),
    required: both(Slot.Required),
    options: both(Slot.Options),
    optionLabel: read(Slot.OptionLabel),
    row: Face.member((behind) => {
      const { kind, table } = behind.info;
      const key = value(behind);
      return kind === 'reference' && key !== null ? tables.find(table!, String(key)) : null;
    }),
    hint: both(Slot.Hint),
    warning: both(Slot.Warning),
    problem: both(Slot.Problem),
  };

  const field = makeSurface(ofField, refusals, ({ row, name }) =>
    row === null ? `fields.${name}` : name,
  );
  const rowFaces = makeRowFaces({
    wire,
    current,
    refusals,
    nested,
    ofField,
    read,
    both,
    cell: field,
  });
  const surfaces: Record<Exclude<PartSort, 'row' | 'form'>, Surface> = {
    field,
    section: makeSurface(nested, refusals, ({ name }) => `sections.${name}`),
    page: makeSurface(
      {
        ...nested,
        open: Face.member(({ number, name }) => () => {
          current.act(`pages.${name}.open()`);
          wire.act('openPage', { page: number });
        }),
      },
      refusals,
      ({ name }) => `pages.${name}`,
    ),
    track: makeSurface(
      { ...without(nested, ['locked', 'editable']), stage: both(Slot.Stage) },
      refusals,
      ({ name }) => `tracks.${name}`,
    ),
    button: makeSurface(
      { ...nested, label: both(Slot.Label) },
      refusals,
      ({ name }) => `buttons.${name}`,
    ),
  };

  const faces = parts.map((info, number): object | null => {
    if (info.sort === 'form' || info.sort === 'row') return null;
    const surface = info.columns === null ? surfaces[info.sort] : rowFaces.fieldSurface;
    return surface.face({ number, info, name: info.name, row: null });
  });

  const gatherParts = (sort: keyof typeof surfaces): object => {
    const found = new Map(
      parts.flatMap((info, number) =>
        info.sort === sort ? [[info.name, () => faces[number]] as const] : [],
      ),
    );
    return gather(found, {
      assign: (name) => current.wrong(words.assignPart(sort, name)),
      unknown: (name) => current.wrong(words.noPart(sort, name, nearest(name, found.keys()))),
    });
  };

  return {
    ...rowFaces,
    globals: {
      fields: gatherParts('field'),
      sections: gatherParts('section'),
      pages: gatherParts('page'),
      tracks: gatherParts('track'),
      buttons: gatherParts('button'),
    },
    part: (number) => faces[number]!,
    fixed: parts.length,
  };
}
