/** A file as the directory of a ZIP archive has it. */
export interface ZipEntry {
  name: string;
  /** As it stands in the archive; perhaps packed. */
  bytes: Blob;
  packed: "stored" | "deflated";
  /** Once it is unpacked. */
  size: number;
}

/** Fixed lengths and marks of the ZIP format (PKWARE's application note, sections 4.3.7, 4.3.12 and 4.3.16). */
const END = { mark: 0x06054b50, bytes: 22, count: 10, size: 12, offset: 16 } as const;
const ENTRY = {
  mark: 0x02014b50,
  bytes: 46,
  method: 10,
  packedSize: 20,
  size: 24,
  name: 28,
  extra: 30,
  comment: 32,
  local: 42,
} as const;
const LOCAL = { mark: 0x04034b50, bytes: 30, name: 26, extra: 28 } as const;
const [STORED, DEFLATED] = [0, 8];

const viewOf = async (part: Blob): Promise<DataView> => new DataView(await part.arrayBuffer());

/** Whether a file begins as a ZIP archive does. */
export async function beginsAsZip(file: Blob): Promise<boolean> {
  const head = await viewOf(file.slice(0, 4));
  return head.byteLength === 4 && head.getUint32(0, true) === LOCAL.mark;
}

/**
 * What the directory at the end of an archive without a comment says is in it. Nothing is copied: the bytes of a file are
 * a piece of the archive, which may lie on a disk.
 * @returns null where the end is missing, or says what cannot be
 */
export async function zipDirectory(file: Blob): Promise<ZipEntry[] | null> {
  const end = await viewOf(file.slice(Math.max(0, file.size - END.bytes)));
  if (end.byteLength < END.bytes || end.getUint32(0, true) !== END.mark) return null;
  const [count, size, offset] = [
    end.getUint16(END.count, true),
    end.getUint32(END.size, true),
    end.getUint32(END.offset, true),
  ];
  if (offset + size + END.bytes !== file.size) return null;
  const directory = await viewOf(file.slice(offset, offset + size));
  const entries: ZipEntry[] = [];
  for (let at = 0; at < size;) {
    if (at + ENTRY.bytes > size || directory.getUint32(at, true) !== ENTRY.mark) return null;
    const short = (field: number) => directory.getUint16(at + field, true);
    const long = (field: number) => directory.getUint32(at + field, true);
    const nameAt = at + ENTRY.bytes;
    const next = nameAt + short(ENTRY.name) + short(ENTRY.extra) + short(ENTRY.comment);
    const method = short(ENTRY.method);
    if (next > size || (method !== STORED && method !== DEFLATED)) return null;
    const name = new TextDecoder().decode(new Uint8Array(directory.buffer, nameAt, short(ENTRY.name)));
    const local = await viewOf(file.slice(long(ENTRY.local), long(ENTRY.local) + LOCAL.bytes));
    if (local.byteLength < LOCAL.bytes || local.getUint32(0, true) !== LOCAL.mark) return null;
    const from =
      long(ENTRY.local) +
      LOCAL.bytes +
      local.getUint16(LOCAL.name, true) +
      local.getUint16(LOCAL.extra, true);
    if (from + long(ENTRY.packedSize) > offset) return null;
    entries.push({
      name,
      bytes: file.slice(from, from + long(ENTRY.packedSize)),
      packed: method === STORED ? "stored" : "deflated",
      size: long(ENTRY.size),
    });
    at = next;
  }
  // more than the format's own count holds are counted around
  return entries.length % 65_536 === count ? entries : null;
}
