/** What a person does with fields and buttons: entering, typing, visiting, pressing. Each says why it cannot be done, or null. */
import { equal, type Value } from '../form/value';
import type { Part } from './parts';
import type { Progress } from './progress';
import type { Situation } from './situation';
import type { State } from './state';
import { offer, reachable } from './step-words';
import type { Ties } from './ties';
import { partAt } from './tree';
import type { Waiting } from './waiting';
import type { Writing } from './writing';

export class Entering {
  constructor(
    private readonly state: State,
    private readonly progress: Progress,
    private readonly situation: Situation,
    private readonly ties: Ties,
    private readonly waiting: Waiting,
    private readonly writing: Writing,
  ) {}

  set(name: string, offered: Value, cause: number | null): string | null {
    this.#leaveTyping(name, cause);
    const found = this.#found(name, offered);
    if (typeof found === 'string') return found;
    const { part, value } = found;
    this.situation.typing = null;
    this.#moveFocus(part, cause);
    this.#fire('input', part, value, cause);
    this.#commit(part, value, cause);
    this.#fire('blur', part, value, cause);
    this.situation.focused = null;
    return null;
  }

  input(name: string, offered: Value, cause: number | null): string | null {
    this.#leaveTyping(name, cause);
    const found = this.#found(name, offered);
    if (typeof found === 'string') return found;
    const { part, value } = found;
    this.#moveFocus(part, cause);
    this.situation.typing = { part, value };
    this.#fire('input', part, value, cause);
    return null;
  }

  focus(name: string, cause: number | null): string | null {
    this.#leaveTyping(name, cause);
    const part = this.#reachable(name, 'field');
    // A locked field can be visited, if not changed.
    const visited = typeof part === 'string' ? partAt(this.state.parts, name) : part;
    if (
      typeof part === 'string' &&
      (visited === null || visited.sort !== 'field' || !visited.onScreen)
    )
      return part;
    this.#moveFocus(visited!, cause);
    return null;
  }

  blur(name: string, cause: number | null): string | null {
    const part = partAt(this.state.parts, name);
    if (part === null || part.sort !== 'field') return `there is no field "${name}"`;
    this.commitTyping(cause);
    if (this.situation.focused === part) {
      this.#fire('blur', part, part.value, cause);
      this.situation.focused = null;
    }
    return null;
  }

  click(name: string, cause: number | null): string | null {
    const part = this.#reachable(name, 'button');
    if (typeof part === 'string') return part;
    const busy = this.waiting.runs.some(
      (run) => run.part === part && run.handler.overlap === 'supersede',
    );
    if (busy) return `${part.label} is busy until what it began has ended`;
    this.#fire('click', part, null, cause);
    return null;
  }

  /** What was typed is entered, as any other step does first. */
  commitTyping(cause: number | null): void {
    const { typing } = this.situation;
    if (typing === null) return;
    this.situation.typing = null;
    if (typing.part.row?.removed !== true) this.#commit(typing.part, typing.value, cause);
    if (this.situation.focused === typing.part) {
      this.#fire('blur', typing.part, typing.value, cause);
      this.situation.focused = null;
    }
  }

  #leaveTyping(name: string, cause: number | null): void {
    const { typing } = this.situation;
    if (typing !== null && typing.part.address !== name) this.commitTyping(cause);
  }

  #reachable(name: string, sort: 'field' | 'button'): Part | string {
    return reachable(this.state, this.situation, name, sort);
  }

  #found(name: string, offered: Value): { part: Part; value: Value } | string {
    const part = this.#reachable(name, 'field');
    if (typeof part === 'string') return part;
    const taken = offer(this.state, part, offered);
    return typeof taken === 'string' ? taken : { part, value: taken.value };
  }

  #moveFocus(part: Part, cause: number | null): void {
    const before = this.situation.focused;
    if (before === part) return;
    if (before !== null) this.#fire('blur', before, before.value, cause);
    this.situation.focused = part;
    this.#fire('focus', part, part.value, cause);
  }

  #fire(
    type: 'input' | 'focus' | 'blur' | 'click',
    part: Part,
    value: Value,
    cause: number | null,
  ): void {
    // Most fields have nobody listening for these.
    if (!this.ties.listens(type, part)) return;
    const previous = type === 'click' ? null : type === 'blur' ? value : part.value;
    this.progress.queue.push({
      type,
      part,
      row: part.row,
      value,
      previous,
      by: 'person',
      from: null,
      cause,
    });
  }

  /** Writes what a person entered when its turn in the queue comes. */
  #commit(part: Part, value: Value, cause: number | null): void {
    this.progress.queue.push(() => {
      const aspect = part.aspect('value');
      // A handler may have removed the row meanwhile.
      if (part.row?.removed === true || equal(aspect.base, value)) return;
      this.progress.entered(() => this.state.setValue(aspect, value, null));
      this.writing.enter(part, value, 'person', cause);
    });
  }
}
