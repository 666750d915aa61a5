import { readSync } from "node:fs";
import { open } from "node:fs/promises";
import type { ByteSource } from "@/core/formats/byte-source";

/** A file on disk as a byte source; close it when done. */
export async function bytesOfFile(path: string): Promise<ByteSource & { close(): Promise<void> }> {
  const handle = await open(path, "r");
  const stat = await handle.stat();
  if (!stat.isFile()) {
    await handle.close();
    throw new Error(stat.isDirectory() ? "it is a folder." : "it is no plain file.");
  }
  const { size } = stat;
  return {
    size,
    async read(offset, length, room) {
      const wanted = Math.max(0, Math.min(length, size - offset));
      const bytes = room?.subarray(0, wanted) ?? new Uint8Array(wanted);
      // the command line has nothing else to do meanwhile, and waiting costs more than reading
      return bytes.subarray(0, readSync(handle.fd, bytes, 0, wanted, offset));
    },
    close: () => handle.close(),
  };
}
