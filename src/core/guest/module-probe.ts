/**
 * What the code of a shared module reports to: the probe of whichever script runs, with the module's lines above that
 * script's own (`wire/line.ts`). So a module costs its caller fuel, and an effect that it has names its own line.
 */
import type { Current } from './current';
import type { Probe } from './probe';

export class ModuleProbe {
  // Not private to the engine: that costs an interpreter five times as much, and no script can name its probe.
  private readonly current: Current;
  private readonly base: number;

  constructor(current: Current, base: number) {
    this.current = current;
    this.base = base;
  }

  private get probe(): Probe {
    return this.current.probe as Probe;
  }

  set l(line: number) {
    this.probe.l = this.base + line;
  }

  s(line: number): void {
    this.probe.s(this.base + line);
  }

  f(line: number): void {
    this.probe.f(this.base + line);
  }

  in(line: number): void {
    this.probe.in(this.base + line);
  }

  out(): void {
    this.probe.out();
  }

  m(mutant: number): boolean {
    return this.probe.m(mutant);
  }

  go(
    self: unknown,
    body: () => Generator<unknown, unknown, unknown>,
    args: readonly unknown[],
  ): object {
    return this.probe.go(self, body, args);
  }

  at<T>(line: number, value: T): T {
    return this.probe.at(this.base + line, value);
  }

  v<T>(line: number, expression: number, value: T): T {
    return this.probe.v(this.base + line, expression, value);
  }

  e(site: number, values: (() => unknown[]) | null): number {
    return this.probe.e(this.base + site, values);
  }

  x(frame: number): void {
    this.probe.x(frame);
  }

  z<T>(frame: number, value: T): T {
    return this.probe.z(frame, value);
  }

  r<T>(frame: number, value: T): T {
    return this.probe.r(frame, value);
  }

  d(site: number, frame: number, values: (() => unknown[]) | null): void {
    this.probe.d(this.base + site, frame, values);
  }

  b(site: number, frame: number): void {
    this.probe.b(this.base + site, frame);
  }

  c(site: number, frame: number, value: unknown): unknown {
    return this.probe.c(this.base + site, frame, value);
  }

  k<T>(site: number, frame: number, value: T): T {
    return this.probe.k(this.base + site, frame, value);
  }

  o<T>(site: number, frame: number, value: T): T {
    return this.probe.o(this.base + site, frame, value);
  }

  w(id: number, ask: () => unknown): void {
    this.probe.w(id, ask);
  }

  t(line: number, value: unknown): unknown {
    return this.probe.t(this.base + line, value);
  }
}
