const PAGE_BYTES = 65_536;
export const NUMBER_BYTES = 8;
export const SINGLE_BYTES = 4;

/** A kernel's functions and its memory, made when first needed. @param code its WebAssembly, in base64 */
export function begunKernel<Functions>(code: string): () => Functions & { memory: WebAssembly.Memory } {
  let begun: (Functions & { memory: WebAssembly.Memory }) | null = null;
  return () => {
    begun ??= new WebAssembly.Instance(
      new WebAssembly.Module(Uint8Array.from(atob(code), (character) => character.charCodeAt(0))),
    ).exports as unknown as Functions & { memory: WebAssembly.Memory };
    return begun;
  };
}

/** What was made of a memory as it is now: it is asked for thousands of times a second, and is another once it grows. */
const views = new WeakMap<ArrayBuffer, Float64Array>();

/** All of a memory as numbers, with room for so many. */
export function numbersIn(memory: WebAssembly.Memory, count: number): Float64Array {
  makeRoom(memory, count * NUMBER_BYTES);
  const { buffer } = memory;
  const view = views.get(buffer) ?? new Float64Array(buffer);
  views.set(buffer, view);
  return view;
}

/** The same as numbers of single precision. */
export function singlesIn(memory: WebAssembly.Memory, count: number): Float32Array {
  makeRoom(memory, count * SINGLE_BYTES);
  return new Float32Array(memory.buffer);
}

function makeRoom(memory: WebAssembly.Memory, bytes: number): void {
  const lacking = bytes - memory.buffer.byteLength;
  if (lacking > 0) memory.grow(Math.ceil(lacking / PAGE_BYTES));
}
