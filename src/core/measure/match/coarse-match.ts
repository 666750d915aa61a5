import { Fft } from "@/core/dsp/fft";
import { fftWorkspace } from "@/core/dsp/fft-workspace";
import { hannWindow } from "@/core/dsp/hann-window";
import { sampled } from "@/core/dsp/sampled";

/** Where one recording lies in another, roughly. */
export interface CoarseMatch {
  /** Speed of the first over that of the second. */
  ratio: number;
  /** A place in the first and the place in the second that sounds the same, seconds. */
  at: number;
  otherAt: number;
  /** Height of the correlation over its own scatter. */
  sigmas: number;
}

const FRAME = 512;
const FRAMES_PER_SECOND = 50;
const BANDS = 30;
const LOWEST_HZ = 230;
const HIGHEST_HZ = 3200;
const WIDEST_PERCENT = 9;
const STEP_PERCENT = 0.4;
const SEGMENT_SECONDS = 12;
/** Beginnings of the pieces that are looked for, as a share of the recording. */
const SEGMENTS = [0.5, 0.15, 0.75];

/** A piece at the slowest ratio is so much longer. */
const WIDER = 1.1;

/** Power spectra of a recording, fifty a second. */
class Spectrogram {
  readonly frames: Float32Array[] = [];
  readonly binHz: number;

  /** @param first, @param most of its frames only so many, from that on; all when left out */
  constructor(
    x: Float32Array,
    sampleRateHz: number,
    private readonly first = 0,
    most = Infinity,
  ) {
    const { fft, input, output } = fftWorkspace(FRAME);
    const window = hannWindow(FRAME);
    this.binHz = sampleRateHz / FRAME;
    for (let f = first; f < first + most; f++) {
      const start = Math.round((f * sampleRateHz) / FRAMES_PER_SECOND);
      if (start + FRAME > x.length) break;
      for (let i = 0; i < FRAME; i++) input[i] = x[start + i] * window[i];
      fft.realTransform(output, input);
      // running sums, so that a band of any edges costs two reads
      const sums = new Float32Array(FRAME / 2 + 1);
      for (let k = 0; k < FRAME / 2; k++) sums[k + 1] = sums[k] + output[2 * k] ** 2 + output[2 * k + 1] ** 2;
      this.frames.push(sums);
    }
  }

  /** Power in a band, frame by frame of those that are told (between frames: the nearer one). */
  power(frames: Float64Array, fromHz: number, toHz: number): Float64Array {
    const [from, to] = [fromHz, toHz].map((hz) => Math.min(FRAME / 2 - 1, hz / this.binHz));
    const [low, high] = [Math.floor(from), Math.floor(to)];
    const last = this.frames.length - 1;
    return frames.map((frame) => {
      const sums = this.frames[Math.min(last, Math.max(0, Math.round(frame) - this.first))];
      const below = sums[low] + (from - low) * (sums[low + 1] - sums[low]);
      return sums[high] + (to - high) * (sums[high + 1] - sums[high]) - below;
    });
  }
}

/** How many frames a recording has. */
const framesOf = ({ length }: Float32Array, sampleRateHz: number): number =>
  length < FRAME ? 0 : Math.floor(((length - FRAME) * FRAMES_PER_SECOND) / sampleRateHz) + 1;

/** How the loudness of each band changes from frame to frame; equalisation and level leave no trace in it. */
function changes(spectrogram: Spectrogram, ratio: number, firstFrame: number, count: number): Float64Array[] {
  const edges = Array.from(
    { length: BANDS + 1 },
    (_, b) => ratio * LOWEST_HZ * (HIGHEST_HZ / LOWEST_HZ) ** (b / BANDS),
  );
  const frames = sampled(count, (i) => firstFrame + i / ratio);
  const power = edges.slice(1).map((edge, b) => spectrogram.power(frames, edges[b], edge));
  const loudest = power.reduce((most, band) => band.reduce((a, p) => Math.max(a, p), most), 0);
  return power.map((band) => {
    const logs = band.map((p) => Math.log(p + 1e-6 * loudest + 1e-30));
    return logs.map((v, i) => (i < 2 ? 0 : Math.max(-2, Math.min(2, v - logs[i - 2]))));
  });
}

/**
 * Looks for a piece of one recording in another at every speed ratio within ±9 %: spectra moved in pitch and time
 * together, then correlated over all places at once.
 * @param x, y mono, at `sampleRateHz` and `otherRateHz`
 */
export function coarseMatches(
  x: Float32Array,
  sampleRateHz: number,
  y: Float32Array,
  otherRateHz: number,
): CoarseMatch[] {
  const [mineFrames, otherFrames] = [framesOf(x, sampleRateHz), framesOf(y, otherRateHz)];
  const seconds = Math.min(SEGMENT_SECONDS, (mineFrames - 1) / FRAMES_PER_SECOND / WIDER);
  const count = Math.floor(seconds * FRAMES_PER_SECOND);
  if (count < FRAMES_PER_SECOND || otherFrames < FRAMES_PER_SECOND) return [];
  const size = 2 ** Math.ceil(Math.log2(count + otherFrames));
  const fft = Fft.once(size);
  // one set of buffers for all that is tried
  const [padded, sum, correlation] = [0, 1, 2].map(() => fft.createComplexArray());
  const mineOf = new Float64Array(size + 2);
  const transform = (band: Float64Array, into: Float64Array) => {
    padded.fill(0);
    padded.set(band);
    fft.realTransform(into, padded);
    return into;
  };
  const others = changes(new Spectrogram(y, otherRateHz), 1, 0, otherFrames).map((band) =>
    transform(band, new Float64Array(size + 2)),
  );
  const matches: CoarseMatch[] = [];
  for (const share of SEGMENTS) {
    const firstFrame = Math.round(share * Math.max(0, mineFrames - WIDER * count));
    const mine = new Spectrogram(x, sampleRateHz, firstFrame, Math.ceil(WIDER * count) + 1);
    let best: CoarseMatch | null = null;
    for (let p = -WIDEST_PERCENT; p <= WIDEST_PERCENT + 1e-9; p += STEP_PERCENT) {
      const ratio = 1 + p / 100;
      sum.fill(0);
      changes(mine, ratio, firstFrame, count).forEach((band, b) => {
        transform(band, mineOf);
        for (let k = 0; k <= size / 2; k++) {
          const [re, im] = [mineOf[2 * k], mineOf[2 * k + 1]];
          sum[2 * k] += others[b][2 * k] * re + others[b][2 * k + 1] * im;
          sum[2 * k + 1] += others[b][2 * k + 1] * re - others[b][2 * k] * im;
        }
      });
      fft.completeSpectrum(sum);
      fft.inverseTransform(correlation, sum);
      const first = -(count >> 1);
      const last = otherFrames - (count >> 1);
      let squares = 0;
      let top = first;
      const at = (lag: number) => correlation[2 * ((lag + size) % size)];
      for (let lag = first; lag < last; lag++) {
        squares += at(lag) ** 2;
        if (at(lag) > at(top)) top = lag;
      }
      const sigmas = at(top) / Math.sqrt(squares / (last - first) || 1);
      if (best === null || sigmas > best.sigmas)
        best = {
          ratio,
          sigmas,
          at: (firstFrame + count / 2 / ratio) / FRAMES_PER_SECOND,
          otherAt: (top + count / 2) / FRAMES_PER_SECOND,
        };
    }
    if (best) matches.push(best);
  }
  return matches.sort((a, b) => b.sigmas - a.sigmas);
}
