import type { Samples } from "@/core/dsp/signal";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bytesInMemory } from "./byte-source";
import { SoundFileError } from "./sound-file";
import { openWav } from "./wav-reader";
import { encodeSamples, wavFile, wavHeader } from "./wav-writer";
import { largestDifference } from "@/testing/largest-difference";

interface Layout {
  tag?: number;
  subFormat?: number;
  channels?: number;
  rate?: number;
  bits?: number;
  data: Uint8Array;
  claimedBytes?: number;
  form?: "RIFF" | "RF64";
  before?: Array<[id: string, body: Uint8Array]>;
}

/** A WAV file put together by hand, so that every field can lie. */
function handMade({
  tag = 1,
  subFormat,
  channels = 1,
  rate = 48000,
  bits = 16,
  data,
  claimedBytes,
  form = "RIFF",
  before = [],
}: Layout): Uint8Array {
  const ascii = (s: string) => [...s].map((c) => c.charCodeAt(0));
  const le = (value: number, bytes: number) =>
    Array.from({ length: bytes }, (_, i) => Math.floor(value / 256 ** i) % 256);
  const chunk = (id: string, body: ArrayLike<number>, length = body.length) => [
    ...ascii(id),
    ...le(length, 4),
    ...Array.from(body),
    ...(body.length % 2 === 1 ? [0] : []),
  ];
  const plain = [
    ...le(tag, 2),
    ...le(channels, 2),
    ...le(rate, 4),
    ...le((rate * channels * bits) / 8, 4),
    ...le((channels * bits) / 8, 2),
    ...le(bits, 2),
  ];
  const format =
    subFormat === undefined
      ? plain
      : [...plain, ...le(22, 2), ...le(bits, 2), ...le(0, 4), ...le(subFormat, 2), ...new Array(14).fill(0)];
  return Uint8Array.from([
    ...ascii(form),
    ...le(0, 4),
    ...ascii("WAVE"),
    ...before.flatMap(([id, body]) => chunk(id, body)),
    ...chunk("fmt ", format),
    ...chunk("data", data, claimedBytes),
  ]);
}

async function samplesOf(bytes: Uint8Array, block?: number): Promise<number[][]> {
  const wav = await openWav(bytesInMemory(bytes));
  const channels: number[][] = Array.from({ length: wav.channelCount }, () => []);
  for await (const part of wav.blocks(block)) part.forEach((samples, c) => channels[c].push(...samples));
  return channels;
}

const bytesOf = (array: Int16Array | Int32Array | Samples) => new Uint8Array(array.buffer);

