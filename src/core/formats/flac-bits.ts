/** The bytes that are there end before what is read does. */
export class BytesEnd extends Error {
  override name = "BytesEnd";
}

/** So many bytes may be looked at beyond the end, as zeros, before it is noticed. */
const SPARE = 16;

/** Below it whole numbers are quick to take apart. */
const SMALL = 2 ** 31;

/** Signs are folded into the lowest bit. */
function unfolded(coded: number): number {
  const half = Math.floor(coded / 2);
  return coded - 2 * half === 0 ? half : -half - 1;
}

/** Reads bits from the first of a byte on, the highest first (RFC 9639). */
export class FlacBits {
  private readonly bytes: Uint8Array;
  private readonly endBit: number;
  /** In bits from the start. */
  at = 0;

  constructor(bytes: Uint8Array) {
    this.bytes = new Uint8Array(bytes.length + SPARE);
    this.bytes.set(bytes);
    this.endBit = 8 * bytes.length;
  }

  /** @throws BytesEnd when more was read than is there */
  check(): void {
    if (this.at > this.endBit) throw new BytesEnd("the bytes end");
  }

  /** The next 32 bits, which stay to be read. */
  private ahead(): number {
    const { bytes, at } = this;
    const i = at >>> 3;
    const past = at & 7;
    const word = (bytes[i] << 24) | (bytes[i + 1] << 16) | (bytes[i + 2] << 8) | bytes[i + 3];
    return past === 0 ? word : (word << past) | (bytes[i + 4] >>> (8 - past));
  }

  /** @param count from 0 to 32 */
  unsigned(count: number): number {
    if (count === 0) return 0;
    const value = this.ahead() >>> (32 - count);
    this.at += count;
    return value;
  }

  /** Of two's complement. @param count from 0 to 33: a side channel has one bit more than its samples */
  signed(count: number): number {
    if (count > 32) {
      const high = this.signed(count - 16);
      return high * 65536 + this.unsigned(16);
    }
    if (count === 0) return 0;
    const value = this.ahead() >> (32 - count);
    this.at += count;
    return value;
  }

  /** Zeros up to the next one, which is read too. @throws BytesEnd where there is none */
  zeros(): number {
    let count = 0;
    for (;;) {
      const run = Math.clz32(this.ahead());
      if (run < 32) {
        this.at += run + 1;
        return count + run;
      }
      count += 32;
      this.at += 32;
      this.check();
    }
  }

  /** Residuals of one partition in Rice's code, into a place of an array. */
  rice(parameter: number, into: Float64Array, from: number, to: number): void {
    const unit = 2 ** parameter;
    for (let i = from; i < to; i++) {
      const coded = this.zeros() * unit + this.unsigned(parameter);
      into[i] = coded < SMALL ? (coded >>> 1) ^ -(coded & 1) : unfolded(coded);
      // what lies beyond the end reads as zeros: noticed before it goes far
      if (this.at > this.endBit) throw new BytesEnd("the bytes end");
    }
  }

  /** On to the start of a byte. */
  toByte(): void {
    this.at = 8 * Math.ceil(this.at / 8);
  }
}
