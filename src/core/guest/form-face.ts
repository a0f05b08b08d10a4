/** `form`, as scripts see it: how it was opened, and what can be done with it as a whole. */
import { words } from '../wire/failures';
import { Cell, Double, Op, Slot, Tag } from '../wire/layout';
import type { Current } from './current';
import { isSilent } from './face';
import type { Wire } from './wire';

/** The form is part 0. */
const READ = {
  isNew: Slot.IsNew,
  record: Slot.Record,
  person: Slot.Person,
  launch: Slot.Launch,
  viewing: Slot.Viewing,
  changed: Slot.Changed,
} as const;

/** What only handlers may do. */
const OF_HANDLERS: ReadonlySet<string> = new Set(['clear', 'reset', 'submit']);

const TONES: ReadonlySet<unknown> = new Set(['info', 'warning', 'error']);

export function formFace(wire: Wire, current: Current): object {
  const { cells, call, take } = wire;
  const known: string[] = [];
  const fault = (says: string): never => current.wrong(says);
  const target = Object.create(
    new Proxy(Object.freeze(Object.create(null) as object), {
      get: (_, name) =>
        isSilent(name) ? undefined : fault(words.noAspect('form', String(name), known)),
      set: (_, name) => fault(words.noAspect('form', String(name), known)),
    }),
  ) as object;
  const define = (name: string, get: () => unknown) => {
    known.push(name);
    Object.defineProperty(target, name, {
      enumerable: true,
      get,
      set: () => fault(words.readOnly('form', name)),
    });
  };
  const ask = (op: Op, slot: Slot): unknown => {
    cells[Cell.Op] = op;
    cells[Cell.Aspect] = slot;
    call();
    // What is answered to something said is nothing, or a fault.
    return op === Op.Say && cells[Cell.Tag]! < Tag.Fault
      ? undefined
      : take(Cell.Tag, Cell.Payload, Double.Answer);
  };
  const say = (slot: Slot, value: unknown): void => {
    wire.give(value);
    cells[Cell.Line] = current.probe!.l;
    ask(Op.Say, slot);
  };
  for (const [name, slot] of Object.entries(READ)) define(name, () => ask(Op.Read, slot));
  const methods = {
    clear: () => wire.act('clear', null),
    reset: () => wire.act('reset', null),
    message: (text: unknown, tone: unknown = 'info') => {
      if (typeof text !== 'string')
        return fault(words.wrongAspect('form', 'message()', 'a text', text));
      if (!TONES.has(tone))
        return fault(
          words.wrongAspect('form', 'message()', 'the tone "info", "warning" or "error"', tone),
        );
      if (current.demand('form.message() was called').sort !== 'handler')
        say(Slot.Message, { text, tone });
      else wire.act('message', { text, tone: tone as 'info' });
    },
    replaceWith: (text: unknown, options?: unknown) => {
      if (options === undefined) return say(Slot.Replaced, text);
      const { final } = (options ?? {}) as { final?: unknown };
      if (typeof options !== 'object' || typeof final !== 'boolean')
        return fault(
          words.wrongArguments(
            'form.replaceWith',
            'takes { final: true } as its second argument: the last answer cannot be changed any more.',
          ),
        );
      say(
        Slot.Replaced,
        text === null || text === undefined || text === '' ? text : { text, final },
      );
    },
    submit: () => wire.act('submit', null),
  };
  for (const [name, method] of Object.entries(methods)) {
    const called = (...given: [unknown, unknown?]): void => {
      if (OF_HANDLERS.has(name)) current.act(`form.${name}()`);
      else current.demand(`form.${name}() was called`);
      method(...given);
    };
    define(name, () => called);
  }
  return Object.freeze(target);
}