describe("reading WAV", () => {
  it.each<[string, Partial<Layout> & { data: Uint8Array }, number[]]>([
    ["8 bits, unsigned", { bits: 8, data: Uint8Array.of(0, 128, 192) }, [-1, 0, 0.5]],
    ["16 bits", { bits: 16, data: bytesOf(Int16Array.of(-32768, 0, 16384)) }, [-1, 0, 0.5]],
    [
      "24 bits",
      { bits: 24, data: Uint8Array.of(0, 0, 0x80, 0, 0, 0, 0xff, 0xff, 0xff, 0, 0, 0x40) },
      [-1, 0, -1 / 8388608, 0.5],
    ],
    ["32 bits", { bits: 32, data: bytesOf(Int32Array.of(-2147483648, 0, 1073741824)) }, [-1, 0, 0.5]],
    ["32-bit float", { tag: 3, bits: 32, data: bytesOf(Float32Array.of(-1, 0.25, 1.5)) }, [-1, 0.25, 1.5]],
    [
      "64-bit float",
      { tag: 3, bits: 64, data: bytesOf(Float64Array.of(-1, 0.1, 1)) },
      [-1, Math.fround(0.1), 1],
    ],
    [
      "an extensible header",
      { tag: 0xfffe, subFormat: 3, bits: 32, data: bytesOf(Float32Array.of(0.5)) },
      [0.5],
    ],
    [
      "an odd chunk before the format",
      { before: [["LIST", Uint8Array.of(1, 2, 3)]], data: bytesOf(Int16Array.of(16384)) },
      [0.5],
    ],
  ])("understands %s", async (_, layout, expected) => {
    expect(await samplesOf(handMade(layout))).toEqual([expected]);
  });

  it("separates eight channels", async () => {
    const data = bytesOf(Int16Array.from({ length: 16 }, (_, i) => i * 1024));
    const channels = await samplesOf(handMade({ channels: 8, data }));
    expect(channels.map((c) => c.map((v) => v * 32))).toEqual(
      Array.from({ length: 8 }, (_, c) => [c, c + 8]),
    );
  });

  it("takes the size of a long file from its ds64 chunk", async () => {
    const ds64 = new Uint8Array(28);
    new DataView(ds64.buffer).setBigUint64(8, 4n, true);
    const bytes = handMade({
      form: "RF64",
      before: [["ds64", ds64]],
      data: bytesOf(Int16Array.of(1, 2, 3, 4)),
      claimedBytes: 0xffffffff,
    });
    expect((await samplesOf(bytes))[0]).toHaveLength(2);
  });

  it.each<[string, Uint8Array, RegExp]>([
    ["an empty file", new Uint8Array(0), /empty/],
    ["text", new TextEncoder().encode("this is not sound at all, whatever it says"), /not a WAV file/],
    ["a header cut short", handMade({ data: new Uint8Array(4) }).slice(0, 30), /format chunk|cut short/],
    ["no channels", handMade({ channels: 0, data: new Uint8Array(4) }), /no channels/],
    ["nine channels", handMade({ channels: 9, data: new Uint8Array(36) }), /9 channels/],
    ["a sample rate of 0", handMade({ rate: 0, data: new Uint8Array(4) }), /sample rate of 0/],
    ["a coding that is not PCM", handMade({ tag: 0x55, data: new Uint8Array(4) }), /format 85/],
    ["12 bits", handMade({ bits: 12, data: new Uint8Array(6) }), /12 bits/],
    ["no sound", handMade({ data: new Uint8Array(0) }), /no sound/],
  ])("refuses %s with a sentence", async (_, bytes, why) => {
    await expect(openWav(bytesInMemory(bytes))).rejects.toThrow(why);
  });

  it("uses what is there when the header claims 10 GB or more than the file holds", async () => {
    for (const claimedBytes of [4_000_000_000, 100]) {
      const wav = await openWav(bytesInMemory(handMade({ data: new Uint8Array(8), claimedBytes })));
      expect(wav.frameCount).toBe(4);
      expect(wav.warnings[0]).toMatch(/8 are there/);
    }
  });

  it("never does anything but read or refuse, whatever the bytes", async () => {
    const good = handMade({ channels: 2, data: new Uint8Array(64) });
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(255)), { maxLength: 8 }),
        fc.nat(good.length),
        async (changes, length) => {
          const bytes = good.slice(0, length);
          for (const [at, value] of changes) if (at < bytes.length) bytes[at] = value;
          try {
            const channels = await samplesOf(bytes);
            expect(channels.length).toBeGreaterThan(0);
          } catch (error) {
            expect(error).toBeInstanceOf(SoundFileError);
          }
        },
      ),
      { numRuns: 500 },
    );
  });
});

describe("writing WAV", () => {
  it.each([
    ["int16", 1 / 32768],
    ["int24", 1 / 8388608],
    // of single precision, as everything that was read
    ["int32", 2 ** -24],
    ["float32", 1e-7],
  ] as const)("reads back as it was written: %s", async (encoding, step) => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.tuple(
            fc.double({ min: -1, max: 0.9999, noNaN: true }),
            fc.double({ min: -1, max: 0.9999, noNaN: true }),
          ),
          { minLength: 1, maxLength: 50 },
        ),
        fc.integer({ min: 1, max: 60 }),
        async (frames, block) => {
          const channels = [frames.map(([l]) => l), frames.map(([, r]) => r)];
          const read = await samplesOf(wavFile(channels, 44100, encoding), block);
          channels.forEach((samples, c) =>
            expect(largestDifference(samples, read[c])).toBeLessThanOrEqual(step),
          );
        },
      ),
      { numRuns: 40 },
    );
  });

  it("limits integers to full scale instead of wrapping", () => {
    expect([...new Int16Array(encodeSamples([[2, -2]], "int16").buffer)]).toEqual([32767, -32768]);
  });

  it("refuses more than a plain WAV can hold", () => {
    expect(() => wavHeader(192000, 8, 2 ** 31, "float32")).toThrow(/do not fit/);
  });
});
