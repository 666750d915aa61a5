/** What owners say is wrong, in plain words. */
export const SYMPTOMS = [
  "slow",
  "fast",
  "wavers",
  "dull",
  "one side",
  "hum",
  "records distorted",
  "does not record",
  "does not wind",
  "eats tape",
  "dead",
] as const;
export type Symptom = (typeof SYMPTOMS)[number];

/** What a symptom asks of whoever takes the machine in. */
export interface Meaning {
  says: string;
  /** How it is heard or seen for oneself, before anything is opened. */
  reproduce: string;
  /** What is looked at before power is put on; null where power does no harm. */
  beforePower: string | null;
  /** What costs nothing and is tried first. */
  cheapFirst: string;
  /** The stations whose figures as found tell of it, in working order; the machine may have only some of them. */
  stations: readonly string[];
  /** What is to be minded when that is measured. */
  minds?: string;
}

export const MEANINGS: Record<Symptom, Meaning> = {
  slow: {
    says: "Runs slow",
    reproduce: "Play the speed tone at the start and at the end of a tape, cold and after ten minutes.",
    beforePower: null,
    cheapFirst: "Another tape: a shell that binds slows any machine. Fresh cells, or the mains unit.",
    stations: ["speed", "flutter"],
  },
  fast: {
    says: "Runs fast",
    reproduce: "Play the speed tone; look whether a pitch control is off its middle.",
    beforePower: null,
    cheapFirst: "The pitch control in its middle, the right speed chosen, no key held half down.",
    stations: ["speed", "flutter"],
  },
  wavers: {
    says: "Wavers, wobbles",
    reproduce: "Play a long note: slow as a breath is wow, rough is flutter. Both sides of the tape.",
    beforePower: null,
    cheapFirst: "Another tape; cells and mains; capstan and pinch roller cleaned.",
    stations: ["flutter", "speed"],
  },
  dull: {
    says: "Sounds dull",
    reproduce: "Play a tape that is known to be bright, with noise reduction off, each direction.",
    beforePower: null,
    cheapFirst: "Head cleaned; noise reduction and tape type as the tape wants them.",
    stations: ["azimuth", "level", "response"],
  },
  "one side": {
    says: "One channel is weak or gone",
    reproduce: "Swap the plugs at the output: does it go with the plug or stay with the channel?",
    beforePower: null,
    cheapFirst: "Head cleaned; switches and controls worked through twenty times; another lead.",
    stations: ["level", "azimuth", "response", "record-level"],
  },
  hum: {
    says: "Hums",
    reproduce: "Without a tape, on battery and on mains, with the leads moved; on play, and on stop.",
    beforePower: "Look for a mains lead that was mended, and an earth that is cut.",
    cheapFirst: "Other leads, another socket, far from transformers; a ground loop by unplugging one end.",
    stations: ["noise", "level"],
  },
  "records distorted": {
    says: "Recordings are distorted",
    reproduce: "Record a tone at 0, hear source and tape; then a bought tape: does it distort as well?",
    beforePower: null,
    cheapFirst: "Head cleaned and demagnetised; the tape type set right; recorded 10 dB lower.",
    stations: ["bias", "record-level", "distortion"],
  },
  "does not record": {
    says: "Does not record, or it fades",
    reproduce: "Record over an old tape for two minutes: nothing, faint and bright, or good and then gone?",
    beforePower: null,
    cheapFirst: "The tab of the shell, the source that is chosen, the record level; head cleaned.",
    stations: ["bias", "record-level", "erase", "oscillator"],
  },
  "does not wind": {
    says: "Does not wind, or stops by itself",
    reproduce: "Wind an old tape both ways from end to end; note where it stops, and what still turns.",
    beforePower: null,
    cheapFirst: "Another tape; the counter's belt, which stops many machines; idler cleaned.",
    stations: ["service"],
  },
  "eats tape": {
    says: "Eats tape",
    reproduce:
      "With a worthless tape only, the shell's window watched: does the take-up reel turn all the time?",
    beforePower: "Look for a loop of tape around the capstan or the roller; cut it out, do not pull.",
    cheapFirst: "Pinch roller cleaned; a tape that winds freely by hand.",
    stations: ["service", "path", "flutter"],
    minds:
      "No reference tape goes into a machine that eats tape: a tone on a tape that may be lost, or not yet.",
  },
  dead: {
    says: "Dead",
    reproduce: "Only once it was looked at: then its switch, and what moves, lights or smells.",
    beforePower:
      "Leaked cells, burnt smell, a fuse of the wrong value, a mains voltage set otherwise, a belt that turned to tar. Then with a lamp or a supply that limits the current.",
    cheapFirst: "Fuse, mains lead, the switch in the battery socket, cell contacts cleaned.",
    stations: ["service"],
    minds: "Measured once it runs again.",
  },
};

/** What some symptoms ask for together: each thing once, in the order of the symptoms. */
export function askedBy(symptoms: readonly Symptom[]): {
  beforePower: string[];
  cheapFirst: string[];
  reproduce: string[];
  stations: string[];
  minds: string[];
} {
  const all = SYMPTOMS.filter((one) => symptoms.includes(one)).map((one) => MEANINGS[one]);
  const once = (texts: readonly string[]) => [...new Set(texts)];
  return {
    beforePower: once(all.flatMap(({ beforePower }) => beforePower ?? [])),
    cheapFirst: once(all.map(({ cheapFirst }) => cheapFirst)),
    reproduce: once(all.map(({ reproduce }) => reproduce)),
    stations: once(all.flatMap(({ stations }) => stations)),
    minds: once(all.flatMap(({ minds }) => minds ?? [])),
  };
}
