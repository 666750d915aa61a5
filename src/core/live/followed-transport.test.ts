import { expect, it } from "vitest";
import { fmTone } from "@/testing/fm-tone";
import { FollowedTransport } from "./followed-transport";

const RATE = 24_000;

it("begins anew with another tone, its seconds going on; a tone too low for it changes nothing", () => {
  const transport = new FollowedTransport({
    sampleRateHz: RATE,
    channelCount: 1,
    nominalHz: 3150,
    pace: 1,
  });
  const play = (hz: number, seconds: number) => {
    const tone = fmTone(seconds, RATE, hz);
    for (let at = 0; at < tone.length; at += 2400) transport.push([tone.subarray(at, at + 2400)]);
    return transport.result(false);
  };
  expect(play(3150 * 1.01, 4).speed!.errorPercent).toBeCloseTo(1, 2);
  transport.follow(315, 4);
  expect(transport.nominalHz).toBe(3150);
  transport.follow(1000, 4);
  expect(transport.nominalHz).toBe(1000);
  const { speed, seconds } = play(1000 * 0.99, 4);
  expect(speed!.errorPercent).toBeCloseTo(-1, 2);
  expect(seconds).toBeCloseTo(8, 1);
});
