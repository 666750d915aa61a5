import { begunKernel, NUMBER_BYTES, numbersIn } from "./begun-kernel";
import { FFT_KERNEL } from "./fft-kernel";
import type { Samples } from "./signal";

interface Kernel {
  fold(x: number, half: number, roots: number): void;
  product(x: number, y: number, count: number): void;
  weigh(x: number, window: number, count: number): void;
  power(bins: number, count: number, power: number): void;
  together(first: number, second: number, count: number, x: number): void;
  apart(x: number, size: number, left: number, right: number): void;
  unfold(x: number, half: number, roots: number): void;
  four(x: number, y: number, roots: number, m: number, s: number, step: number, back: number): void;
  two(x: number, y: number, s: number): void;
}

/** Interleaved re, im of bins 0 to size/2 of two signals: `size + 2` numbers each. */
export interface Bins {
  left: Float64Array;
  right: Float64Array;
}

/** The same with their squares: `size / 2 + 1` numbers each. */
export interface BinsAndPower extends Bins {
  leftPower: Float64Array;
  rightPower: Float64Array;
}

/** A kernel, and how many numbers of its memory are taken by roots of unity; behind them every size works, one at a time. */
interface Room {
  kernel: () => Kernel & { memory: WebAssembly.Memory };
  taken: number;
}

const newRoom = (): Room => ({ kernel: begunKernel<Kernel>(FFT_KERNEL), taken: 0 });
/** Where everything lies that is used again and again: what a kernel's memory has grown to, it keeps. */
const shared = newRoom();
const kept = new Map<number, Fft>();

/** Three quarters of the roots of unity. */
const ROOTS_PER_VALUE = 1.5;
/** Two buffers of complex numbers. */
const BUFFERS_PER_VALUE = 2 * 2;
/** The bins of two signals. */
const BINS_PER_VALUE = 2;
const MORE_BINS = 4;
const COMPLEX_BYTES = 2 * NUMBER_BYTES;

/**
 * Fourier transforms of one size, a power of two from 4 on, of complex numbers as interleaved re, im: forwards
 * X[k] = Σ x[n]·exp(−2πi·k·n/size), and back divided by the size (Stockham's algorithm, radix 4). What goes in is kept,
 * unless it is what comes out.
 *
 * Transforms are a quarter of what listening costs: one of 4096 values took 109 µs by a package that is plain code, and
 * takes 40 this way, one of 262 144 took 16.5 ms and takes 6.3 (WebAssembly SIMD, double precision throughout).
 */
export class Fft {
  /** Where its roots are in the kernel's memory. */
  private readonly roots: number;

  private constructor(
    readonly size: number,
    private readonly room: Room,
  ) {
    if (!(size >= 4 && Number.isInteger(Math.log2(size))))
      throw new RangeError(`${size} is no power of two from 4 on`);
    const roots = room.taken;
    this.roots = roots;
    room.taken += ROOTS_PER_VALUE * size;
    const numbers = numbersIn(room.kernel().memory, room.taken);
    for (let k = 0; k < 0.75 * size; k++) {
      numbers[roots + 2 * k] = Math.cos((2 * Math.PI * k) / size);
      numbers[roots + 2 * k + 1] = -Math.sin((2 * Math.PI * k) / size);
    }
  }

  /** One that is made once and kept. @throws RangeError for a size that is no power of two from 4 on */
  static kept(size: number): Fft {
    const fft = kept.get(size) ?? new Fft(size, shared);
    kept.set(size, fft);
    return fft;
  }

  /** A large one that is used once: its memory goes with it. @throws RangeError likewise */
  static once = (size: number): Fft => new Fft(size, newRoom());

  /** Where its buffers are: what is in them is nobody's between two transforms. */
  private get first(): number {
    return this.room.taken;
  }

  private get bins(): number {
    return this.first + BUFFERS_PER_VALUE * this.size;
  }

  /** All of its kernel's memory, as it is now, with room for its buffers. */
  private get numbers(): Float64Array {
    return numbersIn(this.room.kernel().memory, this.bins);
  }

  /** The same, with room for the bins of two signals. */
  private get numbersAndBins(): Float64Array {
    return numbersIn(this.room.kernel().memory, this.bins + BINS_PER_VALUE * this.size + MORE_BINS);
  }

  createComplexArray(): Float64Array<ArrayBuffer> {
    return new Float64Array(2 * this.size);
  }

  /** @param output, @param input of `size` complex values each */
  transform(output: Float64Array, input: Float64Array): void {
    this.give(this.passes(this.size, input, false), 2 * this.size, output);
  }

  /** The way back, divided by the size; of the same shapes. */
  inverseTransform(output: Float64Array, input: Float64Array): void {
    this.give(this.passes(this.size, input, true), 2 * this.size, output);
    for (let i = 0; i < 2 * this.size; i++) output[i] /= this.size;
  }

  /**
   * Of `size` real values: bins 0 to size/2; what lies behind them in `output` is not touched. Two neighbours ride in one
   * complex value of a transform of half the size.
   */
  realTransform(output: Float64Array, input: Float64Array): void {
    this.give(this.realBins(input), this.size + 2, output);
  }

