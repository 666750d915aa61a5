import { Compander } from "./compander";
import type { Stereo } from "./stereo";
import type { TransportParameters } from "./transport-parameters";

/** The noise reduction of a recorder: an encoder before the tape and a decoder behind it, for each channel. */
export class NoiseReduction {
  private readonly encoders: readonly [Compander, Compander];
  private readonly decoders: readonly [Compander, Compander];

  constructor(parameters: TransportParameters, sampleRateHz: number) {
    const decoder = (errorDb: number) => new Compander("decode", sampleRateHz, errorDb);
    this.encoders = [new Compander("encode", sampleRateHz), new Compander("encode", sampleRateHz)];
    this.decoders = [
      decoder(parameters["reduction.leftErrorDb"]),
      decoder(parameters["reduction.rightErrorDb"]),
    ];
  }

  /** What is recorded, its quiet treble lifted. @param zero amplitude of a tone at 0 */
  encoded(input: Readonly<Stereo>, zero: number): Stereo {
    return through(input, this.encoders, [zero, zero]);
  }

  /** What comes off the tape, taken down as far as it was lifted. @param zeros amplitude of a tone at 0, of each channel */
  decoded(output: Readonly<Stereo>, zeros: readonly [number, number]): Stereo {
    return through(output, this.decoders, zeros);
  }
}

/** Both channels re 0, through their companders, and back. */
function through(
  sound: Readonly<Stereo>,
  companders: readonly [Compander, Compander],
  zeros: readonly [number, number],
): Stereo {
  const one = (c: 0 | 1) => {
    const x = sound[c].map((v) => v / zeros[c]);
    companders[c].push(x);
    return x.map((v) => v * zeros[c]);
  };
  return [one(0), one(1)];
}
