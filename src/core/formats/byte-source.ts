/** Bytes that can be read anywhere, a little at a time: a File in the browser, a file handle in Node. */
export interface ByteSource {
  size: number;
  /**
   * Up to `length` bytes from `offset`; fewer only at the end.
   * @param room as long, in which they may be given: whoever reads on and on needs no other then
   */
  read(offset: number, length: number, room?: Uint8Array): Promise<Uint8Array>;
}

/** For bytes that are in memory already. */
export const bytesInMemory = (bytes: Uint8Array): ByteSource => ({
  size: bytes.length,
  read: async (offset, length) => bytes.subarray(offset, offset + length),
});

export const bytesOfBlob = (blob: Blob): ByteSource => ({
  size: blob.size,
  read: async (offset, length) => new Uint8Array(await blob.slice(offset, offset + length).arrayBuffer()),
});
