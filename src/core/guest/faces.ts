/**
 * The parts of a form as scripts touch them: `fields`, `sections`, `pages`, `tracks`, `buttons`, all frozen. Each face
 * only passes reads and writes on to the session; a name or aspect that does not exist is answered in words. Rows and
 * cells are `row-faces.ts`. `language/typings.ts` describes the same surface to the editor, and a test holds the two
 * together.
 */
import { isEmpty, type Value } from '../form/value';
import type { PartInfo } from '../wire/acts';
import { nearest, words } from '../wire/failures';
import { saidOf, type SaidName } from '../wire/aspects';
import { SLOT_OF } from '../wire/slots';
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
  const said = (name: SaidName): Member => Face.aspect(SLOT_OF[name], wire, current, true);
  /** What can be said of a sort of part, after what it has already. */
  const withSaid = (sort: PartSort, members: Members): Members => ({
    ...members,
    ...Object.fromEntries(
      saidOf(sort)
        .filter((name) => !Object.hasOwn(members, name))
        .map((name) => [name, said(name)]),
    ),
  });
  const value = (behind: Behind): Value => Face.read(behind, Slot.Value, wire) as Value;

  const nested: Members = {
    name: Face.member(({ info }) => info.name),
    label: Face.member(({ info }) => info.label),
    shown: said('shown'),
    locked: said('locked'),
    onScreen: read(Slot.OnScreen),
    editable: read(Slot.Editable),
  };
  const ofField = withSaid('field', {
    ...nested,
    value: said('value'),
    previous: read(Slot.Previous),
    initial: read(Slot.Initial),
    empty: Face.member((behind) => isEmpty(value(behind))),
    orphan: read(Slot.Orphan),
    required: said('required'),
    options: said('options'),
    optionLabel: read(Slot.OptionLabel),
    row: Face.member((behind) => {
      const { kind, table } = behind.info;
      const key = value(behind);
      return kind === 'reference' && key !== null ? tables.find(table!, String(key)) : null;
    }),
  });

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
    withSaid,
    cell: field,
  });
  const surfaces: Record<Exclude<PartSort, 'row' | 'form'>, Surface> = {
    field,
    section: makeSurface(withSaid('section', nested), refusals, ({ name }) => `sections.${name}`),
    page: makeSurface(
      {
        ...withSaid('page', nested),
        open: Face.member(({ number, name }) => () => {
          current.act(`pages.${name}.open()`);
          wire.act('openPage', { page: number });
        }),
      },
      refusals,
      ({ name }) => `pages.${name}`,
    ),
    track: makeSurface(
      withSaid('track', without(nested, ['locked', 'editable'])),
      refusals,
      ({ name }) => `tracks.${name}`,
    ),
    button: makeSurface(
      // Its label can be said; that of another part is its definition's.
      withSaid('button', { ...nested, label: said('label') }),
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
