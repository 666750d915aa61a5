import { Fft } from "./fft";

export interface FftWorkspace {
  fft: Fft;
  /** Room for `size` complex values, interleaved re, im, or for as many real ones. */
  input: Float64Array;
  /** Interleaved re, im. */
  output: Float64Array;
}

const workspaces = new Map<number, FftWorkspace>();

/** Tables and buffers of one transform size, made once; whoever uses it next writes over what is in it. */
export function fftWorkspace(size: number): FftWorkspace {
  let found = workspaces.get(size);
  if (!found) {
    const fft = Fft.kept(size);
    found = { fft, input: fft.createComplexArray(), output: fft.createComplexArray() };
    workspaces.set(size, found);
  }
  return found;
}
