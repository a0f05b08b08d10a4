/**
 * Freezes everything scripts could reach and bend for others: the intrinsics, their prototypes and the names of the
 * machine. Making functions from text goes away, since such code would carry no probes.
 */
export function closeOff(temporal: object | null): void {
  const refuse = () => {
    throw new TypeError();
  };
  for (const made of [
    function () {},
    async function () {},
    function* () {},
    async function* () {},
  ]) {
    Object.defineProperty(Object.getPrototypeOf(made), 'constructor', { value: refuse });
  }
  const seen = new Set<unknown>();
  const freeze = (value: unknown): void => {
    if (
      (typeof value !== 'object' && typeof value !== 'function') ||
      value === null ||
      seen.has(value)
    )
      return;
    seen.add(value);
    Object.freeze(value);
    freeze(Object.getPrototypeOf(value));
    for (const property of Object.values(Object.getOwnPropertyDescriptors(value))) {
      freeze(property.value);
      freeze(property.get);
      freeze(property.set);
    }
  };
  freeze(temporal);
  for (const made of [
    [][Symbol.iterator](),
    new Map().entries(),
    new Set().values(),
    ''.matchAll(/./g),
    async function () {},
    function* () {},
  ]) {
    freeze(Object.getPrototypeOf(made));
  }
  // The names themselves too: `JSON = …` would replace what others use.
  freeze(globalThis);
}
