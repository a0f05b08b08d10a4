/**
 * Putting a WebAssembly machine back to an earlier moment by copying its memory: the data before the C stack and the
 * heap behind it. The stack itself, five megabytes and idle between calls, is skipped. Around 10 µs for a megabyte.
 */
const PAGE = 4096;

export interface Regions {
  dataEnd: number;
  heapStart: number;
  /** Where the module keeps the end of its heap, so that nobody has to look for it; null where that was not found. */
  breakAt: number | null;
}

/**
 * Finds the idle stack as the largest run of untouched pages, and the end of the heap as the one word that stands just
 * behind all that is used before and after `grow`. Only right on a machine that has just started.
 */
export function regionsOf(memory: WebAssembly.Memory, grow: () => void): Regions {
  const stack = idleStack(memory);
  const before = Snapshot.of(memory, { ...stack, breakAt: null });
  const candidates = breaksIn(memory, stack.dataEnd);
  grow();
  const still = breaksIn(memory, stack.dataEnd);
  const found = [...candidates].filter((at) => still.has(at));
  // As before to the last byte: what is not put back was untouched.
  new Uint8Array(memory.buffer).fill(0, stack.heapStart);
  before.restore();
  return { ...stack, breakAt: found.length === 1 ? found[0]! : null };
}

/** Bytes between what is used and the end of the heap at most. */
const SLACK = 64;

/** Where words stand that may be the end of the heap. */
function breaksIn(memory: WebAssembly.Memory, dataEnd: number): Set<number> {
  const end = endOfUse(memory);
  const words = new Int32Array(memory.buffer, 0, dataEnd / 4);
  const found = new Set<number>();
  words.forEach((word, i) => {
    if (word >= end && word <= end + SLACK) found.add(i * 4);
  });
  return found;
}

function idleStack(memory: WebAssembly.Memory): { dataEnd: number; heapStart: number } {
  const words = new Int32Array(memory.buffer);
  const perPage = PAGE / 4;
  const isZero = (page: number) => {
    for (let i = page * perPage; i < (page + 1) * perPage; i++) if (words[i] !== 0) return false;
    return true;
  };
  const last = Math.ceil(endOfUse(memory) / PAGE);
  let best = { from: 0, to: 0 };
  let start = -1;
  for (let page = 0; page <= last; page++) {
    if (page < last && isZero(page)) {
      if (start < 0) start = page;
    } else if (start >= 0) {
      if (page - start > best.to - best.from) best = { from: start, to: page };
      start = -1;
    }
  }
  return { dataEnd: best.from * PAGE, heapStart: best.to * PAGE };
}

/** The byte behind the last word of eight bytes that is not zero. Whole words, since most of 16 MB are zero. */
function endOfUse(memory: WebAssembly.Memory): number {
  const words = new BigInt64Array(memory.buffer);
  let end = words.length;
  while (end > 0 && words[end - 1] === 0n) end--;
  return end * words.BYTES_PER_ELEMENT;
}

/** The end of the heap by the module's own word, where that is known and can be. */
function endOfHeap(memory: WebAssembly.Memory, { heapStart, breakAt }: Regions): number {
  const end = breakAt === null ? 0 : new Uint32Array(memory.buffer, breakAt, 1)[0]!;
  return end > heapStart && end <= memory.buffer.byteLength ? end : endOfUse(memory);
}

/** A copy, within a buffer that has room for it where there is one. */
function copied(bytes: Uint8Array, unused?: Uint8Array): Uint8Array {
  const { length } = bytes;
  const room = unused !== undefined && unused.buffer.byteLength >= length ? unused.buffer : null;
  const copy = new Uint8Array(room ?? new ArrayBuffer(length), 0, length);
  copy.set(bytes);
  return copy;
}

export class Snapshot {
  constructor(
    private readonly memory: WebAssembly.Memory,
    readonly data: Uint8Array,
    readonly heap: Uint8Array,
    private readonly regions: Pick<Regions, 'heapStart'>,
  ) {}

  /**
   * Takes the snapshot, in the place of one that nobody needs any more where one is given: fresh memory costs eight
   * times as much as the copying. No call into the machine may be going on.
   */
  static of(memory: WebAssembly.Memory, regions: Regions, unused?: Snapshot): Snapshot {
    const all = new Uint8Array(memory.buffer);
    const data = all.subarray(0, regions.dataEnd);
    const heap = all.subarray(regions.heapStart, endOfHeap(memory, regions));
    return new Snapshot(memory, copied(data, unused?.data), copied(heap, unused?.heap), regions);
  }

  restore(): void {
    const all = new Uint8Array(this.memory.buffer);
    all.set(this.data, 0);
    all.set(this.heap, this.regions.heapStart);
  }

  get bytes(): number {
    return this.data.length + this.heap.length;
  }
}
