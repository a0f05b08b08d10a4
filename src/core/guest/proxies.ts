/** Proxies that are known as such: whoever looks at a value from outside must not spring the traps of a script's. */
import type { IsProxy } from './glimpse';

/** A `Proxy` to put in place of the engine's own, and what tells whether it made an object. */
export function knownProxies(): { KnownProxy: ProxyConstructor; isProxy: IsProxy } {
  const made = new WeakSet<object>();
  const Native = Proxy;
  function KnownProxy(this: unknown, of: object, handler: ProxyHandler<object>): object {
    if (new.target === undefined) throw new TypeError('Proxy has to be called with new');
    const proxy = new Native(of, handler);
    made.add(proxy);
    return proxy;
  }
  KnownProxy.revocable = (of: object, handler: ProxyHandler<object>) => {
    const pair = Native.revocable(of, handler);
    made.add(pair.proxy);
    return pair;
  };
  return {
    KnownProxy: KnownProxy as unknown as ProxyConstructor,
    isProxy: (value) => made.has(value),
  };
}
