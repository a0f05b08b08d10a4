/**
 * The form's own corrections once scripts are still: a value that is no longer among the options goes,
 * and a field that is to be cleared when it is hidden is cleared, and begins again when it is shown again (11).
 */
import { equal, isEmpty } from '../form/value';
import { keepMap, type Restore } from './checkpoint';
import type { Part } from './parts';
import type { Progress } from './progress';
import type { State } from './state';
import type { Writing } from './writing';
import { emptyOf, holdsKeys } from '../form/traits';
import type { Defaults } from './defaults';

export class Corrections {
  /** Whether fields were on screen at the last rest. */
  readonly #wasOnScreen = new Map<Part, boolean>();
  /** No field of the form is ever cleared, so nothing has to be noted. */
  readonly #clears: boolean;

  constructor(
    private readonly state: State,
    private readonly progress: Progress,
    private readonly writing: Writing,
    private readonly defaults: Defaults,
  ) {
    this.#clears = state.parts.fields.some(
      ({ field }) =>
        field.whenHidden === 'clear' ||
        (field.kind === 'rows' && field.fields.some((cell) => cell.whenHidden === 'clear')),
    );
  }

  /** Corrects what has to be; true when there was something, so that settling goes on. */
  correct(cause: number | null): boolean {
    let corrected = false;
    for (const part of Array.from(this.state.outdated.parts)) {
      if (part.sort !== 'field' || part.row?.removed === true) continue;
      if (holdsKeys(part.field)) corrected = this.#dropUnoffered(part, cause) || corrected;
      if (this.#clears) corrected = this.#clearHidden(part, cause) || corrected;
    }
    return corrected;
  }

  #dropUnoffered(part: Part, cause: number | null): boolean {
    const { value } = part;
    const gone = this.state.offers.notOffered(part, value);
    if (gone.length === 0) {
      if (this.state.orphans.delete(part)) this.state.outdated.parts.add(part);
      return false;
    }
    if (this.state.orphans.has(part)) return false;
    if (this.progress.opening && equal(value, this.state.initialOf(part))) {
      this.state.orphans.add(part);
      return false;
    }
    // Of several keys only the missing ones go.
    this.writing.enter(
      part,
      Array.isArray(value) ? (value as string[]).filter((key) => !gone.includes(key)) : null,
      'form',
      cause,
    );
    return true;
  }

  #clearHidden(part: Part, cause: number | null): boolean {
    const { field } = part;
    if (field.whenHidden !== 'clear' || this.progress.opening) return false;
    const on = part.onScreen;
    const was = this.#wasOnScreen.get(part) ?? on;
    if (on === was) return false;
    this.#wasOnScreen.set(part, on);
    this.progress.journal.undoable(() => this.#wasOnScreen.set(part, was));
    const aspect = part.aspect('value');
    if (!on) {
      if (isEmpty(aspect.current)) return false;
      this.writing.enter(part, emptyOf(field), 'form', cause);
      return true;
    }
    const fallback = this.defaults.of(part.field);
    const wrote = isEmpty(aspect.current) && !isEmpty(fallback);
    if (wrote) this.writing.enter(part, fallback, 'form', cause);
    // A rule that says this value says it again.
    for (const { rule } of aspect.ruleClaims) {
      rule.state = 'forced';
      this.state.outdated.rules.add(rule);
    }
    return wrote || aspect.ruleClaims.length > 0;
  }

  /** All is still: what is on screen now is what the next hiding is judged against. */
  rest(): void {
    if (!this.#clears) return;
    if (this.progress.opening) for (const part of this.state.parts.fields) this.#note(part);
    else for (const part of this.state.outdated.parts) this.#note(part);
  }

  #note(part: Part): void {
    if (part.sort !== 'field') return;
    if (part.field.whenHidden === 'clear') this.#wasOnScreen.set(part, part.onScreen);
    const { rows } = part;
    if (rows === null || !this.progress.opening) return;
    for (const [name, { field }] of rows.columns) {
      if (field.whenHidden === 'clear')
        for (const row of rows.list) this.#note(rows.cell(row, name));
    }
  }

  forget(): void {
    this.#wasOnScreen.clear();
  }

  checkpoint(): Restore {
    return keepMap(this.#wasOnScreen);
  }
}
