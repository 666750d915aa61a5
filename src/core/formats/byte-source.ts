/** Bytes that can be read anywhere, a little at a time: a File in the browser, a file handle in Node. */
export interface ByteSource {
  size: number;
  /** Up to `length` bytes from `offset`; fewer only at the end. */
  read(offset: number, length: number): Promise<Uint8Array>;
  /** For whoever reads on and on from a place, to the end or until it has enough. */
  readFrom(offset: number): ByteRun;
}

export interface ByteRun {
  /** Up to so many of the bytes that follow, fewer only at the end. They stand until the next are asked for. */
  next(length: number): Promise<Uint8Array>;
  /** Nothing more is wanted. */
  end(): void;
}

/** A run of pieces that are read one by one. */
export function runOfReads(
  read: (offset: number, length: number) => Promise<Uint8Array>,
  from: number,
): ByteRun {
  let at = from;
  return {
    async next(length) {
      const bytes = await read(at, length);
      at += bytes.length;
      return bytes;
    },
    end: () => {},
  };
}

/** For bytes that are in memory already. */
export function bytesInMemory(bytes: Uint8Array): ByteSource {
  const read = async (offset: number, length: number) => bytes.subarray(offset, offset + length);
  return { size: bytes.length, read, readFrom: (offset) => runOfReads(read, offset) };
}
