/** One quantity of the practice machine that can be set, by its path. */
export interface ParameterRange {
  unit: string;
  from: number;
  to: number;
  says: string;
}

/** The physical state of a transport: every number is a quantity with the unit in its name. */
export interface TransportParameters {
  speedCmPerS: number;
  /** Distance of the trimmer's middle from right speed, before the trimmer: the fault to be set right. */
  "speed.errorPercent": number;
  "trimmer.percentPerTurn": number;
  "trimmer.backlashTurns": number;
  /** Of a second trimmer with the same slack and travel; 0 when there is none. */
  "trimmer.secondPercentPerTurn": number;
  /** Turns either way from the middle to the stops. */
  "trimmer.rangeTurns": number;
  "warmUp.percent": number;
  "warmUp.minutes": number;
  "warmUp.minutesSincePowerOn": number;
  "startUp.seconds": number;
  "wander.percent": number;
  "capstan.diameterMm": number;
  "capstan.eccentricityPercent": number;
  "pinchRoller.diameterMm": number;
  "pinchRoller.eccentricityPercent": number;
  "pinchRoller.flatPercent": number;
  "belt.lengthMm": number;
  "belt.pulleyDiameterMm": number;
  "belt.lumpPercent": number;
  "motor.perCapstanTurn": number;
  "motor.cogPercent": number;
  "reel.hubRadiusMm": number;
  "reel.fullRadiusMm": number;
  "reel.eccentricityPercent": number;
  "tape.thicknessMicrometres": number;
  "idler.perCapstanTurn": number;
  "idler.eccentricityPercent": number;
  "idler.flatPercent": number;
  "takeUp.tugPercent": number;
  "bearing.roughPercent": number;
  "slip.perMinute": number;
  "slip.percent": number;
  "slip.seconds": number;
  "reel.loadPercent": number;
  "sideB.errorPercent": number;
  "reverse.rollerFlatPercent": number;
  "scrape.percent": number;
  "scrape.rateHz": number;
  "output.leftDb": number;
  "output.rightDb": number;
  /** What the machine's own meters show too much. */
  "meter.leftDb": number;
  "meter.rightDb": number;
  "noise.db": number;
  "hum.db": number;
  "hum.frequencyHz": number;
  "head.gapMicrometres": number;
  /** The gap whose loss the playback amplifier makes up for. */
  "head.builtForGapMicrometres": number;
  "head.spacingMicrometres": number;
  "head.azimuthArcMinutes": number;
  /** Of the head, or of its position, in the reverse direction. */
  "head.reverseAzimuthArcMinutes": number;
  /** Slow random wander of the tape's angle at the head, RMS; wider with a single capstan. */
  "head.weaveArcMinutes": number;
  "azimuth.arcMinutesPerTurn": number;
  /** Where the head resonates with the capacitance across it, and where the amplifier expects it; 0 for none. */
  "head.resonanceHz": number;
  "head.builtForResonanceHz": number;
  /** Bump of the pole pieces at long wavelengths. */
  "head.bumpDb": number;
  "head.bumpHz": number;
  "head.trackWidthMm": number;
  "head.trackSpacingMm": number;
  /** 0 for no first time constant. */
  "playback.t1Microseconds": number;
  "playback.t2Microseconds": number;
  /** By how much each channel's second time constant is off, before its trimmer. */
  "playback.leftT2ErrorPercent": number;
  "playback.rightT2ErrorPercent": number;
  "playback.t2PercentPerTurn": number;
  "playback.levelDbPerTurn": number;
  /** A contact or component in the right channel whose level jumps at random. */
  "contact.jumpDb": number;
  "contact.jumpsPerMinute": number;
  "record.leftDb": number;
  "record.rightDb": number;
  "record.levelDbPerTurn": number;
  /** Bias re what an ordinary tape of its type wants, before the trimmer. */
  "bias.leftDb": number;
  "bias.rightDb": number;
  "bias.dbPerTurn": number;
  /** Error of the record equaliser at 12.5 kHz, before its trimmer. */
  "record.leftTrebleDb": number;
  "record.rightTrebleDb": number;
  "record.trebleDbPerTurn": number;
  /** What is off for one type of tape alone, on both channels. */
  "typeI.biasDb": number;
  "typeI.levelDb": number;
  "typeI.trebleDb": number;
  "typeII.biasDb": number;
  "typeII.levelDb": number;
  "typeII.trebleDb": number;
  "typeIV.biasDb": number;
  "typeIV.levelDb": number;
  "typeIV.trebleDb": number;
  /** Third harmonic that the record amplifiers add at 0, on any tape. */
  "record.amplifierThirdPercent": number;
  /** Residual magnetism of the heads, 0 to 1: second harmonic and hiss. */
  "head.magnetised": number;
  /** What the knobs on the front do, on both channels; 0 for a machine without them. */
  "panel.biasDbPerTurn": number;
  "panel.levelDbPerTurn": number;
  /** On a tape of type I, with the oscillator at its right amplitude. */
  "erase.depthDb": number;
  /** By how much less the erase head of the reverse direction takes down. */
  "erase.reverseWeakerDb": number;
  /** Amplitude of the bias oscillator re what it should be: bias and erase both go with it. */
  "oscillator.amplitudeDb": number;
  /** Seconds of recording after which it stops swinging, until it is cold again; 0 for one that is sound. */
  "oscillator.diesAfterSeconds": number;
  /** How far the headroom extension lowers bias where treble is at 0; 0 for a machine without it. */
  "headroom.biasDb": number;
  /** What the multiplex filter lets pass up to; 0 for a machine without it. */
  "multiplex.cornerHz": number;
  /** 1 for a machine with a noise reduction. */
  "reduction.fitted": number;
  /** By how much the expander of each channel takes down treble too little. */
  "reduction.leftErrorDb": number;
  "reduction.rightErrorDb": number;
  /** What each channel hears of the other, and of the tracks of the other direction. */
  "head.crosstalkDb": number;
  "head.otherSideDb": number;
  "deck.heads": number;
  /** From the record head to the playback head of a three-head machine. */
  "deck.headDistanceMm": number;
  "deck.autoReverse": number;
}

