import { resolve } from "node:path";

const FOLDER = resolve(".tmp/sounds");

/** 3150 Hz, 1.25 % fast, for the sound card. */
export const STEADY = `${FOLDER}/steady.wav`;
/** The same with ±0.2 % at 4 Hz. */
export const TONE = `${FOLDER}/tone.wav`;
/** 1 kHz where 3150 Hz is expected. */
export const CLIP = `${FOLDER}/wrong-tone.wav`;
/** 0.8 % slow, for dropping on the bench. */
export const SLOW = `${FOLDER}/slow.wav`;
/** Long enough to be cancelled. */
export const LONG = `${FOLDER}/long.wav`;
export const NOT_WAV = `${FOLDER}/not-a-wav.wav`;
export const CUT = `${FOLDER}/cut-short.wav`;
/** The first bands of an azimuth ladder, 1.5 % fast, twice. */
export const BANDS = `${FOLDER}/bands.wav`;
export const BANDS_FLAC = `${FOLDER}/bands.flac`;
/** Music-like notes, and the same 2.5 % fast from its third second on. */
export const MUSIC = `${FOLDER}/music.wav`;
export const COPY = `${FOLDER}/copy.wav`;
export const TILTED = `${FOLDER}/tilted.wav`;
