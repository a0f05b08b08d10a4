/** What scripts ask for that comes later, or from elsewhere: services, `after`, and `parent`. */
import { AFTER_AT_MOST } from '../limits';
import { nearest, ServiceError, words } from '../wire/failures';
import type { GuestMaterial } from '../wire/acts';
import type { Current } from './current';
import { gather } from './face';
import type { Promises } from './promises';
import type { Wire } from './wire';

export interface Asking {
  services: object;
  after: (milliseconds: unknown) => object;
  /** What the name `parent` stands for. */
  parent: () => object | null;
}

export function makeAsking(
  given: GuestMaterial['services'],
  wire: Wire,
  current: Current,
  promises: Promises,
): Asking {
  /** Has the session take a call, and gives the promise of what comes of it. */
  const calling = (what: string, name: string, take: () => number): object => {
    current.act(what);
    const number = take();
    const run = current.owner();
    const { promise, settle, waitedFor } = promises.pending();
    run.calls ??= new Map();
    run.calls.set(number, (came) => {
      if (came.ok) return settle(came);
      const error = new ServiceError(name, came.reason);
      // A failure that nobody waits for is a failure of the run.
      if (!waitedFor()) {
        run.ready(() => {
          throw error;
        });
      }
      settle({ ok: false, reason: error });
    });
    return promise;
  };

  const services = gather(
    new Map(
      given.map(({ name: service, functions }) => {
        const face = gather(
          new Map(
            functions.map((called) => {
              const name = `${service}.${called}`;
              const call = (args: unknown) =>
                calling(`services.${name}()`, name, () =>
                  wire.act('call', { service, function: called, args: args as never }),
                );
              return [called, () => call] as const;
            }),
          ),
          {
            assign: (name) => current.wrong(words.readOnly(`services.${service}`, name)),
            unknown: (name) => current.wrong(words.noFunction(service, name, functions)),
          },
        );
        return [service, () => face] as const;
      }),
    ),
    {
      assign: (name) => current.wrong(words.readOnly('services', name)),
      unknown: (name) =>
        current.wrong(
          words.noService(
            name,
            nearest(
              name,
              given.map((service) => service.name),
            ),
          ),
        ),
    },
  );

  const after = (milliseconds: unknown): object => {
    if (typeof milliseconds !== 'number' || !(milliseconds >= 0) || milliseconds > AFTER_AT_MOST)
      return current.wrong(words.wrongArguments('after', 'takes milliseconds from 0 to a day.'));
    return calling('after()', 'after', () => wire.act('after', { milliseconds }));
  };

  const parentFace = Object.freeze({
    get: (name: unknown) => {
      current.demand('parent.get() was called');
      return wire.act('parentGet', { name: String(name) });
    },
    set: (name: unknown, to: unknown) =>
      calling('parent.set()', 'parent.set', () =>
        wire.act('parentSet', { name: String(name), to: (to ?? null) as never }),
      ),
  });

  return {
    services,
    after,
    parent: () => {
      current.demand('parent was read');
      return wire.act('parent', null) ? parentFace : null;
    },
  };
}