export type ParameterPath = keyof TransportParameters;

const range = (unit: string, from: number, to: number, says: string): ParameterRange => ({
  unit,
  from,
  to,
  says,
});

const offByType = <T extends string>(type: T, says: string) =>
  ({
    [`${type}.biasDb`]: range("dB", -10, 10, `bias error on ${says} alone`),
    [`${type}.levelDb`]: range("dB", -20, 20, `record level error on ${says} alone`),
    [`${type}.trebleDb`]: range("dB", -12, 12, `record equaliser error on ${says} alone`),
  }) as Record<`${T}.${"biasDb" | "levelDb" | "trebleDb"}`, ParameterRange>;

/** What each parameter means and between which ends it may be set. */
export const PARAMETER_RANGES: Record<ParameterPath, ParameterRange> = {
  speedCmPerS: range("cm/s", 1, 80, "nominal tape speed"),
  "speed.errorPercent": range("%", -14, 14, "speed error with the trimmer in its middle"),
  "trimmer.percentPerTurn": range("%/turn", -40, 40, "what a clockwise turn of the speed trimmer does"),
  "trimmer.secondPercentPerTurn": range(
    "%/turn",
    -40,
    40,
    "what a clockwise turn of the second trimmer does",
  ),
  "trimmer.backlashTurns": range("turns", 0, 0.5, "slack of the trimmer when its direction changes"),
  "trimmer.rangeTurns": range("turns", 0, 20, "turns from the middle to either stop"),
  "warmUp.percent": range("%", -5, 5, "speed error when cold that goes as the machine warms up"),
  "warmUp.minutes": range("min", 0.1, 60, "time constant of the warm-up"),
  "warmUp.minutesSincePowerOn": range(
    "min",
    0,
    600,
    "how long the machine has been on when it starts to play",
  ),
  "startUp.seconds": range("s", 0, 10, "time constant of the start from standstill"),
  "wander.percent": range("%", 0, 5, "slow random wander of the speed, RMS"),
  "capstan.diameterMm": range("mm", 1, 30, "diameter of the capstan"),
  "capstan.eccentricityPercent": range("%", 0, 5, "speed variation once per capstan turn, peak"),
  "pinchRoller.diameterMm": range("mm", 3, 60, "diameter of the pinch roller"),
  "pinchRoller.eccentricityPercent": range("%", 0, 5, "speed variation once per roller turn, peak"),
  "pinchRoller.flatPercent": range("%", 0, 5, "short dip in speed once per roller turn, peak"),
  "belt.lengthMm": range("mm", 20, 2000, "length of the belt on its path"),
  "belt.pulleyDiameterMm": range("mm", 2, 300, "diameter of the capstan pulley that the belt runs on"),
  "belt.lumpPercent": range("%", 0, 5, "short rise in speed once per belt turn from a seam or lump, peak"),
  "motor.perCapstanTurn": range("turns", 1, 50, "turns of the motor for one of the capstan"),
  "motor.cogPercent": range("%", 0, 2, "speed variation once per motor turn, peak"),
  "reel.hubRadiusMm": range("mm", 5, 150, "radius of an empty hub"),
  "reel.fullRadiusMm": range("mm", 6, 200, "radius of the full pack"),
  "reel.eccentricityPercent": range("%", 0, 5, "speed variation once per turn of each reel, peak"),
  "tape.thicknessMicrometres": range("µm", 5, 60, "thickness of the tape"),
  "idler.perCapstanTurn": range("turns", 0.01, 50, "turns of the idler for one of the capstan"),
  "idler.eccentricityPercent": range("%", 0, 5, "speed variation once per idler turn, peak"),
  "idler.flatPercent": range(
    "%",
    0,
    5,
    "short dip in speed once per idler turn, peak: a worn or flattened tyre",
  ),
  "takeUp.tugPercent": range(
    "%",
    0,
    5,
    "dip in speed once per turn of the take-up reel, peak: a slipping or rubbing clutch",
  ),
  "bearing.roughPercent": range("%", 0, 2, "rough running between 2 and 18 Hz, RMS: dry bearings"),
  "slip.perMinute": range("a minute", 0, 60, "slips of belt or roller, at random moments"),
  "slip.percent": range("%", 0, 50, "how far the speed falls in a slip"),
  "slip.seconds": range("s", 0.05, 10, "how long a slip lasts"),
  "reel.loadPercent": range(
    "%",
    -5,
    5,
    "change of speed from a full to an empty supply reel: hold-back tension, pinch slip",
  ),
  "sideB.errorPercent": range(
    "%",
    -5,
    5,
    "speed of the second side or direction against the first: shell friction, take-up torque",
  ),
  "reverse.rollerFlatPercent": range(
    "%",
    0,
    5,
    "short dip once per turn of the pinch roller of the reverse direction, peak",
  ),
  "scrape.percent": range("%", 0, 2, "scrape flutter, RMS"),
  "scrape.rateHz": range("Hz", 50, 4000, "middle of the scrape flutter's band"),
  "output.leftDb": range("dBFS", -100, 0, "peak level of a reference-level tone, left"),
  "output.rightDb": range("dBFS", -100, 0, "peak level of a reference-level tone, right"),
  "meter.leftDb": range("dB", -20, 20, "what the left meter shows too much"),
  "meter.rightDb": range("dB", -20, 20, "what the right meter shows too much"),
  "noise.db": range("dBFS", -160, 0, "RMS of the noise on each channel"),
  "hum.db": range("dBFS", -160, 0, "peak level of the mains hum"),
  "hum.frequencyHz": range("Hz", 50, 60, "mains frequency"),
  "head.gapMicrometres": range("µm", 0.2, 20, "gap length of the playback head"),
  "head.builtForGapMicrometres": range("µm", 0.2, 20, "gap length that the amplifier makes up for"),
  "head.spacingMicrometres": range("µm", 0, 50, "distance of the tape from the head: dirt or wear"),
  "head.azimuthArcMinutes": range(
    "arc-minutes",
    -120,
    120,
    "tilt of the playback head; positive: right later",
  ),
  "head.reverseAzimuthArcMinutes": range("arc-minutes", -120, 120, "the same in the reverse direction"),
  "head.weaveArcMinutes": range("arc-minutes", 0, 20, "slow random wander of the tape's angle, RMS"),
  "azimuth.arcMinutesPerTurn": range(
    "arc-minutes/turn",
    -600,
    600,
    "what a clockwise turn of an azimuth screw does",
  ),
  "head.resonanceHz": range(
    "Hz",
    0,
    200_000,
    "resonance of the head with the capacitance across it, 0 for none",
  ),
  "head.builtForResonanceHz": range(
    "Hz",
    0,
    200_000,
    "the resonance that the amplifier makes up for, 0 for none",
  ),
  "head.bumpDb": range("dB", -6, 6, "bump of the pole pieces at long wavelengths"),
  "head.bumpHz": range("Hz", 15, 400, "where that bump is"),
  "head.trackWidthMm": range("mm", 0.1, 7, "width of one track"),
  "head.trackSpacingMm": range("mm", 0, 6, "from the middle of the left track to that of the right"),
  "playback.leftT2ErrorPercent": range("%", -75, 300, "error of the left channel's second time constant"),
  "playback.rightT2ErrorPercent": range("%", -75, 300, "error of the right channel's second time constant"),
  "playback.t2PercentPerTurn": range(
    "%/turn",
    -200,
    200,
    "what an equaliser trimmer does to its channel's time constant",
  ),
  "playback.levelDbPerTurn": range("dB/turn", -40, 40, "what a playback level trimmer does"),
  "contact.jumpDb": range("dB", 0, 40, "how far the right channel's level jumps"),
  "contact.jumpsPerMinute": range("a minute", 0, 600, "how often it does"),
  "playback.t1Microseconds": range("µs", 0, 6360, "first time constant of playback equalisation, 0 for none"),
  "playback.t2Microseconds": range("µs", 5, 300, "second time constant of playback equalisation"),
  "record.leftDb": range("dB", -40, 20, "record level error, left"),
  "record.rightDb": range("dB", -40, 20, "record level error, right"),
  "record.levelDbPerTurn": range("dB/turn", -40, 40, "what a record level trimmer does"),
  "bias.leftDb": range("dB", -10, 10, "bias error, left"),
  "bias.rightDb": range("dB", -10, 10, "bias error, right"),
  "bias.dbPerTurn": range("dB/turn", -40, 40, "what a bias trimmer does"),
  "record.leftTrebleDb": range("dB", -12, 12, "record equaliser error at 12.5 kHz, left"),
  "record.rightTrebleDb": range("dB", -12, 12, "record equaliser error at 12.5 kHz, right"),
  "record.trebleDbPerTurn": range("dB/turn", -40, 40, "what a record equaliser trimmer does at 12.5 kHz"),
  ...offByType("typeI", "type I"),
  ...offByType("typeII", "type II"),
  ...offByType("typeIV", "type IV"),
  "record.amplifierThirdPercent": range("%", 0, 10, "third harmonic of the record amplifiers at 0"),
  "head.magnetised": range("", 0, 1, "residual magnetism of the heads"),
  "erase.depthDb": range("dB", 0, 100, "how far the erase head takes down what was there"),
  "erase.reverseWeakerDb": range("dB", 0, 100, "by how much less in the reverse direction"),
  "panel.biasDbPerTurn": range("dB/turn", -40, 40, "what the bias knob on the front does, 0 for none"),
  "panel.levelDbPerTurn": range("dB/turn", -40, 40, "what the level knob on the front does, 0 for none"),
  "oscillator.amplitudeDb": range("dB", -12, 6, "amplitude of the bias oscillator, re what it should be"),
  "oscillator.diesAfterSeconds": range(
    "s",
    0,
    3600,
    "seconds of recording after which the oscillator stops until it is cold, 0 for never",
  ),
  "headroom.biasDb": range("dB", 0, 6, "how far the headroom extension lowers bias at 0, 0 for none"),
  "multiplex.cornerHz": range("Hz", 0, 24_000, "what the multiplex filter lets pass up to, 0 for none"),
  "reduction.fitted": range("", 0, 1, "1: has a noise reduction"),
  "reduction.leftErrorDb": range("dB", -6, 6, "what its expander takes down too little, left"),
  "reduction.rightErrorDb": range("dB", -6, 6, "what its expander takes down too little, right"),
  "head.crosstalkDb": range("dB", -120, -10, "what each channel hears of the other"),
  "head.otherSideDb": range("dB", -120, -10, "what is heard of the tracks of the other direction"),
  "deck.heads": range("heads", 2, 3, "2: record and playback share a head; 3: off-tape monitor"),
  "deck.headDistanceMm": range("mm", 5, 100, "from the record to the playback head, three heads only"),
  "deck.autoReverse": range("", 0, 1, "1: plays the other side backwards without turning the tape"),
};

/**
 * Checks `path=value` against the table.
 * @throws RangeError naming what was given and what is accepted
 */
export function parameterSetting(path: string, value: number): Partial<TransportParameters> {
  if (!Object.hasOwn(PARAMETER_RANGES, path))
    throw new RangeError(
      `there is no parameter "${path}"; known are ${Object.keys(PARAMETER_RANGES).join(", ")}`,
    );
  const { from, to, unit } = PARAMETER_RANGES[path as ParameterPath];
  if (!(value >= from && value <= to))
    throw new RangeError(`${path} takes ${from} to ${to} ${unit}, not ${value}`);
  return { [path]: value };
}
