/**
 * The promises that scripts get. They are the session's own and not the engine's, so that what goes on after an `await`
 * runs when the session says so, in a run of its own handler, the same on every machine, and not at all when that run
 * is over. States and resolution follow ECMA-262 (27.2, "Promise Objects"); only when reactions run is decided here:
 * `ready` is called with each, and its owner runs them in order.
 */

/** What a promise belongs to: the open run in which it was waited for. */
export interface Owner {
  ready(job: () => void): void;
}

type Settled = { ok: true; value: unknown } | { ok: false; reason: unknown };

interface Reaction {
  owner: Owner;
  react: (settled: Settled) => void;
}

/** The script an async function belongs to. */
export interface Script {
  /** The line that is being run, 1-based. */
  l: number;
  /** Burns the fuel of going on once. Throws when none is left. */
  goOn(): void;
}

export interface Promises {
  /** The `Promise` of scripts. */
  readonly constructor: object;
  /** A promise that is settled from outside. */
  pending(): { promise: object; settle: (settled: Settled) => void; waitedFor: () => boolean };
  /** Runs a compiled async function: a generator that yields what it awaits. Its script is told each time it goes on. */
  go(
    script: Script,
    self: unknown,
    body: (...args: unknown[]) => Generator<unknown, unknown, unknown>,
    args: readonly unknown[],
  ): object;
  isPromise(value: unknown): value is object;
  /** How a promise stands; null while it is pending. */
  settled(promise: object): Settled | null;
}

