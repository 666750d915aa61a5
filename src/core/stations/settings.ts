import { dropOutRates } from "@/core/measure/drop-out-rates";
import { recordsTape, type Adjuster, type Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { StoodAt } from "@/core/playback/source-and-tape";
import { PRESETS } from "@/core/signals/presets";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { actingAdjusters } from "./acting-adjusters";
import { nothingAdvised, type Advised } from "./advised";
import { adviseByNumber } from "./advise-by-number";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { biasWanted, dropOutsOf, passportOf, type Known, type PassportChannel } from "./passport";
import { notReady, recordedAt, recordedHere } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog, STILL_SETTLING } from "./station-readings";

const PASSPORT = { unit: "dB", decimals: 1, signed: true } as const;
const quantities = {
  "settings.bias": { name: "15 kHz re 400 Hz", unit: "dB", decimals: 1, signed: true },
  "settings.level": { name: "400 Hz, back less sent", unit: "dB", decimals: 1, signed: true },
  "passport.sensitivity": { ...PASSPORT, name: "Sensitivity at 0" },
  "passport.treble": { ...PASSPORT, name: "Treble, 10 kHz re 400 Hz" },
  "passport.biasWanted": { ...PASSPORT, name: "Bias wanted re as set" },
  "passport.mol": { ...PASSPORT, name: "Level at 3 % third harmonic" },
  "passport.noise": { ...PASSPORT, name: "Noise of the tape re 0, A-weighted" },
  "passport.dropOuts": { name: "Drop-outs", unit: "/min", decimals: 1, signed: false },
} as const;
type SettingsQuantity = keyof typeof quantities;

const SEQUENCE = PRESETS.find(({ id }) => id === "passport")!;
const TONES: [number, number] = [400, 15_000];
/** Treble moves by about so much for each decibel of bias. */
const TREBLE_PER_BIAS = 2;
const USUAL_LEVEL_DB = 1;
const GOOD_ENOUGH_SHARE = 0.3;
const KNOB_QUANTITY = { bias: "settings.bias", level: "settings.level" } as const;

const limitOf = ({ limits, toleranceClass }: Machine, quantity: SettingsQuantity): number | null => {
  const { biasDb, balanceDb } = TOLERANCE_CLASSES[toleranceClass];
  switch (quantity) {
    case "settings.bias":
      return limits.settingsBiasDb ?? TREBLE_PER_BIAS * biasDb;
    case "settings.level":
      return limits.settingsLevelDb ?? balanceDb ?? USUAL_LEVEL_DB;
    case "passport.sensitivity":
    case "passport.treble":
    case "passport.biasWanted":
    case "passport.mol":
    case "passport.noise":
    case "passport.dropOuts":
      return null;
  }
};

/** What both knobs are set by, the mean of the channels, and the passport of the tape that is recorded on. */
export interface SettingsNow {
  top: Known | null;
  middle: Known | null;
  /** Null before a passport sequence came back whole, and after something was turned. */
  passport: PassportChannel[] | null;
  /** Why nothing can be logged; null when it can. */
  lacks: string | null;
  agoSeconds: number;
  /** The numbers are of tones that are heard now. */
  live: boolean;
}

export function settingsNow(bench: OnTheBench): SettingsNow {
  const { here, heard } = bench;
  const nothing = { top: null, middle: null, passport: null, agoSeconds: 0, live: false };
  const unsaid = notReady(bench);
  if (unsaid) return { ...nothing, lacks: unsaid };
  const { recorded, lacks } = recordedHere(bench);
  const last = recorded.at(-1);
  const passport = last && lacks === null ? passportOf(last, here.machine.channels) : null;
  const comparison = heard?.comparison ?? null;
  // only while it sounds: tones that have ended tell of how things stood then
  const tape = comparison?.hears === "tape" ? comparison.tape : null;
  const now = tape && comparison?.source ? differences(comparison.source, tape, here.machine.channels) : null;
  if (now && tape)
    return { ...now, passport, lacks: tape.settled ? null : STILL_SETTLING, agoSeconds: 0, live: true };
  if (passport)
    return {
      top: meanOf(passport.map(({ top }) => top)),
      middle: meanOf(passport.map(({ middle }) => middle)),
      passport,
      lacks: null,
      agoSeconds: last!.agoSeconds,
      live: false,
    };
  return { ...nothing, lacks };
}

/** Levels of both tones off the tape less what went in, the mean of the channels. */
function differences(source: StoodAt, tape: StoodAt, channels: Machine["channels"]) {
  const uncertainty = Math.hypot(source.uncertaintyDb, tape.uncertaintyDb);
  const of = (tone: number, c: number) => tape.levelsDbfs[tone][c] - source.levelsDbfs[tone][c];
  const all = Array.from({ length: channels }, (_, c) => c);
  const mean = (value: (c: number) => number): Known => ({
    value: all.reduce((sum, c) => sum + value(c), 0) / all.length,
    uncertainty,
  });
  return { top: mean((c) => of(1, c) - of(0, c)), middle: mean((c) => of(0, c)) };
}

function meanOf(all: ReadonlyArray<Known | null>): Known | null {
  const known = all.flatMap((one) => one ?? []);
  if (known.length < all.length || known.length === 0) return null;
  return {
    value: known.reduce((sum, { value }) => sum + value, 0) / known.length,
    uncertainty: Math.max(...known.map(({ uncertainty }) => uncertainty)),
  };
}

