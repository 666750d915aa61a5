import { SOUND_MULTIPLEX_HZ } from "./practice-repairs";
import type { ParameterPath, TransportParameters } from "./transport-parameters";

/** A machine to practise on: the transport as it should be, and ways in which it may have come in. */
export interface PracticeMachine {
  id: string;
  name: string;
  transport: TransportParameters;
  /** What is different at its second speed. */
  second?: Partial<TransportParameters>;
}

const CASSETTE: TransportParameters = {
  speedCmPerS: 4.76,
  "speed.errorPercent": 0,
  "trimmer.percentPerTurn": 8,
  "trimmer.secondPercentPerTurn": 0,
  "trimmer.backlashTurns": 0.03,
  "trimmer.rangeTurns": 1.5,
  "warmUp.percent": -0.4,
  "warmUp.minutes": 4,
  "warmUp.minutesSincePowerOn": 20,
  "startUp.seconds": 0.15,
  "wander.percent": 0.008,
  "capstan.diameterMm": 2.5,
  "capstan.eccentricityPercent": 0.025,
  "pinchRoller.diameterMm": 11,
  "pinchRoller.eccentricityPercent": 0.02,
  "pinchRoller.flatPercent": 0,
  "belt.lengthMm": 230,
  "belt.pulleyDiameterMm": 40,
  "belt.lumpPercent": 0,
  "motor.perCapstanTurn": 6.7,
  "motor.cogPercent": 0.01,
  "reel.hubRadiusMm": 11,
  "reel.fullRadiusMm": 25,
  "reel.eccentricityPercent": 0.01,
  "tape.thicknessMicrometres": 18,
  "idler.perCapstanTurn": 0.42,
  "idler.eccentricityPercent": 0,
  "idler.flatPercent": 0,
  "takeUp.tugPercent": 0,
  "bearing.roughPercent": 0,
  "slip.perMinute": 0,
  "slip.percent": 4,
  "slip.seconds": 0.4,
  "reel.loadPercent": 0,
  "sideB.errorPercent": 0,
  "reverse.rollerFlatPercent": 0,
  "scrape.percent": 0.02,
  "scrape.rateHz": 1800,
  "output.leftDb": -12,
  "output.rightDb": -12.4,
  "meter.leftDb": 0.2,
  "meter.rightDb": -0.3,
  "noise.db": -62,
  "hum.db": -66,
  "hum.frequencyHz": 50,
  "head.gapMicrometres": 1.2,
  "head.builtForGapMicrometres": 1.2,
  "head.spacingMicrometres": 0,
  "head.azimuthArcMinutes": 0,
  "head.reverseAzimuthArcMinutes": 0,
  "head.weaveArcMinutes": 0,
  "azimuth.arcMinutesPerTurn": 40,
  "head.resonanceHz": 0,
  "head.builtForResonanceHz": 0,
  "head.bumpDb": 0,
  "head.bumpHz": 70,
  "head.trackWidthMm": 0.6,
  "head.trackSpacingMm": 0.9,
  "playback.t1Microseconds": 3180,
  "playback.t2Microseconds": 120,
  "playback.leftT2ErrorPercent": 0,
  "playback.rightT2ErrorPercent": 0,
  "playback.t2PercentPerTurn": 60,
  "playback.levelDbPerTurn": 8,
  "contact.jumpDb": 0,
  "contact.jumpsPerMinute": 0,
  "record.leftDb": 0,
  "record.rightDb": 0,
  "record.levelDbPerTurn": 9,
  "bias.leftDb": 0,
  "bias.rightDb": 0,
  "bias.dbPerTurn": 8,
  "record.leftTrebleDb": 0,
  "record.rightTrebleDb": 0,
  "record.trebleDbPerTurn": 10,
  "typeI.biasDb": 0,
  "typeI.levelDb": 0,
  "typeI.trebleDb": 0,
  "typeII.biasDb": 0,
  "typeII.levelDb": 0,
  "typeII.trebleDb": 0,
  "typeIV.biasDb": 0,
  "typeIV.levelDb": 0,
  "typeIV.trebleDb": 0,
  "record.amplifierThirdPercent": 0,
  "head.magnetised": 0,
  "panel.biasDbPerTurn": 0,
  "panel.levelDbPerTurn": 0,
  "erase.depthDb": 66,
  "erase.reverseWeakerDb": 0,
  "oscillator.amplitudeDb": 0,
  "oscillator.diesAfterSeconds": 0,
  "headroom.biasDb": 0,
  "multiplex.cornerHz": 0,
  "reduction.fitted": 0,
  "reduction.leftErrorDb": 0,
  "reduction.rightErrorDb": 0,
  "head.crosstalkDb": -56,
  "head.otherSideDb": -120,
  "deck.heads": 2,
  "deck.headDistanceMm": 12,
  "deck.autoReverse": 0,
};

