import { runOfReads, type ByteRun, type ByteSource } from "./byte-source";
import { SoundFileError } from "./sound-file";

/** A stream that has given nothing for so long is left, and read in slices from there. */
const PATIENCE_MS = 10_000;

/**
 * A file that somebody chose in the browser. What is read on and on comes as a stream, all of it in one room: a slice for
 * each piece took seven times as long, and left 150 MB behind that were not taken away in time.
 * @param patienceMs how long a stream may give nothing
 */
export function bytesOfBlob(blob: Blob, patienceMs = PATIENCE_MS): ByteSource {
  const read = (offset: number, length: number) =>
    orGone(async () => new Uint8Array(await blob.slice(offset, offset + length).arrayBuffer()));
  return {
    size: blob.size,
    read,
    readFrom(offset) {
      const reader = roomReader(blob.slice(offset));
      const slices = (from: number) => runOfReads(read, from);
      return reader ? new StreamRun(reader, offset, slices, patienceMs) : slices(offset);
    },
  };
}

/** Reads a stream into a room that it is given; null where the browser has no such streams of a file. */
function roomReader(blob: Blob): ReadableStreamBYOBReader | null {
  try {
    return blob.stream().getReader({ mode: "byob" });
  } catch (error) {
    if (error instanceof TypeError) return null;
    throw error;
  }
}

class StreamRun implements ByteRun {
  private room = new ArrayBuffer(0);
  /** Once the stream is left. */
  private slices: ByteRun | null = null;

  constructor(
    private readonly reader: ReadableStreamBYOBReader,
    private at: number,
    private readonly slicesFrom: (offset: number) => ByteRun,
    private readonly patienceMs: number,
  ) {}

  async next(length: number): Promise<Uint8Array> {
    if (this.slices) return this.slices.next(length);
    const bytes = await orGone(() => this.streamed(length));
    if (bytes === null) {
      this.end();
      this.slices = this.slicesFrom(this.at);
      return this.slices.next(length);
    }
    this.at += bytes.length;
    return bytes;
  }

  /** Null where the stream gives nothing any more, and is not at its end. */
  private async streamed(length: number): Promise<Uint8Array | null> {
    // a room that is handed to the stream comes back as another one
    let room = this.room.byteLength < length ? new ArrayBuffer(length) : this.room;
    let filled = 0;
    while (filled < length) {
      const given = await this.inTime(this.reader.read(new Uint8Array(room, filled, length - filled)));
      if (given === null) return null;
      if (given.value) {
        room = given.value.buffer;
        filled += given.value.length;
      }
      if (given.done) break;
    }
    this.room = room;
    return new Uint8Array(room, 0, filled);
  }

  private async inTime<T>(given: Promise<T>): Promise<T | null> {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const tooLong = new Promise<null>(
      (resolve) => (timer = setTimeout(() => resolve(null), this.patienceMs)),
    );
    try {
      return await Promise.race([given, tooLong]);
    } finally {
      clearTimeout(timer);
    }
  }

  end(): void {
    // nobody waits: of a stream that failed, or gives nothing, there may be no end
    this.reader.cancel().catch(() => undefined);
  }
}

/** @throws SoundFileError where the file is not what it was when it was chosen */
async function orGone<T>(read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    if (error instanceof DOMException)
      throw new SoundFileError(
        "The file can no longer be read: it was changed or moved, or its disk is gone. Choose it again.",
      );
    throw error;
  }
}
