/**
 * A booted machine as bytes. Evaluating the guest takes most of 200 ms in a process that has just started, since each
 * function of the WebAssembly module is compiled when it is first called. So scripts/build-node.mjs boots a machine
 * once and keeps its memory; a thread that starts puts it in place instead. It fits machines made of the same module
 * and the same guest in the same order, which the mark stands for.
 */
import * as z from 'zod';
import type { Regions } from './snapshot';

const Pointer = z.int().nonnegative();
const Pointers = z.record(z.string(), Pointer);

const HeadSchema = z.strictObject({
  mark: z.string(),
  regions: z.strictObject({ dataEnd: Pointer, heapStart: Pointer, breakAt: Pointer.nullable() }),
  entries: Pointers,
  functions: Pointers,
});

export interface Image {
  regions: Regions;
  /** Where the guest's functions stand in the machine's memory, by name. */
  entries: Readonly<Record<string, number>>;
  functions: Readonly<Record<string, number>>;
  data: Uint8Array;
  heap: Uint8Array;
}

/** A line of JSON, then the data before the stack, then the heap behind it. */
export function packImage({ data, heap, ...head }: Image, mark: string): Uint8Array {
  const line = new TextEncoder().encode(`${JSON.stringify({ mark, ...head })}\n`);
  const packed = new Uint8Array(line.length + data.length + heap.length);
  packed.set(line, 0);
  packed.set(data, line.length);
  packed.set(heap, line.length + data.length);
  return packed;
}

/** The image; null where the bytes are none, or one of another machine. */
export function readImage(packed: Uint8Array, mark: string): Image | null {
  const end = packed.indexOf(0x0a);
  if (end < 0) return null;
  let head: z.infer<typeof HeadSchema>;
  try {
    head = HeadSchema.parse(JSON.parse(new TextDecoder().decode(packed.subarray(0, end))));
  } catch {
    return null;
  }
  const { mark: marked, ...rest } = head;
  const heap = end + 1 + rest.regions.dataEnd;
  if (marked !== mark || packed.length < heap) return null;
  return { ...rest, data: packed.subarray(end + 1, heap), heap: packed.subarray(heap) };
}