/** `owner` says in which run a promise is being waited for. */
export function makePromises(owner: () => Owner): Promises {
  class SessionPromise {
    #settled: Settled | null = null;
    #resolving = false;
    #reactions: Reaction[] = [];
    #waitedFor = false;

    constructor(
      executor: (resolve: (value: unknown) => void, reject: (reason: unknown) => void) => void,
    ) {
      if (typeof executor !== 'function') throw new TypeError('a promise takes a function');
      const resolve = (value: unknown) => {
        if (!this.#resolving) this.#resolve(value);
      };
      const reject = (reason: unknown) => {
        if (!this.#resolving) this.#settle({ ok: false, reason });
      };
      try {
        executor(resolve, reject);
      } catch (reason) {
        reject(reason);
      }
    }

    /** Takes over what a promise or another thenable comes to (ECMA-262, 27.2.1.3.2). */
    #resolve(value: unknown): void {
      this.#resolving = true;
      if (value === this)
        return this.#settle({
          ok: false,
          reason: new TypeError('a promise cannot wait for itself'),
        });
      if (SessionPromise.is(value))
        return value.#react({ owner: owner(), react: (settled) => this.#settle(settled) });
      this.#settle({ ok: true, value });
    }

    #settle(settled: Settled): void {
      if (this.#settled !== null) return;
      this.#resolving = true;
      this.#settled = settled;
      const reactions = this.#reactions;
      this.#reactions = [];
      for (const { owner: its, react } of reactions) its.ready(() => react(settled));
    }

    #react(reaction: Reaction): void {
      this.#waitedFor = true;
      const settled = this.#settled;
      if (settled === null) this.#reactions.push(reaction);
      else reaction.owner.ready(() => reaction.react(settled));
    }

    // oxlint-disable-next-line unicorn/no-thenable -- this is a promise
    then(onValue?: unknown, onReason?: unknown): SessionPromise {
      return new SessionPromise((resolve, reject) => {
        const react = (settled: Settled) => {
          const handler = settled.ok ? onValue : onReason;
          try {
            if (typeof handler === 'function')
              resolve(
                (handler as (x: unknown) => unknown)(settled.ok ? settled.value : settled.reason),
              );
            else if (settled.ok) resolve(settled.value);
            else reject(settled.reason);
          } catch (reason) {
            reject(reason);
          }
        };
        this.#react({ owner: owner(), react });
      });
    }

    catch(onReason?: unknown): SessionPromise {
      return this.then(undefined, onReason);
    }

    finally(onEnd?: unknown): SessionPromise {
      if (typeof onEnd !== 'function') return this.then();
      const after = (then: () => unknown) =>
        SessionPromise.resolve((onEnd as () => unknown)()).then(then);
      return this.then(
        (value: unknown) => after(() => value),
        (reason: unknown) =>
          after(() => {
            throw reason;
          }),
      );
    }

    static is(value: unknown): value is SessionPromise {
      return typeof value === 'object' && value !== null && #settled in value;
    }

    static settledOf(promise: SessionPromise): Settled | null {
      return promise.#settled;
    }

    static settleNow(promise: SessionPromise, settled: Settled): void {
      promise.#settle(settled);
    }

    static isWaitedFor(promise: SessionPromise): boolean {
      return promise.#waitedFor;
    }

    static resolve(value?: unknown): SessionPromise {
      return SessionPromise.is(value) ? value : new SessionPromise((resolve) => resolve(value));
    }

    static reject(reason?: unknown): SessionPromise {
      return new SessionPromise((_, reject) => reject(reason));
    }

    static all(items: Iterable<unknown>): SessionPromise {
      return gather(items, (results, i, resolve, reject, done) => [
        (value) => ((results[i] = value), done(() => resolve(results))),
        reject,
      ]);
    }

    static allSettled(items: Iterable<unknown>): SessionPromise {
      return gather(items, (results, i, resolve, _, done) => [
        (value) => ((results[i] = { status: 'fulfilled', value }), done(() => resolve(results))),
        (reason) => ((results[i] = { status: 'rejected', reason }), done(() => resolve(results))),
      ]);
    }

    static any(items: Iterable<unknown>): SessionPromise {
      return gather(items, (reasons, i, resolve, reject, done) => [
        resolve,
        (reason) => ((reasons[i] = reason), done(() => reject(reasons[0]))),
      ]);
    }

    static race(items: Iterable<unknown>): SessionPromise {
      return new SessionPromise((resolve, reject) => {
        for (const item of items) SessionPromise.resolve(item).then(resolve, reject);
      });
    }
  }

  type Act = (value: unknown) => void;
  /** What `all` and its kin share: one place for each item, and something to do when none is left. */
  function gather(
    items: Iterable<unknown>,
    eachOf: (
      results: unknown[],
      i: number,
      resolve: Act,
      reject: Act,
      done: (end: () => void) => void,
    ) => [Act, Act],
  ): SessionPromise {
    return new SessionPromise((resolve, reject) => {
      const list = [...items];
      const results: unknown[] = list.map(() => undefined);
      let left = list.length;
      if (left === 0) resolve(results);
      const done = (end: () => void) => {
        if (--left === 0) end();
      };
      list.forEach((item, i) =>
        SessionPromise.resolve(item).then(...eachOf(results, i, resolve, reject, done)),
      );
    });
  }

  function go(
    script: Script,
    self: unknown,
    body: (...args: unknown[]) => Generator<unknown, unknown, unknown>,
    args: readonly unknown[],
  ): SessionPromise {
    return new SessionPromise((resolve, reject) => {
      const generator = body.apply(self, args as unknown[]);
      let { l: line } = script;
      const advance = (how: 'next' | 'throw', what: unknown): void => {
        let result: IteratorResult<unknown, unknown>;
        // It goes on where it was, which is also where a failure is met.
        script.l = line;
        try {
          script.goOn();
          result = generator[how](what);
          line = script.l;
        } catch (reason) {
          return reject(reason);
        }
        if (result.done === true) return resolve(result.value);
        SessionPromise.resolve(result.value).then(
          (value: unknown) => advance('next', value),
          (reason: unknown) => advance('throw', reason),
        );
      };
      advance('next', undefined);
    });
  }

  Object.freeze(SessionPromise.prototype);
  return {
    constructor: Object.freeze(SessionPromise),
    pending() {
      const promise = new SessionPromise(() => undefined);
      return {
        promise,
        settle: (settled) => SessionPromise.settleNow(promise, settled),
        waitedFor: () => SessionPromise.isWaitedFor(promise),
      };
    },
    go,
    isPromise: (value): value is object => SessionPromise.is(value),
    settled: (promise) => SessionPromise.settledOf(promise as SessionPromise),
  };
}
