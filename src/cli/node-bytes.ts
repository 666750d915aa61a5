import { readSync } from "node:fs";
import { open } from "node:fs/promises";
import { runOfReads, type ByteSource } from "@/core/formats/byte-source";

/** A file on disk as a byte source; close it when done. */
export async function bytesOfFile(path: string): Promise<ByteSource & { close(): Promise<void> }> {
  const handle = await open(path, "r");
  const stat = await handle.stat();
  if (!stat.isFile()) {
    await handle.close();
    throw new Error(stat.isDirectory() ? "it is a folder." : "it is no plain file.");
  }
  const { size } = stat;
  const there = (offset: number, length: number) => Math.max(0, Math.min(length, size - offset));
  // the command line has nothing else to do meanwhile, and waiting costs more than reading
  const readInto = (room: Uint8Array, offset: number, length: number) =>
    room.subarray(0, readSync(handle.fd, room, 0, there(offset, length), offset));
  return {
    size,
    read: async (offset, length) => readInto(new Uint8Array(there(offset, length)), offset, length),
    readFrom(offset) {
      let room = new Uint8Array(0);
      return runOfReads(async (at, length) => {
        if (room.length < length) room = new Uint8Array(length);
        return readInto(room, at, length);
      }, offset);
    },
    close: () => handle.close(),
  };
}
