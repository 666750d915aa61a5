import { describe, expect, it } from "vitest";
import { soundInMemory } from "@/core/formats/sound-file";
import { measureBands } from "@/core/recordings/measure-bands";
import { playbackView, type PlaybackView } from "@/core/recordings/playback-report";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { referenceTapeSchema } from "@/core/reference/reference-tape";
import { usualFormat } from "@/core/standards/track-formats";
import { PERFECT_TRANSPORT } from "@/testing/perfect-transport";
import { practiceTape } from "./practice-tape";

const RATE = 32_000;
const BAND_SECONDS = 2.2;
const HZ = [315, 63, 125, 1000, 3150, 6300, 10000, 12500];
const tapeOf = (frequenciesHz: number[]) =>
  referenceTapeSchema.parse({
    format: "unzel-reference-tape",
    version: 1,
    id: "short",
    name: "short alignment tape",
    speedCmPerS: 4.76,
    equalisation: "3180/120",
    bands: frequenciesHz.map((frequencyHz) => ({
      kind: "tone",
      frequencyHz,
      levelDb: -10,
      seconds: BAND_SECONDS,
    })),
  });
const TAPE = tapeOf(HZ);
/** Of which cycles can be counted. */
const LADDER = tapeOf([1000, 3150, 6300, 10000]);
const NO_SLACK = { "trimmer.backlashTurns": 0 };

/** What the instruments say of a practice deck that plays the tape, its seconds of start and screws as told. */
async function played(
  settings: Partial<TransportParameters>,
  turn: (deck: PracticeDeck) => void = () => {},
  tape = TAPE,
): Promise<PlaybackView> {
  const parameters = { ...PERFECT_TRANSPORT, ...NO_SLACK, "noise.db": -80, ...settings };
  const deck = new PracticeDeck({ parameters, sampleRateHz: RATE, tape: practiceTape(tape), seed: 3 });
  turn(deck);
  if (deck.status.key === "stop") deck.press("play");
  // with a second between bands
  const seconds = tape.bands.length * (BAND_SECONDS + 1) + 1;
  const sound = soundInMemory(
    deck.render(Math.round(seconds * RATE)).map((x) => Float32Array.from(x)),
    RATE,
  );
  return playbackView(await measureBands(sound, tape), tape, usualFormat(tape.speedCmPerS));
}

/** Where its head stands, by a tape of so many tones as that takes. */
const azimuthOf = async (settings: Partial<TransportParameters>, turn?: (deck: PracticeDeck) => void) =>
  (await played(settings, turn, LADDER)).azimuth;

const level = (view: PlaybackView, channel: number, hz: number) =>
  view.responses[0].channels[channel].points.find(({ frequencyHz }) => frequencyHz === hz)!;

