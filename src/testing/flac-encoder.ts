const DEPTHS = { 12: 0b010, 16: 0b100, 20: 0b101, 24: 0b110 } as const;

/**
 * A native FLAC file of verbatim subframes (RFC 9639), so that what must come out of a decoder is known without
 * another encoder. Samples are whole numbers of the given width.
 */
export function flacFile(
  channels: Int32Array[],
  sampleRateHz: number,
  bits: keyof typeof DEPTHS,
  { blockSize = 4096, claimedFrames = channels[0].length } = {},
): Uint8Array {
  const head = new BitWriter();
  head.text("fLaC");
  head.put(0x80, 8); // the last metadata block, of kind STREAMINFO
  head.put(34, 24);
  head.put(blockSize, 16);
  head.put(blockSize, 16);
  head.put(0, 24);
  head.put(0, 24);
  head.put(sampleRateHz, 20);
  head.put(channels.length - 1, 3);
  head.put(bits - 1, 5);
  head.put(0, 4);
  head.put(claimedFrames, 32);
  for (let i = 0; i < 16; i++) head.put(0, 8); // no checksum of the sound
  const frames = [];
  for (let at = 0, number = 0; at < channels[0].length; at += blockSize, number++)
    frames.push(
      frame(
        channels.map((x) => x.subarray(at, at + blockSize)),
        sampleRateHz,
        bits,
        number,
      ),
    );
  return joined([head.bytes(), ...frames]);
}

function frame(
  channels: Int32Array[],
  sampleRateHz: number,
  bits: keyof typeof DEPTHS,
  number: number,
): Uint8Array {
  const w = new BitWriter();
  w.put(0b11111111111110, 14);
  w.put(0, 2); // fixed block size
  w.put(0b0111, 4); // block size follows in 16 bits
  w.put({ 44100: 0b1001, 48000: 0b1010, 96000: 0b1011 }[sampleRateHz] ?? 0, 4);
  w.put(channels.length - 1, 4);
  w.put(DEPTHS[bits], 3);
  w.put(0, 1);
  if (number < 128) w.put(number, 8);
  else {
    w.put(0b110, 3);
    w.put(number >> 6, 5);
    w.put(0b10, 2);
    w.put(number & 63, 6);
  }
  w.put(channels[0].length - 1, 16);
  w.put(crc(w.bytes(), 0x07, 8), 8);
  for (const samples of channels) {
    w.put(0, 1);
    w.put(1, 6); // verbatim
    w.put(0, 1);
    for (const sample of samples) w.put(sample, bits);
  }
  const body = w.bytes();
  const check = crc(body, 0x8005, 16);
  return joined([body, Uint8Array.of(check >> 8, check & 255)]);
}

class BitWriter {
  private readonly out: number[] = [];
  private held = 0;
  private count = 0;

  put(value: number, bits: number): void {
    for (let left = bits; left > 0;) {
      const taken = Math.min(8 - this.count, left);
      left -= taken;
      this.held = (this.held << taken) | (Math.floor(value / 2 ** left) & ((1 << taken) - 1));
      this.count += taken;
      if (this.count === 8) {
        this.out.push(this.held);
        this.held = this.count = 0;
      }
    }
  }

  text(text: string): void {
    for (const character of text) this.put(character.charCodeAt(0), 8);
  }

  /** Everything so far, filled up to whole bytes. */
  bytes(): Uint8Array {
    const rest = this.count > 0 ? [this.held << (8 - this.count)] : [];
    return Uint8Array.from([...this.out, ...rest]);
  }
}

function crc(bytes: Uint8Array, polynomial: number, width: 8 | 16): number {
  const top = 1 << (width - 1);
  const mask = 2 ** width - 1;
  let value = 0;
  for (const byte of bytes) {
    value ^= byte << (width - 8);
    for (let i = 0; i < 8; i++) value = (value & top ? (value << 1) ^ polynomial : value << 1) & mask;
  }
  return value;
}

function joined(parts: Uint8Array[]): Uint8Array {
  const bytes = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}