  /**
   * Real values through a filter, around in a circle: `size` of them, in place.
   * @param gain bins 0 to size/2 of the filter, from `realTransform`
   */
  filter(values: Float64Array, gain: Float64Array): void {
    const { size, numbersAndBins: numbers, roots } = this;
    const { product, fold } = this.room.kernel();
    const at = this.realBins(values);
    const place = this.bins;
    numbers.set(gain.subarray(0, size + 2), place);
    product(at, place * NUMBER_BYTES, size / 2 + 1);
    const x = at / NUMBER_BYTES;
    const [first, last] = [numbers[x], numbers[x + size]];
    [numbers[x], numbers[x + 1]] = [(first + last) / 2, (first - last) / 2];
    fold(at, size / 2, roots * NUMBER_BYTES);
    numbers.copyWithin(this.first, x, x + size);
    this.give(this.passes(size / 2, null, true), size, values);
    for (let i = 0; i < size; i++) values[i] *= 2 / size;
  }

  /** Bins 0 to size/2 of real values. @returns where they are, in bytes */
  private realBins(input: Float64Array): number {
    const { size, numbers } = this;
    const at = this.passes(size / 2, input, false);
    this.room.kernel().unfold(at, size / 2, this.roots * NUMBER_BYTES);
    const x = at / NUMBER_BYTES;
    const [re, im] = [numbers[x], numbers[x + 1]];
    [numbers[x], numbers[x + 1], numbers[x + size], numbers[x + size + 1]] = [re + im, 0, re - im, 0];
    return at;
  }

  /**
   * Two real signals in one transform, the second riding in the imaginary part: bins 0 to size/2 of either.
   * @param first, @param second as many as `size`, or fewer, which are followed by nought
   */
  ofTwo(first: Samples, second: Samples, { left, right }: Bins): void {
    const [one, two] = this.taken(first, second);
    this.bothBins();
    this.give(one, this.size + 2, left);
    this.give(two, this.size + 2, right);
  }

  /**
   * The same of what a window lets through, with phases that belong to its middle, and the power of each bin.
   * @param first, @param second, @param window `size` of each
   */
  ofTwoWindowed(first: Samples, second: Samples, window: Float64Array, bins: BinsAndPower): void {
    const { size, room, first: at } = this;
    const { weigh, power } = room.kernel();
    const [one, two] = this.taken(first, second);
    this.numbers.set(window, at);
    for (const signal of [one, two]) weigh(signal, at * NUMBER_BYTES, size);
    this.bothBins();
    power(one, size / 2, at * NUMBER_BYTES);
    this.give(at * NUMBER_BYTES, size / 2 + 1, bins.leftPower);
    power(two, size / 2, at * NUMBER_BYTES);
    this.give(at * NUMBER_BYTES, size / 2 + 1, bins.rightPower);
    this.give(one, size + 2, bins.left);
    this.give(two, size + 2, bins.right);
  }

  /** Where two signals stand, in bytes, and the bins of them once they are transformed. */
  private get places(): [one: number, two: number] {
    return [this.bins * NUMBER_BYTES, (this.bins + this.size + 2) * NUMBER_BYTES];
  }

  private taken(first: Samples, second: Samples): [one: number, two: number] {
    const { numbersAndBins: numbers, places, size } = this;
    for (const [i, signal] of [first, second].entries()) {
      const at = places[i] / NUMBER_BYTES;
      numbers.set(signal, at);
      numbers.fill(0, at + signal.length, at + size);
    }
    return places;
  }

  /** What stands in the two places is transformed, and the bins of either stand there then. */
  private bothBins(): void {
    const { size, places } = this;
    const { together, apart } = this.room.kernel();
    together(...places, size, this.first * NUMBER_BYTES);
    apart(this.passes(size, null, false), size, ...places);
  }

  /** The bins above size/2 of a spectrum of real values, as they mirror those below. */
  completeSpectrum(spectrum: Float64Array): void {
    for (let k = 2; k < this.size; k += 2) {
      spectrum[2 * this.size - k] = spectrum[k];
      spectrum[2 * this.size - k + 1] = -spectrum[k + 1];
    }
  }

  /**
   * Of `size` complex values, as many as this one's or half as many.
   * @param input null for what stands in the first buffer
   * @returns where the result is, in bytes
   */
  private passes(size: number, input: Float64Array | null, back: boolean): number {
    const { four, two } = this.room.kernel();
    if (input) this.numbers.set(input.length > 2 * size ? input.subarray(0, 2 * size) : input, this.first);
    const apart = (COMPLEX_BYTES * this.size) / size;
    const roots = this.roots * NUMBER_BYTES;
    let [from, to] = [this.first * NUMBER_BYTES, (this.first + 2 * this.size) * NUMBER_BYTES];
    for (let [left, s] = [size, 1]; left > 1; left /= 4, s *= 4) {
      if (left === 2) two(from, to, s);
      else four(from, to, roots, left / 4, s, s * apart, back ? 1 : 0);
      [from, to] = [to, from];
    }
    return from;
  }

  private give(from: number, count: number, output: Float64Array): void {
    const at = from / NUMBER_BYTES;
    output.set(this.numbers.subarray(at, at + count));
  }
}
