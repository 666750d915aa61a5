/** Left and right, full scale = ±1 outside a machine, the reference level = ±1 within. */
export type Stereo = [Float64Array, Float64Array];

export const silentStereo = (frames: number): Stereo => [new Float64Array(frames), new Float64Array(frames)];
