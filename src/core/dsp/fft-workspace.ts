import FFT from "fft.js";

export interface FftWorkspace {
  fft: FFT;
  /** Room for `size` complex values, interleaved re, im, or for as many real ones. */
  input: number[];
  /** Interleaved re, im. */
  output: number[];
}

const workspaces = new Map<number, FftWorkspace>();

/** Tables and buffers of one transform size, made once; whoever uses it next writes over what is in it. */
export function fftWorkspace(size: number): FftWorkspace {
  let found = workspaces.get(size);
  if (!found) {
    const fft = new FFT(size);
    found = { fft, input: new Array<number>(2 * size).fill(0), output: fft.createComplexArray() };
    workspaces.set(size, found);
  }
  return found;
}
