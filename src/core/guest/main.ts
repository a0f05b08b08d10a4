/**
 * What a machine starts with: the guest, the functions the session calls, and everything else closed off. Bundled into
 * one script that the sandbox evaluates before it takes its snapshot; see `scripts/build-guest.mjs`.
 */
import { closeOff } from './closing';
import { makeGuest } from './guest';
import { makeIntl } from './intl';
import { fits } from './patterns';
import { knownProxies } from './proxies';

interface MachineGlobal {
  __buffer?: ArrayBuffer;
  __host?: () => void;
  __close?: () => void;
  __entries?: object;
  Temporal?: object;
  Intl?: object;
  Proxy?: ProxyConstructor;
}

const machine = globalThis as unknown as MachineGlobal;
const makeFunction = Function;
let temporal: object | null = null;

const { isProxy, KnownProxy } = knownProxies();
machine.Proxy = KnownProxy;

const guest = makeGuest({
  buffer: machine.__buffer!,
  host: machine.__host!,
  makeFunction: (parameters, body) => makeFunction(...parameters, body) as never,
  temporal: () => temporal,
  isProxy,
});
const { wire } = guest;

machine.Intl = makeIntl(wire);
delete machine.__buffer;
delete machine.__host;

/** What the session calls. The sandbox takes these before any script and they leave the global object. */
machine.__entries = {
  surround: () => guest.surround(),
  load: () => guest.load(),
  loadModule: () => guest.loadModule(),
  loadService: () => guest.loadService(),
  answer: () => guest.answer(),
  run: () => guest.run(),
  resume: () => guest.resume(),
  drop: () => guest.drop(),
  lost: () => guest.lost(),
  putText: (text: string) => wire.putText(text),
  putLoose: (place: number, text: string) => wire.putLoose(place, text),
  given: () => wire.given(),
  fits: (pattern: string, text: string) => (fits(pattern, text) ? 'yes' : 'no'),
  cut: (texts: number, kept: number) => wire.cut(texts, kept),
};

/** To be called once everything trusted has been evaluated. */
machine.__close = () => {
  temporal = machine.Temporal ?? null;
  for (const name of ['__close', '__entries', 'Temporal', 'Intl'] as const) delete machine[name];
  closeOff(temporal);
};
