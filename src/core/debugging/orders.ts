/** The orders in which pending answers can arrive: all of them where few calls wait, a seeded choice where many do. */
/** Up to so many calls all orders are tried: 6! is 720. */
const ALL_UP_TO = 6;
/** So many orders of more calls. */
const CHOSEN = 200;

/** Orders of the calls by their places; the order in which they were asked comes first. */
export function orders(count: number, seed = 1): number[][] {
  const places = Array.from({ length: count }, (_, i) => i);
  return count <= ALL_UP_TO ? permutations(places) : chosen(places, seed);
}

function permutations(places: readonly number[]): number[][] {
  if (places.length <= 1) return [[...places]];
  return places.flatMap((first, i) =>
    permutations(places.toSpliced(i, 1)).map((rest) => [first, ...rest]),
  );
}

function chosen(places: readonly number[], seed: number): number[][] {
  let state = seed >>> 0;
  // xorshift32 (Marsaglia, "Xorshift RNGs", Journal of Statistical Software 8, 2003; from memory).
  const random = () => {
    state ^= state << 13;
    state >>>= 0;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return state / 4_294_967_296;
  };
  const found = new Map<string, number[]>([[places.join(), [...places]]]);
  for (let tries = 0; found.size < CHOSEN && tries < 10 * CHOSEN; tries++) {
    const order = [...places];
    for (let i = order.length - 1; i > 0; i--) {
      const other = Math.floor(random() * (i + 1));
      [order[i], order[other]] = [order[other]!, order[i]!];
    }
    found.set(order.join(), order);
  }
  return [...found.values()];
}

/** How far an order is from the one in which the calls were asked: pairs that are the other way round. */
export function inversions(order: readonly number[]): number {
  let count = 0;
  for (let i = 0; i < order.length; i++)
    for (let j = i + 1; j < order.length; j++) if (order[i]! > order[j]!) count++;
  return count;
}
