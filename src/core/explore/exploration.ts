/**
 * One search while it lasts: what it goes over, the sessions it plays, what it has found. Relations and predicates take
 * it, play what they need and report.
 */
import { equal, type Value } from '../form/value';
import { randomFrom } from '../random';
import { isOffered } from '../scenario/seen';
import type { RunEntry } from '../session/entries';
import type { Opening, PartState } from '../session/step';
import { Covered } from './covered';
import {
  driversOf,
  isValid,
  returnedDriversOf,
  rowsDriversOf,
  type Driver,
  type RowsDriver,
} from './drivers';
import {
  betterOf,
  keyOf,
  placesOf,
  type At,
  type Finding,
  type Kind,
  type Level,
  type Way,
} from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import type { Checkpoints } from './checkpoints';
import { placesIn, Player, type HeldStep, type OnPlayed, type Ran } from './play';
import { inspect } from './predicates';
import { saidAbout, type Said } from './said';

/** Ends a search, or the phase that is over; nothing that was found is lost. */
export class Enough extends Error {}

/** Sessions in which it is tried whether scripts write over a value that they wrote. */
const OWNED_AFTER = 6;

export interface MoreOfIt {
  onPlayed?: OnPlayed | undefined;
  /** What scripts mention is to be among all that is entered, since it is little, such as what changed. */
  isFocused?: boolean | undefined;
}

export class Exploration {
  readonly drivers: readonly Driver[];
  readonly rowsDrivers: readonly RowsDriver[];
  /** Fields that a form opened from this one may hand a value back to. */
  readonly returned: readonly Driver[];
  readonly buttons: readonly string[];
  readonly covered: Covered;
  /** Records that submissions of the search would have saved. */
  readonly saved: NonNullable<Opening['records']> = [];
  /** Stops that no way out was found of, by their part, with what is said of them. */
  readonly deadEnds = new Map<string, { ran: Ran; says: string }>();
  /** Hints about values that a handler adds to, with the words that may turn out to add what was entered. */
  readonly growing = new Map<string, readonly Said[]>();
  /** Fields over whose values scripts have written values of their own. */
  readonly owned = new Set<string>();
  readonly #triedToOwn = new Map<string, number>();
  readonly #found = new Map<string, Finding>();
  readonly #inspected = new WeakSet<Ran>();
  readonly #player: Player;
  readonly random: () => number;