/** The machines of the demo workshop, and a generic cassette recorder for any other. */
export const PRACTICE_MACHINES: readonly PracticeMachine[] = [
  {
    id: "tarnvik-t-2",
    name: "Tarnvik T-2",
    transport: {
      ...CASSETTE,
      speedCmPerS: 19.05,
      "trimmer.percentPerTurn": 1.8,
      "trimmer.secondPercentPerTurn": 0.3,
      "trimmer.backlashTurns": 0.04,
      "trimmer.rangeTurns": 3,
      "warmUp.percent": -0.25,
      "warmUp.minutes": 6,
      "startUp.seconds": 0.35,
      "wander.percent": 0.004,
      "capstan.diameterMm": 7.9,
      "capstan.eccentricityPercent": 0.012,
      "pinchRoller.diameterMm": 36,
      "pinchRoller.eccentricityPercent": 0.01,
      "belt.lengthMm": 610,
      "belt.pulleyDiameterMm": 90,
      "motor.perCapstanTurn": 4,
      "motor.cogPercent": 0.006,
      "reel.hubRadiusMm": 30,
      "reel.fullRadiusMm": 88,
      "tape.thicknessMicrometres": 35,
      "noise.db": -66,
      "head.gapMicrometres": 3,
      "head.builtForGapMicrometres": 3,
      "head.trackWidthMm": 2.1,
      "head.trackSpacingMm": 4,
      "playback.t1Microseconds": 0,
      "playback.t2Microseconds": 70,
      "deck.heads": 3,
      "deck.headDistanceMm": 36,
    },
    // both trimmers hang on one supply, so that each moves both speeds
    second: {
      speedCmPerS: 38.1,
      "trimmer.percentPerTurn": 0.5,
      "trimmer.secondPercentPerTurn": 1.6,
      "playback.t2Microseconds": 35,
    },
  },
  {
    id: "ellesby-c-3h",
    name: "Ellesby C-3H",
    transport: {
      ...CASSETTE,
      "trimmer.percentPerTurn": 6,
      "trimmer.backlashTurns": 0.02,
      "wander.percent": 0.004,
      "capstan.eccentricityPercent": 0.012,
      "pinchRoller.eccentricityPercent": 0.01,
      "deck.heads": 3,
      "panel.biasDbPerTurn": 7,
      "panel.levelDbPerTurn": 9,
      "headroom.biasDb": 3.5,
      "multiplex.cornerHz": SOUND_MULTIPLEX_HZ,
      "reduction.fitted": 1,
    },
  },
  {
    id: "ellesby-c-1r",
    name: "Ellesby C-1R",
    transport: {
      ...CASSETTE,
      "multiplex.cornerHz": SOUND_MULTIPLEX_HZ,
      "reduction.fitted": 1,
      "deck.autoReverse": 1,
    },
  },
  {
    id: "marrow-field-7",
    name: "Marrow Field 7",
    transport: {
      ...CASSETTE,
      "trimmer.percentPerTurn": -11,
      "trimmer.backlashTurns": 0.05,
      "wander.percent": 0.03,
      "capstan.diameterMm": 2,
      "capstan.eccentricityPercent": 0.08,
      "pinchRoller.diameterMm": 9,
      "pinchRoller.eccentricityPercent": 0.07,
      "belt.lengthMm": 223,
      "belt.pulleyDiameterMm": 28,
      "output.rightDb": -12,
      // one track, heard on both channels
      "head.trackWidthMm": 1.5,
      "head.trackSpacingMm": 0,
      "noise.db": -54,
      "hum.db": -75,
      "head.gapMicrometres": 1.8,
      "head.builtForGapMicrometres": 1.8,
    },
  },
];

/** Level in dBu of a full-scale sine of its sound. */
export const PRACTICE_FULL_SCALE = { leftDbu: 12, rightDbu: 12 } as const;

