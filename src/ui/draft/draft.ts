/**
 * Something that is edited and saves itself: shortly after an edit, one saving after the other, again when the server was
 * out of reach. Where somebody else was faster, both are shown. What is not saved yet is kept in the browser too, so that
 * a reload or a crash loses nothing. Behaviours, structures, tables, services and people are all edited through it.
 */
import { equal } from '@/core/form/value';
import { call, sendsOnLeaving } from '../api';

export type Saving<T> =
  | { state: 'saved' }
  | { state: 'waiting' }
  /** The server cannot be reached or refuses. */
  | { state: 'unsaved'; says: string }
  | { state: 'conflict'; theirs: { content: T; revision: number } };

/** Whether leaving the page may lose what is not saved; `body` is what would be sent. */
export function losesOnLeaving(saving: Saving<unknown>, body: unknown): boolean {
  return (
    saving.state === 'unsaved' ||
    saving.state === 'conflict' ||
    (saving.state === 'waiting' && !sendsOnLeaving(body))
  );
}

/** The outcome of a save. */
export type Sent<T> =
  | { is: 'saved'; revision: number }
  | { is: 'conflict'; theirs: { content: T; revision: number } }
  /** It will be refused again until it is changed. */
  | { is: 'refused'; says: string }
  | { is: 'unreachable'; says: string };

/** What keeps unsaved values in the browser. */
export interface Keeping<T> {
  put(value: T, revision: number): void;
  remove(): void;
}

export interface DraftOptions<T> {
  value: T;
  /** The revision the value was read at; 0 for something new. */
  revision: number;
  send(value: T, from: number): Promise<Sent<T>>;
  keep: Keeping<T>;
  /** Called after every change of value, revision or saving. */
  onChange(): void;
}

/** Real milliseconds without an edit after which it is saved, and between tries. */
const SAVE_AFTER = 600;
const AGAIN_AFTER = 2000;

export class Draft<T> {
  #value: T;
  #revision: number;
  #saving: Saving<T> = { state: 'saved' };
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending: Promise<void> | null = null;
  /** What was sent last, and may still be on its way. */
  #sent: T | undefined;
  #over = false;

  constructor(private readonly options: DraftOptions<T>) {
    this.#value = options.value;
    this.#revision = options.revision;
  }

  get value(): T {
    return this.#value;
  }

  get revision(): number {
    return this.#revision;
  }

  get saving(): Saving<T> {
    return this.#saving;
  }

  /** Puts another value, which is saved shortly after. During a conflict it is kept until that is settled. */
  edit(value: T): void {
    if (value === this.#value) return;
    this.#value = value;
    this.options.keep.put(value, this.#revision);
    if (this.#saving.state === 'conflict') return this.options.onChange();
    this.#stand({ state: 'waiting' });
    this.#later(SAVE_AFTER);
  }

  /** Saves at once what is not saved yet, and comes back when that is done or has failed. */
  async save(): Promise<void> {
    clearTimeout(this.#timer);
    while (this.#sending !== null) await this.#sending;
    if (this.#saving.state === 'saved' || this.#saving.state === 'conflict') return;
    this.#sending = this.#send().finally(() => {
      this.#sending = null;
    });
    await this.#sending;
  }

  /**
   * Saves what is not saved yet before the page is left. Nobody will be there when a saving that is under way is over, so
   * what came after it is sent behind it, as what follows the revision that it makes, and for the case that it arrives
   * first, as what follows the revision that both began with. One of the two is refused as late, and nobody waits for it.
   */
  leave(): void {
    if (this.#sending === null) return void this.save();
    if (this.#saving.state !== 'waiting' || this.#value === this.#sent) return;
    this.#sent = this.#value;
    for (const from of [this.#revision + 1, this.#revision])
      void this.options.send(this.#value, from);
  }

  /** Ends a conflict with one of the two values. */
  settle(take: 'mine' | 'theirs'): void {
    if (this.#saving.state !== 'conflict') return;
    const { content, revision } = this.#saving.theirs;
    this.#revision = revision;
    if (take === 'theirs') {
      this.#value = content;
      this.options.keep.remove();
      this.#stand({ state: 'saved' });
    } else {
      this.#stand({ state: 'waiting' });
      void this.save();
    }
  }

  /** Takes a value that was saved elsewhere, unless there is one here that is not saved yet. Whether it was taken. */
  adopt(value: T, revision: number): boolean {
    if (this.#saving.state !== 'saved' || revision <= this.#revision) return false;
    this.#value = value;
    this.#revision = revision;
    this.#stand({ state: 'saved' });
    return true;
  }

  /** Nothing is saved or tried again any more; what is kept in the browser stays unless `forget`. */
  end(forget = false): void {
    this.#over = true;
    clearTimeout(this.#timer);
    if (forget) this.options.keep.remove();
  }

  async #send(): Promise<void> {
    const sent = this.#value;
    this.#sent = sent;
    const came = await this.options.send(sent, this.#revision);
    if (this.#over) {
      if (came.is === 'saved') this.options.keep.remove();
      return;
    }
    switch (came.is) {
      case 'saved':
        this.#revision = came.revision;
        if (this.#value === sent) {
          this.options.keep.remove();
          return this.#stand({ state: 'saved' });
        }
        this.options.keep.put(this.#value, this.#revision);
        this.#stand({ state: 'waiting' });
        return this.#later(SAVE_AFTER);
      case 'conflict':
        // As where it was sent on leaving a page that was not left.
        if (equal(came.theirs.content, this.#value)) {
          this.#revision = came.theirs.revision;
          this.options.keep.remove();
          return this.#stand({ state: 'saved' });
        }
        return this.#stand({ state: 'conflict', theirs: came.theirs });
      case 'refused':
        return this.#stand({ state: 'unsaved', says: came.says });
      case 'unreachable':
        this.#stand({ state: 'unsaved', says: came.says });
        return this.#later(AGAIN_AFTER);
    }
  }

  #later(after: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.save(), after);
  }

  #stand(saving: Saving<T>): void {
    this.#saving = saving;
    this.options.onChange();
  }
}

/** Sends a value to a path with PUT. `theirs` reads the other value out of a conflict. */
export async function put<T>(
  path: string,
  body: object,
  theirs: (reply: { theirs: never }) => { content: T; revision: number },
): Promise<Sent<T>> {
  const reply = await call<{ revision: number }>('PUT', path, body);
  if (reply.ok) return { is: 'saved', revision: reply.body.revision };
  if (
    reply.status === 409 &&
    typeof reply.body === 'object' &&
    reply.body !== null &&
    'theirs' in reply.body
  )
    return { is: 'conflict', theirs: theirs(reply.body as { theirs: never }) };
  return {
    is: reply.status === 0 || reply.status >= 500 ? 'unreachable' : 'refused',
    says: reply.says,
  };
}
