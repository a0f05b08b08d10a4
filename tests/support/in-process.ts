/** The guest in this engine, over a plain buffer: as in the machine, but for the machine. */
import { types } from 'node:util';
import { Temporal } from 'temporal-polyfill';
import { makeGuest } from '../../src/core/guest/guest';
import { fits } from '../../src/core/guest/patterns';
import type { GuestEntry, Machine } from '../../src/core/sandbox/machine';
import { SHARED_BYTES } from '../../src/core/wire/layout';

export class InProcess implements Machine {
  readonly #buffer = new ArrayBuffer(SHARED_BYTES);
  readonly cells = new Int32Array(this.#buffer);
  readonly floats = new Float64Array(this.#buffer);
  readonly wasInterrupted = false;
  #ask: () => void = () => undefined;
  readonly guest = makeGuest({
    buffer: this.#buffer,
    host: () => this.#ask(),
    makeFunction: (parameters, body) => new Function(...parameters, body) as never,
    temporal: () => Temporal,
    isProxy: types.isProxy,
  });

  call(entry: GuestEntry): boolean {
    this.guest[entry]();
    return true;
  }

  putText(text: string): void {
    this.guest.wire.putText(text);
  }

  putLoose(place: number, text: string): void {
    this.guest.wire.putLoose(place, text);
  }

  given(): string {
    return this.guest.wire.given();
  }

  cut(texts: number, kept: number): void {
    this.guest.wire.cut(texts, kept);
  }

  fits(pattern: string, text: string): boolean {
    return fits(pattern, text);
  }

  answerWith(ask: () => void): void {
    this.#ask = ask;
  }
}