/** What the passport of each channel gives to log. */
function passportFigures(
  passport: readonly PassportChannel[],
  speedCmPerS: number,
): Array<Figure<SettingsQuantity> | null> {
  const rates = dropOutRates(dropOutsOf(passport));
  return passport.flatMap((own) => {
    const { channel, sensitivity, treble, mol, noise, dropOuts } = own;
    const row = (quantity: SettingsQuantity, known: Known | null) => known && { quantity, channel, ...known };
    const perMinute = rates?.perMinute.find((one) => one.channel === channel)?.perMinute;
    return [
      row("passport.sensitivity", sensitivity),
      row("passport.treble", treble),
      row("passport.biasWanted", biasWanted(own, speedCmPerS)),
      row("passport.mol", mol),
      row("passport.noise", noise),
      // as many more or fewer as chance makes of so few
      perMinute === undefined || !dropOuts
        ? null
        : row("passport.dropOuts", {
            value: perMinute,
            uncertainty: (60 / dropOuts.seconds) * 2 * Math.sqrt(Math.max(1, dropOuts.events.length)),
          }),
    ];
  });
}

/** The knobs on the front of a machine, that of bias first: what level is set by moves with it. */
export const knobsOf = (bench: OnTheBench): Knob[] =>
  actingAdjusters(settings, bench)
    .flatMap((one): Knob[] => (one.knob ? [{ ...one, knob: one.knob }] : []))
    .toSorted((a, b) => Number(a.knob === "level") - Number(b.knob === "level"));
export type Knob = Adjuster & { knob: NonNullable<Adjuster["knob"]> };

export const settings: MeasuringStation<"settings", SettingsQuantity> = {
  id: "settings",
  kind: "measure",
  name: "Settings",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["settings.bias", "settings.level"],
  limitOf,
  ownLimits: [
    { key: "settingsBiasDb", label: "15 kHz re 400 Hz ±, dB", most: 20 },
    { key: "settingsLevelDb", label: "400 Hz back less sent ±, dB", most: 20 },
  ],
  corridorOf: () => null,
  apartBy: ["speed", "recordingOn"],
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "turn", says: "a knob on the front, set for a tape", actsOn: ["knob"] }],
  hears: {
    what: "sequence",
    flutter: false,
    role: null,
    sequence: SEQUENCE.id,
    follows: TONES,
    steady: "settings-tones",
  },
  tapeLacks: () => null,
  upsets: ["settings"],
  readings: (bench) => {
    const { top, middle, passport, lacks, agoSeconds, live } = settingsNow(bench);
    if (!top || !middle) return nothingToLog(lacks ?? "Not all tones of the sequence were heard.");
    const set = (knob: Known, quantity: SettingsQuantity) => ({ quantity, channel: "both", ...knob });
    const readings = (context: LogContext): Reading[] =>
      readingsOfMoment(
        settings,
        { ...context, nominalHz: TONES[0], at: recordedAt(context.at, agoSeconds) },
        { seconds: 3, method: METHOD },
        [
          set(top, "settings.bias"),
          set(middle, "settings.level"),
          ...(passport ? passportFigures(passport, context.speedCmPerS) : []),
        ],
      );
    const now = (context: LogContext) => (lacks === null ? readings(context) : null);
    const before = bench.heard?.comparison?.before ?? null;
    const { source = null } = bench.heard?.comparison ?? {};
    return {
      toLog: (context) => lacks ?? readings(context),
      afterTurn: now,
      beforeTurn: (context) => {
        if (!live || !before || !source) return now(context);
        const stood = differences(source, before, bench.here.machine.channels);
        return readingsOfMoment(
          settings,
          { ...context, nominalHz: TONES[0] },
          { seconds: 2, method: METHOD },
          [set(stood.top, "settings.bias"), set(stood.middle, "settings.level")],
        );
      },
    };
  },
  advise: (bench, chosenId): Advised => {
    const { top, middle, lacks } = settingsNow(bench);
    const { machine } = bench.here;
    const knobs = knobsOf(bench);
    const numbers = { bias: top, level: middle };
    const off = ({ knob }: Knob) =>
      Math.abs(numbers[knob]?.value ?? 0) / (limitOf(machine, KNOB_QUANTITY[knob]) ?? 1);
    // first bias, until there is nothing to gain by it
    const inHand =
      knobs.find(({ id }) => id === chosenId) ??
      knobs.find((knob) => off(knob) > GOOD_ENOUGH_SHARE) ??
      knobs.at(0);
    if (!inHand)
      return nothingAdvised({
        quantity: "settings.bias",
        value: top?.value ?? null,
        uncertainty: top?.uncertainty ?? 0,
        settled: lacks === null,
      });
    const quantity = KNOB_QUANTITY[inHand.knob];
    const limit = limitOf(machine, quantity) ?? USUAL_LEVEL_DB;
    const known = numbers[inHand.knob];
    const alone = { ...machine, adjusters: machine.adjusters.filter(({ id }) => id === inHand.id) };
    const advised = adviseByNumber(
      { ...bench, here: { ...bench.here, machine: alone } },
      {
        station: settings,
        quantity,
        limit,
        goodEnough: GOOD_ENOUGH_SHARE * limit,
        live: () => known && { ...known, settled: lacks === null },
        hearFirst: lacks ?? "Send the sequence, and record it.",
      },
      inHand.id,
    );
    return { ...advised, adjusters: knobs };
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn:
    "This machine has no knobs on the front written down: what the tape takes is what the owner's card says.",
  setUp: [
    "Put in the tape that is to be set for; knobs on the front at their middle, noise reduction off.",
    "Record the passport sequence: it tells all of the tape in a minute and a quarter.",
    "Knobs on the front: with both tones, steady, 15 kHz and 400 Hz are to come back as loud as they went in.",
  ],
  checks: [],
  caution: null,
};
const METHOD = "400 Hz and 15 kHz 20 dB down, came back less went in";
