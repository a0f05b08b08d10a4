/** Everything on the bench that saves itself, whichever room it belongs to. */
import { losesOnLeaving, type Saving } from '../../draft/draft';

/** Which room a draft belongs to. */
export type Edited = 'structure' | 'behaviours' | 'scenarios';

/** What is asked of a draft here. */
export interface Saveable {
  readonly value: unknown;
  readonly saving: Saving<unknown>;
  save(): Promise<void>;
  leave(): void;
}

export class BenchSaving {
  readonly #rooms: { edited: Edited; drafts: () => Iterable<Saveable> }[] = [];

  /** A room lends its drafts, those there are when it is asked. */
  add(edited: Edited, drafts: () => Iterable<Saveable>): void {
    this.#rooms.push({ edited, drafts });
  }

  async saveAll(): Promise<void> {
    await Promise.all(
      this.#rooms.flatMap(({ drafts }) => [...drafts()].map((draft) => draft.save())),
    );
  }

  /** Saves what is not saved yet before the page is left. */
  leave(): void {
    for (const { drafts } of this.#rooms) for (const draft of drafts()) draft.leave();
  }

  /** What is not saved, after it was tried; null where everything is. */
  async notSaved(): Promise<Edited | null> {
    await this.saveAll();
    return this.unsavedNow();
  }

  /** What is not saved at this moment, be it on its way. */
  unsavedNow(): Edited | null {
    return (
      this.#rooms.find(({ drafts }) => [...drafts()].some(({ saving }) => saving.state !== 'saved'))
        ?.edited ?? null
    );
  }

  /** Whether something is unsaved that leaving the page does not save for certain. */
  losesOnLeaving(): boolean {
    return this.#rooms.some(({ drafts }) =>
      [...drafts()].some(({ saving, value }) => losesOnLeaving(saving, value)),
    );
  }
}
