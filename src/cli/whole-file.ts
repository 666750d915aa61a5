import { rmSync } from "node:fs";
import { open, realpath, rename, rm, stat } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import { fileTrouble } from "./file-trouble";

/**
 * Writes a file beside its place and moves it there once it is whole: an interruption leaves nothing half, and what stood
 * there before stays until then.
 * @param reads files that are read meanwhile; the file that is written is never one of them
 * @throws Error in a sentence where the file cannot be written
 */
export async function writeWhole(
  path: string,
  reads: readonly string[],
  pieces: Iterable<Uint8Array> | AsyncIterable<Uint8Array>,
): Promise<void> {
  await refuseUnfit(path, reads);
  const beside = join(dirname(path), `.${basename(path)}.${process.pid}.part`);
  const end = (signal: NodeJS.Signals) => {
    rmSync(beside, { force: true });
    process.exit(signal === "SIGINT" ? 130 : 143);
  };
  process.on("SIGINT", end).on("SIGTERM", end);
  try {
    const file = await open(beside, "wx");
    try {
      for await (const piece of pieces) await file.writeFile(piece);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(beside, path);
  } catch (error) {
    await rm(beside, { force: true }).catch(() => undefined);
    throw new Error(`${path} cannot be written: ${fileTrouble(error)}`);
  } finally {
    process.off("SIGINT", end).off("SIGTERM", end);
  }
}

async function refuseUnfit(path: string, reads: readonly string[]): Promise<void> {
  const there = await stat(path).catch(() => null);
  if (there?.isDirectory()) throw new Error(`${path} is a folder: name a file in it.`);
  if (!there) return;
  const own = await realpath(path);
  for (const one of reads)
    if ((await realpath(one).catch(() => null)) === own)
      throw new Error(`${path} is read for this: write to another file.`);
}
