import { describe, expect, it } from "vitest";
import type { ListeningResult } from "@/core/live/listening-result";
import { nothingMeasured } from "@/core/recordings/file-measurement";
import { listening, NOTHING_HEARD, type ListeningEvent, type ListeningState } from "./listening-state";

const FROM = { source: { kind: "practice" as const, name: "x" }, fullScale: null };
const result = (fields: Partial<ListeningResult> = {}): ListeningResult => ({
  seconds: 5,
  channels: [{ channel: "left", peakDbfs: -12, problem: null }],
  speed: {
    errorPercent: 0.1,
    uncertaintyPercent: 0.01,
    windowSeconds: 5,
    settled: true,
    creeps: false,
    instantPercent: 0.1,
    beforeChange: null,
  },
  flutter: null,
  waveform: null,
  marks: 0,
  nominalHz: 3150,
  check: null,
  stretch: null,
  watch: null,
  playback: null,
  comparison: null,
  recording: null,
  quiet: null,
  oscillator: null,
  blanking: null,
  controls: null,
  ticks: null,
  squeal: null,
  wind: null,
  returned: null,
  band: null,
  sequencePlays: null,
  bandsHeard: [],
  tapeDoubt: null,
  ...fields,
});
const file = (name: string) =>
  nothingMeasured(name, { sampleRateHz: 48000, durationSeconds: 10, warnings: [] });
const DROPPED_AT = "2026-11-20T12:00:00.000Z";
const after = (...events: ListeningEvent[]): ListeningState => events.reduce(listening, NOTHING_HEARD);

describe("what the page shows of its source", () => {
  it("a long file that was replaced never comes back over the one that replaced it", () => {
    const state = after(
      { session: 1, kind: "begun", source: "file" },
      { session: 2, kind: "begun", source: "file" },
      { session: 2, kind: "file measured", file: file("b.wav"), droppedAt: DROPPED_AT },
      { session: 1, kind: "progress", share: 0.9 },
      { session: 1, kind: "file measured", file: file("a.wav"), droppedAt: DROPPED_AT },
    );
    expect(state.heard!.source.name).toBe("b.wav");
    expect(state.progress).toBeNull();
  });

  it("what a source gave before it was lost is still shown, as of a source that has gone", () => {
    const begun = after(
      { session: 1, kind: "begun", source: "sound card" },
      { session: 1, kind: "heard", result: result(), from: FROM },
    );
    expect(begun.heard?.gone).toBe(false);
    const lost = listening(begun, { session: 1, kind: "lost", why: "unplugged" });
    expect(lost).toMatchObject({ kind: null, heard: { gone: true } });
  });

  it("a file keeps when it was dropped in", () => {
    const state = after(
      { session: 1, kind: "begun", source: "file" },
      { session: 1, kind: "file measured", file: file("a.wav"), droppedAt: DROPPED_AT },
    );
    expect(state.heard?.droppedAt).toBe(DROPPED_AT);
  });

  it("a file, then the practice machine, then cancelled: nothing of what has ended is shown", () => {
    const state = after(
      { session: 1, kind: "begun", source: "file" },
      { session: 2, kind: "begun", source: "practice" },
      { session: 2, kind: "heard", result: result(), from: FROM },
      { session: 2, kind: "stopped" },
      { session: 1, kind: "file measured", file: file("a.wav"), droppedAt: DROPPED_AT },
      { session: 2, kind: "heard", result: result(), from: FROM },
    );
    // also not the result that was under way when it was stopped
    expect(state).toMatchObject({ kind: null, heard: null, live: null });
  });

  it("a session that begins late under an old number changes nothing", () => {
    const state = after(
      { session: 3, kind: "begun", source: "practice" },
      { session: 2, kind: "begun", source: "sound card" },
    );
    expect(state).toMatchObject({ session: 3, kind: "practice" });
  });

  it("what was heard before a turn was told is settled no more, and older results are passed over", () => {
    const begun: ListeningEvent[] = [
      { session: 1, kind: "begun", source: "practice" },
      { session: 1, kind: "heard", result: result(), from: FROM },
      { session: 1, kind: "turned" },
      { session: 1, kind: "told", times: 1 },
    ];
    expect(after(...begun).heard!.speed!.settled).toBe(false);
    const late = after(...begun, { session: 1, kind: "heard", result: result({ seconds: 6 }), from: FROM });
    expect(late.live!.seconds).toBe(5);
    const fresh = after(...begun, {
      session: 1,
      kind: "heard",
      result: result({ seconds: 6, marks: 1 }),
      from: FROM,
    });
    expect(fresh.heard!.speed!.settled).toBe(true);
  });

  it("a sound card that is lost leaves what was heard to be seen", () => {
    const state = after(
      { session: 1, kind: "begun", source: "sound card" },
      { session: 1, kind: "heard", result: result(), from: FROM },
      { session: 1, kind: "lost", why: "It went away." },
    );
    expect(state).toMatchObject({ kind: null, lost: true, trouble: "It went away." });
    expect(state.heard).not.toBeNull();
  });
});