  constructor(
    readonly ground: Ground,
    readonly mentions: Mentions,
    stage: Stage,
    seed: number,
    mayGoOn: (sessions: number) => void,
    checkpoints: Checkpoints,
    private readonly more: MoreOfIt = {},
  ) {
    this.random = randomFrom(seed);
    this.drivers = driversOf(ground, this.mentions);
    this.rowsDrivers = rowsDriversOf(ground, this.mentions);
    this.returned = returnedDriversOf(ground, this.mentions);
    this.buttons = (ground.form.buttons ?? []).map(({ name }) => name);
    this.covered = new Covered();
    this.#player = new Player(
      ground.form,
      stage,
      checkpoints,
      (ran, runs, steps) => this.#played(ran, runs, steps),
      () => mayGoOn(this.sessions),
    );
  }

  get isFocused(): boolean {
    return this.more.isFocused === true;
  }

  get sessions(): number {
    return this.#player.sessions;
  }

  get steps(): number {
    return this.#player.steps;
  }

  get findings(): readonly Finding[] {
    return [...this.#found.values()];
  }

  #played(ran: Ran, runs: readonly RunEntry[], steps: readonly HeldStep[]): void {
    this.covered.note(ran, runs);
    this.#noteOwned(ran);
    this.more.onPlayed?.(ran, runs, steps);
  }

  /** A script wrote over what a script had written: the field is its own, and nothing that a person typed there excuses it. */
  #noteOwned({ said }: Ran): void {
    const written = new Map<string, Value>();
    for (const { part, aspect, from, to } of said) {
      if (aspect !== 'value') continue;
      const before = written.get(part);
      if (before !== undefined && from !== null && equal(before, from) && !equal(to, from))
        this.owned.add(part);
      written.set(part, to);
    }
  }

  /** Whether it is worth a session to learn if scripts own a field. Each asking is a try, of which there are a few. */
  triesToOwn(part: string): boolean {
    const tried = this.#triedToOwn.get(part) ?? 0;
    this.#triedToOwn.set(part, tried + 1);
    return tried < OWNED_AFTER && !this.owned.has(part);
  }

  /** Plays a session and looks at it by itself, once. */
  play(opening: Opening, steps: readonly HeldStep[]): Ran {
    const ran = this.#player.play(opening, steps);
    if (!this.#inspected.has(ran)) {
      this.#inspected.add(ran);
      inspect(this, ran);
    }
    return ran;
  }

  /** Plays a session that is only compared with. */
  quietly(opening: Opening, steps: readonly HeldStep[]): Ran {
    return this.#player.play(opening, steps);
  }

  report(
    kind: Kind,
    level: Level,
    of: { part: string; aspect: string },
    lines: Iterable<At>,
    says: string,
    one: Ran | Way,
    other: Ran | Way | null = null,
    met: Finding['met'] = null,
  ): void {
    const key = keyOf({ kind, ...of });
    const before = this.#found.get(key);
    const made: Finding = {
      kind,
      level,
      ...of,
      lines: placesOf(lines),
      says,
      way: wayOf(one),
      other: other === null ? null : wayOf(other),
      met,
      also: [],
    };
    this.#found.set(key, before === undefined ? made : betterOf(before, made));
  }

  /** The same as another search has found. That it adds up what was entered only a whole search can tell. */
  foundAgain(finding: Finding): Finding | null {
    const key = keyOf(finding);
    const now = this.#found.get(key);
    if (now === undefined) return null;
    if (now.level === finding.level) return now;
    return this.growing.has(key) && finding.level === 'wrong' ? { ...now, level: 'wrong' } : null;
  }

  /** What adds up what was entered is no counter, which is known only once enough was entered. */
  judgeGrowing(): void {
    for (const [key, said] of this.growing) {
      const finding = this.#found.get(key);
      if (finding?.level === 'may' && said.some((one) => this.covered.addsEntered(one)))
        this.#found.set(key, { ...finding, level: 'wrong' });
    }
  }

  /** What scripts said of an aspect in some sessions. */
  said(part: string, aspect: string, ...rans: readonly Ran[]): Said[] {
    return rans.flatMap(({ said }) => saidAbout(said, part, aspect, this.ground.form));
  }

  pick<T>(from: readonly T[]): T | undefined {
    return from[Math.floor(this.random() * from.length)];
  }

  shuffled<T>(list: readonly T[]): T[] {
    return list
      .map((one) => [this.random(), one] as const)
      .sort(([a], [b]) => a - b)
      .map(([, one]) => one);
  }

  /** Drivers in an order that is drawn, those first that scripts mention. */
  inOrder<D extends { address: string }>(drivers: readonly D[]): D[] {
    const isMentioned = ({ address }: D) => this.mentions.words.includes(address);
    return this.shuffled(drivers).sort((a, b) => Number(isMentioned(b)) - Number(isMentioned(a)));
  }

  /** The fields that can be set at the end of a session. */
  settable({ parts }: Ran): Driver[] {
    return this.drivers.filter(({ address }) => isOpen(parts[address]));
  }

  /** The buttons that can be pressed at the end of a session. */
  pressable({ parts }: Ran): string[] {
    return this.buttons.filter((name) => isOpen(parts[name]));
  }

  /**
   * A row to add after these steps, with the cells that can be filled in there; with values that the definition takes where
   * it is to be good.
   */
  newRow(
    { name, cells }: RowsDriver,
    good: boolean,
    opening: Opening,
    before: readonly HeldStep[],
  ): HeldStep {
    // What scripts mention is left out more often: whether it is there may be what they ask.
    const isGiven = ({ address, field }: Driver) =>
      field.required === true ||
      this.random() < (this.mentions.words.includes(address) ? 0.65 : 0.85);
    const given = cells.filter(isGiven);
    const values = given.map(({ address, field, values: all }): [string, Value] => {
      const some = good ? all.filter((value) => isValid(field, value)) : all;
      return [address, this.pick(this.isFocused ? some : some.slice(0, 6)) ?? null];
    });
    const filled = { addRow: name, with: Object.fromEntries(values) };
    const ran = this.quietly(opening, [...before, filled]);
    const row = `${name}[${placesIn(ran, name) - 1}]`;
    const refused = new Set(ran.refused.map((step) => ('set' in step ? step.set : '')));
    const taken = values.filter(([cell]) => !refused.has(`${row}.${cell}`));
    return { addRow: name, with: Object.fromEntries(taken) };
  }
}

function wayOf({ opening, steps }: Ran | Way): Way {
  return { opening, steps };
}

/** People can change it. */
export function isOpen(part: PartState | undefined): part is PartState {
  return part !== undefined && part.editable && part.onScreen;
}

/** What can be chosen in a field at the end of a session. */
export function offeredIn({ parts }: Ran, { address, values }: Choosable): Value[] {
  return values.filter((value) => isOffered(parts[address], value));
}

/** The same without what is there already. */
export function othersIn(ran: Ran, driver: Choosable): Value[] {
  const now = valueIn(ran, driver.address);
  return offeredIn(ran, driver).filter((value) => !equal(value, now));
}

type Choosable = Pick<Driver, 'address' | 'values'>;

/** The value of a field at the end of a session. */
export function valueIn({ parts }: Ran, address: string): Value {
  return (parts[address]?.value ?? null) as Value;
}