describe("what is set in the practice machine is what is measured", () => {
  it("nothing wrong: upright, flat, and said to be", async () => {
    const view = await played({});
    expect(view.azimuth).toMatchObject({ resolved: true });
    expect(view.azimuth!.tiltArcMinutes).toBeCloseTo(0, 2);
    for (const { points, findings } of view.responses[0].channels) {
      points.forEach(({ levelDb }) => expect(Math.abs(levelDb)).toBeLessThan(0.05));
      expect(findings!.explanations[0].cause).toBe("flat");
    }
  });

  it.each([-12, 3.1])("a tilt of %d arc-minutes, several cycles or a part of one", async (tilt) => {
    const azimuth = await azimuthOf({ "head.azimuthArcMinutes": tilt });
    expect(azimuth!.resolved).toBe(true);
    expect(azimuth!.tiltArcMinutes!).toBeCloseTo(tilt, 1);
  });

  it("a turn of the azimuth screw, in its own direction only", async () => {
    const turned = (which: 0 | 1) => (deck: PracticeDeck) =>
      void deck.playback.azimuthScrews[which].turn(0.25);
    const forwards = await azimuthOf({ "azimuth.arcMinutesPerTurn": 40 }, turned(0));
    expect(forwards!.tiltArcMinutes!).toBeCloseTo(10, 1);
    const other = await azimuthOf({ "azimuth.arcMinutesPerTurn": 40 }, turned(1));
    expect(other!.tiltArcMinutes!).toBeCloseTo(0, 1);
  });

  it("the reverse direction has its own tilt", async () => {
    const settings = { "deck.autoReverse": 1, "head.reverseAzimuthArcMinutes": -5 };
    const azimuth = await azimuthOf(settings, (deck) => {
      deck.press("wind");
      deck.render(2 * RATE);
      deck.press("reverse");
    });
    expect(azimuth!.tiltArcMinutes!).toBeCloseTo(-5, 1);
  });

  it("weave makes azimuth restless, not wrong", async () => {
    const azimuth = await azimuthOf({ "head.azimuthArcMinutes": 3, "head.weaveArcMinutes": 0.5 });
    const top = azimuth!.tones.find(({ frequencyHz }) => frequencyHz === 10000)!;
    expect(top.spreadDegrees).toBeGreaterThan(2);
    expect(azimuth!.tiltArcMinutes!).toBeGreaterThan(1.5);
    expect(azimuth!.tiltArcMinutes!).toBeLessThan(4.5);
  });

  it("an equaliser trimmer and the error that it is to set right, each in its own channel", async () => {
    const wrong = { "playback.rightT2ErrorPercent": -40, "playback.t2PercentPerTurn": 60 };
    const before = await played(wrong);
    expect(level(before, 0, 10000).levelDb).toBeCloseTo(0, 1);
    expect(level(before, 1, 10000).levelDb).toBeLessThan(-3.5);
    expect(before.responses[0].channels[1].findings!.explanations[0].cause).toBe("time constant");
    const after = await played(wrong, (deck) => void deck.playback.equaliserTrimmers[1].turn(40 / 60));
    expect(level(after, 1, 10000).levelDb).toBeCloseTo(0, 1);
  });

  it("a level trimmer, in decibels", async () => {
    const deckLevel = async (turns: number) => {
      const parameters = { ...PERFECT_TRANSPORT, ...NO_SLACK, "playback.levelDbPerTurn": 8 };
      const deck = new PracticeDeck({ parameters, sampleRateHz: RATE, tape: practiceTape(TAPE), seed: 3 });
      deck.playback.levelTrimmers[0].turn(turns);
      deck.press("play");
      const sound = deck.render(4 * RATE).map((x) => Float32Array.from(x));
      const { bands } = await measureBands(soundInMemory(sound, RATE), TAPE);
      return bands[0].pair.channels.map(({ levelDbfs }) => levelDbfs);
    };
    const [before, after] = [await deckLevel(0), await deckLevel(0.5)];
    expect(after[0] - before[0]).toBeCloseTo(4, 2);
    expect(after[1] - before[1]).toBeCloseTo(0, 2);
  });

  it.each<[string, Partial<TransportParameters>, RegExp]>([
    ["dirt", { "head.spacingMicrometres": 1 }, /^spacing$/],
    ["a worn gap", { "head.gapMicrometres": 2.4 }, /^gap$/],
    ["too much capacitance", { "head.resonanceHz": 12_000 }, /^resonance$/],
    ["a bump of the pole pieces", { "head.bumpDb": 3, "head.bumpHz": 80 }, /^head bump$/],
  ])("%s is found for what it is", async (_, settings, cause) => {
    const [{ channels }] = (await played(settings)).responses;
    for (const { findings } of channels) expect(findings!.explanations[0].cause).toMatch(cause);
  });

  it("a missing capacitor takes the top away", async () => {
    const view = await played({ "head.builtForResonanceHz": 18_000, "head.resonanceHz": 0 });
    expect(level(view, 0, 12500).levelDb).toBeLessThan(-2);
    expect(Math.abs(level(view, 0, 1000).levelDb)).toBeLessThan(0.2);
  });

  it("a contact that jumps shows in its channel's spread", async () => {
    const view = await played({ "contact.jumpDb": 2, "contact.jumpsPerMinute": 120 });
    const most = (c: number) =>
      Math.max(...view.responses[0].channels[c].points.map(({ spreadDb }) => spreadDb));
    expect(most(0)).toBeLessThan(0.1);
    expect(most(1)).toBeGreaterThan(0.5);
  });
});