export interface PracticeCondition {
  id: string;
  name: string;
  settings: Partial<TransportParameters>;
  /** Only on a machine that has it: one whose own figure is not 0. */
  needs?: ParameterPath;
  /** What of them is different at the machine's second speed. */
  atSecond?: Partial<TransportParameters>;
}

/** Ways in which a machine may have come in. */
export const PRACTICE_CONDITIONS: readonly PracticeCondition[] = [
  { id: "sound", name: "nothing wrong", settings: {} },
  {
    id: "slow-lumpy-belt",
    name: "2 % slow, lumpy belt",
    settings: { "speed.errorPercent": -2, "belt.lumpPercent": 1.4 },
  },
  { id: "fast", name: "1.2 % fast", settings: { "speed.errorPercent": 1.2 } },
  {
    id: "speeds-differ",
    name: "0.8 % slow, 0.6 % fast at the other speed",
    settings: { "speed.errorPercent": -0.8 },
    atSecond: { "speed.errorPercent": 0.6 },
  },
  { id: "bent-capstan", name: "bent capstan", settings: { "capstan.eccentricityPercent": 0.35 } },
  {
    id: "flat-roller",
    name: "flat on the pinch roller",
    settings: { "pinchRoller.flatPercent": 0.9, "speed.errorPercent": 0.6 },
  },
  {
    id: "worn-idler",
    name: "worn idler",
    settings: { "idler.flatPercent": 1.2, "idler.eccentricityPercent": 0.15 },
  },
  { id: "bent-hub", name: "bent reel table", settings: { "reel.eccentricityPercent": 0.25 } },
  { id: "tugging-clutch", name: "take-up clutch tugs", settings: { "takeUp.tugPercent": 1 } },
  { id: "dry-bearing", name: "dry bearing", settings: { "bearing.roughPercent": 0.12 } },
  {
    id: "slipping-belt",
    name: "1 % slow, belt slips",
    settings: { "slip.perMinute": 5, "slip.percent": 6, "speed.errorPercent": -1 },
  },
  { id: "motor-cogging", name: "motor cogs", settings: { "motor.cogPercent": 0.3 } },
  { id: "scrape", name: "scrape at a dry guide", settings: { "scrape.percent": 0.35, "scrape.rateHz": 160 } },
  { id: "sides-differ", name: "sides differ by 1 %", settings: { "sideB.errorPercent": -1 } },
  { id: "reverse-roller", name: "flat on the reverse roller", settings: { "reverse.rollerFlatPercent": 1 } },
  {
    id: "hold-back",
    name: "slower towards the end of the reel",
    settings: { "reel.loadPercent": -1.2, "speed.errorPercent": 0.4 },
  },
  {
    id: "dirty-head",
    name: "dirty head, tilted, 0.4 % slow",
    settings: {
      "head.spacingMicrometres": 1.5,
      "head.azimuthArcMinutes": 4,
      "speed.errorPercent": -0.4,
    },
  },
  { id: "azimuth-off", name: "azimuth several cycles off", settings: { "head.azimuthArcMinutes": 26 } },
  {
    id: "directions-tilted",
    name: "azimuth off, differently each way",
    settings: {
      "head.azimuthArcMinutes": 3,
      "head.reverseAzimuthArcMinutes": -7,
      "head.weaveArcMinutes": 0.15,
    },
  },
  {
    id: "restless-azimuth",
    name: "azimuth restless: a guide is stuck",
    settings: { "head.weaveArcMinutes": 1.6 },
  },
  {
    id: "levels-differ",
    name: "channels 3 dB apart",
    settings: { "output.leftDb": -13.6, "output.rightDb": -10.6 },
  },
  {
    id: "wrong-equaliser",
    name: "dull and bright: equalisers off",
    settings: { "playback.leftT2ErrorPercent": -35, "playback.rightT2ErrorPercent": 40 },
  },
  {
    id: "record-levels-off",
    name: "record levels off",
    settings: { "record.leftDb": -2.3, "record.rightDb": 1.7 },
  },
  { id: "over-biased", name: "over-biased: dull", settings: { "bias.leftDb": 2.2, "bias.rightDb": 1.6 } },
  {
    id: "under-biased",
    name: "under-biased: bright and harsh",
    settings: { "bias.leftDb": -2.6, "bias.rightDb": -1.9 },
  },
  {
    id: "type-ii-off",
    name: "wrong on type II alone",
    settings: { "typeII.biasDb": -2.2, "typeII.levelDb": -1.8 },
  },
  {
    id: "bias-apart",
    name: "bias left and right apart",
    settings: { "bias.leftDb": -1.5, "bias.rightDb": 1.6 },
  },
  {
    id: "tired-record-amplifier",
    name: "recordings distorted: tired amplifier",
    settings: { "record.amplifierThirdPercent": 2.2 },
  },
  {
    id: "record-equaliser-off",
    name: "record equaliser off",
    settings: { "record.leftTrebleDb": -3.5, "record.rightTrebleDb": 3 },
  },
  { id: "magnetised", name: "heads magnetised", settings: { "head.magnetised": 0.8 } },
  {
    id: "tired-and-over-biased",
    name: "distorted and dull: two causes",
    settings: { "record.amplifierThirdPercent": 1.6, "bias.leftDb": 1.8, "bias.rightDb": 1.8 },
  },
  { id: "weak-erase", name: "old programme stays: weak erase", settings: { "erase.depthDb": 44 } },
  {
    id: "weak-erase-reverse",
    name: "old programme stays in reverse",
    settings: { "erase.reverseWeakerDb": 24 },
    needs: "deck.autoReverse",
  },
  {
    id: "weak-oscillator",
    name: "bright and not erased: weak oscillator",
    settings: { "oscillator.amplitudeDb": -4 },
  },
  {
    id: "dies-warm",
    name: "recordings die: the oscillator, warm",
    settings: { "oscillator.diesAfterSeconds": 40 },
  },
  {
    id: "reduction-wrong",
    name: "noise reduction wrong on the left",
    needs: "reduction.fitted",
    settings: { "reduction.leftErrorDb": 4 },
  },
  {
    id: "multiplex-low",
    name: "multiplex filter cuts too low",
    needs: "multiplex.cornerHz",
    settings: { "multiplex.cornerHz": 12_500 },
  },
  {
    id: "other-side-heard",
    name: "the other side is heard: head too low",
    settings: { "head.otherSideDb": -30 },
  },
  { id: "channels-leak", name: "channels leak into each other", settings: { "head.crosstalkDb": -26 } },
  { id: "worn-head", name: "head worn out", settings: { "head.gapMicrometres": 2.6 } },
  { id: "dirt", name: "dirty head", settings: { "head.spacingMicrometres": 1.2 } },
  { id: "head-capacitor", name: "too much across the head", settings: { "head.resonanceHz": 11_000 } },
  {
    id: "noisy-contact",
    name: "right channel jumps",
    settings: { "contact.jumpDb": 2.5, "contact.jumpsPerMinute": 40 },
  },
  {
    id: "cold",
    name: "cold and stiff",
    settings: { "warmUp.minutesSincePowerOn": 0, "warmUp.percent": -2.5, "wander.percent": 0.08 },
  },
];

