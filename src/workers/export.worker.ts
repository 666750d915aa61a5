import "./without-eval";
import { wavExport, type ExportOptions } from "@/core/formats/wav-export";
import type { Sequence } from "@/core/signals/sequence";
import { nowAndThen } from "./now-and-then";
import { serve } from "./serve";

export interface ExportApi {
  /**
   * Writes a sequence as a WAV file, a piece at a time, to the browser's own disk where it has one, so that its length
   * does not fill the memory. Null when cancelled; rejects with a sentence for a sequence that cannot be written.
   */
  write(
    sequence: Sequence,
    options: ExportOptions,
    onProgress: (share: number) => void,
  ): Promise<Blob | null>;
  cancel(): Promise<void>;
}

/** Where the pieces go. */
interface Target {
  write(piece: Uint8Array<ArrayBuffer>): void;
  /** Gives what was written, or throws it away. */
  close(keep: boolean): Promise<Blob | null>;
}

const PREFIX = "export-";
/** A file is the browser's own by then, wherever it was saved to. */
const KEPT_MS = 60 * 60 * 1000;

let cancelled = false;

const api: ExportApi = {
  async write(sequence, options, onProgress) {
    cancelled = false;
    const wav = wavExport(sequence, options);
    const target = (await onDisk()) ?? inMemory();
    let written = 0;
    const isTime = nowAndThen();
    try {
      for (const piece of wav.pieces()) {
        target.write(piece as Uint8Array<ArrayBuffer>);
        written += piece.length;
        if (!isTime()) continue;
        onProgress(written / wav.byteLength);
        // whoever cancels has to be heard
        await new Promise((resolve) => setTimeout(resolve));
        if (cancelled) return await target.close(false);
      }
    } catch (error) {
      await target.close(false);
      throw error;
    }
    return target.close(true);
  },

  async cancel() {
    cancelled = true;
  },
};

serve(api);

/** A file of the browser's own; null where it has none for this page. */
async function onDisk(): Promise<Target | null> {
  try {
    const folder = await navigator.storage.getDirectory();
    await letGoOfOld(folder);
    const name = `${PREFIX}${crypto.randomUUID()}.wav`;
    const file = await folder.getFileHandle(name, { create: true });
    const access = await file.createSyncAccessHandle();
    let at = 0;
    return {
      write: (piece) => {
        const took = access.write(piece, { at });
        if (took < piece.length)
          throw new Error("There is no room for it: free disk space, or take fewer bits.");
        at += took;
      },
      close: async (keep) => {
        access.close();
        if (keep) return file.getFile();
        await folder.removeEntry(name);
        return null;
      },
    };
  } catch {
    return null;
  }
}

/** A folder can be gone through; the types of the language do not know it yet. */
const entriesOf = (folder: FileSystemDirectoryHandle) =>
  folder as unknown as AsyncIterable<[string, FileSystemHandle]>;

async function letGoOfOld(folder: FileSystemDirectoryHandle): Promise<void> {
  for await (const [name, handle] of entriesOf(folder)) {
    if (!name.startsWith(PREFIX) || handle.kind !== "file") continue;
    const { lastModified } = await (handle as FileSystemFileHandle).getFile();
    if (Date.now() - lastModified > KEPT_MS) await folder.removeEntry(name);
  }
}

function inMemory(): Target {
  const pieces: Blob[] = [];
  return {
    // as a blob each: the browser may put them on its disk
    write: (piece) => void pieces.push(new Blob([piece])),
    close: async (keep) => (keep ? new Blob(pieces, { type: "audio/wav" }) : null),
  };
}
