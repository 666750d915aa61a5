import { runOfReads, type ByteRun, type ByteSource } from "./byte-source";
import { SoundFileError } from "./sound-file";

/**
 * A file that somebody chose in the browser. What is read on and on comes as a stream, all of it in one room: a slice for
 * each piece took seven times as long, and left 150 MB behind that were not taken away in time.
 */
export function bytesOfBlob(blob: Blob): ByteSource {
  const read = (offset: number, length: number) =>
    orGone(async () => new Uint8Array(await blob.slice(offset, offset + length).arrayBuffer()));
  return {
    size: blob.size,
    read,
    readFrom(offset) {
      const reader = roomReader(blob.slice(offset));
      return reader ? new StreamRun(reader) : runOfReads(read, offset);
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

  constructor(private readonly reader: ReadableStreamBYOBReader) {}

  next(length: number): Promise<Uint8Array> {
    return orGone(async () => {
      // a room that is handed to the stream comes back as another one
      let room = this.room.byteLength < length ? new ArrayBuffer(length) : this.room;
      let filled = 0;
      while (filled < length) {
        const { value, done } = await this.reader.read(new Uint8Array(room, filled, length - filled));
        if (value) {
          room = value.buffer;
          filled += value.length;
        }
        if (done) break;
      }
      this.room = room;
      return new Uint8Array(room, 0, filled);
    });
  }

  async end(): Promise<void> {
    // of a stream that failed there is nothing to end
    await this.reader.cancel().catch(() => undefined);
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