/** Ways in which a machine may have come in, without those that it has nothing for. */
export function conditionsOf(machineId: string): PracticeCondition[] {
  const { transport } = PRACTICE_MACHINES.find(({ id }) => id === machineId) ?? ANY_MACHINE;
  return PRACTICE_CONDITIONS.filter(({ needs }) => needs === undefined || transport[needs] !== 0);
}

/** @throws RangeError naming the machines there are */
export function practiceMachine(id: string): PracticeMachine {
  const found = PRACTICE_MACHINES.find((machine) => machine.id === id);
  if (!found)
    throw new RangeError(
      `there is no practice machine "${id}"; there are ${PRACTICE_MACHINES.map((m) => m.id).join(", ")}`,
    );
  return found;
}

/** The generic cassette recorder, for a machine that has no practice machine of its own. */
const ANY_MACHINE = PRACTICE_MACHINES[2];

/** A machine as it came in, running at a tape speed; unknown names stand for any machine with nothing wrong. */
export function practiceParameters(
  machineId: string,
  conditionId: string,
  speedCmPerS: number,
): TransportParameters {
  const machine = PRACTICE_MACHINES.find(({ id }) => id === machineId) ?? ANY_MACHINE;
  const { settings, atSecond } =
    PRACTICE_CONDITIONS.find(({ id }) => id === conditionId) ?? PRACTICE_CONDITIONS[0];
  const second = machine.second?.speedCmPerS === speedCmPerS;
  return {
    ...machine.transport,
    ...(second && machine.second),
    speedCmPerS,
    ...settings,
    ...(second && atSecond),
  };
}
