import { expect, it } from "vitest";
import { sequenceSchema } from "@/core/signals/sequence";
import { LiveReturned } from "./live-returned";
import { RecentSound } from "./recent-sound";

const RATE = 16_000;
const SEQUENCE = sequenceSchema.parse({
  format: "unzel-sequence",
  version: 1,
  id: "short",
  name: "Short",
  marked: true,
  leaderSeconds: 0.5,
  gapSeconds: 0.5,
  segments: [{ kind: "sine", channels: "both", frequencyHz: 1000, levelDb: -12, seconds: 1 }],
});
const EVERY_SECONDS = 5;
const MOST = 60;

it("after more attempts than are kept, the oldest is forgotten, once, and all others stay", () => {
  const returned = new LiveReturned(RATE, 1);
  returned.want(SEQUENCE);
  const recent = new RecentSound(RATE, 1, 10);
  const attempts = Array.from({ length: MOST + 6 }, (_, i) => {
    const atSeconds = EVERY_SECONDS * i;
    const section = { index: 0, frequencyHz: 1000, startSeconds: atSeconds + 1, endSeconds: atSeconds + 2 };
    return { pass: 1, atSeconds, sections: [section], speedRatio: 1 };
  });
  type Attempts = Parameters<LiveReturned["update"]>[1];
  const counts = attempts.map((_, i) => {
    recent.push([new Float32Array(EVERY_SECONDS * RATE)]);
    const heard = attempts.slice(0, i + 1) as unknown as Attempts;
    const now = returned.update(EVERY_SECONDS * (i + 1), heard, recent)!;
    return now.passes.map(({ startSeconds }) => startSeconds);
  });
  expect(counts[MOST - 1]).toHaveLength(MOST);
  for (const [i, starts] of counts.entries()) {
    const first = Math.max(0, i + 1 - MOST);
    expect(starts).toEqual(attempts.slice(first, i + 1).map(({ atSeconds }) => atSeconds));
  }
});
