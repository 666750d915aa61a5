import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { flacFile } from "@/testing/flac-encoder";
import { bytesInMemory } from "./byte-source";
import { openSound } from "./open-sound";
import { SoundFileError } from "./sound-file";
import { wavFile } from "./wav-writer";

const integers = (length: number, bits: number, seed = 7): Int32Array => {
  let state = seed;
  return Int32Array.from({ length }, () => {
    state = (state * 48271) % 2147483647;
    return (state % 2 ** bits) - 2 ** (bits - 1);
  });
};

async function samplesOf(bytes: Uint8Array): Promise<{ channels: number[][]; warnings: string[] }> {
  const sound = await openSound(bytesInMemory(bytes));
  const channels: number[][] = Array.from({ length: sound.channelCount }, () => []);
  for await (const block of sound.blocks()) block.forEach((samples, c) => channels[c].push(...samples));
  return { channels, warnings: sound.warnings };
}

describe("FLAC", () => {
  it.each([12, 16, 20, 24] as const)(
    "of %i bits gives the very samples that went in, as a WAV does",
    async (bits) => {
      const sound = [integers(10_000, bits), integers(10_000, bits, 99)];
      const scaled = sound.map((x) => Float64Array.from(x, (v) => v / 2 ** (bits - 1)));
      const flac = await samplesOf(flacFile(sound, 48000, bits));
      expect(flac.channels).toEqual(scaled.map((x) => [...x]));
      expect(flac.warnings).toEqual([]);
      if (bits === 12 || bits === 20) return;
      const wav = await samplesOf(wavFile(scaled, 48000, bits === 16 ? "int16" : "int24"));
      expect(flac.channels).toEqual(wav.channels);
    },
  );

  it("steps over a tag in front of it", async () => {
    const flac = flacFile([integers(5000, 16)], 44100, 16);
    const tag = new Uint8Array(10 + 300);
    tag.set([0x49, 0x44, 0x33, 4, 0, 0, 0, 0, 300 >> 7, 300 & 127]);
    const both = new Uint8Array(tag.length + flac.length);
    both.set(tag);
    both.set(flac, tag.length);
    expect((await samplesOf(both)).channels[0]).toHaveLength(5000);
  });

  it("counts the samples itself when the file does not say how many there are", async () => {
    const flac = flacFile([integers(9000, 16)], 48000, 16, { claimedFrames: 0 });
    expect((await openSound(bytesInMemory(flac))).frameCount).toBe(9000);
  });

  /** As the encoder that made the fixtures was given it: a triangle with a little noise, and both ends of the range. */
  const given = (length: number, channels: number, bits: number) =>
    Array.from({ length: channels }, (_, c) => {
      let state = 7 + c;
      const period = 90 + 10 * c;
      return Array.from({ length }, (_unused, i) => {
        state = (state * 48271) % 2147483647;
        const triangle = Math.abs((i % period) * 2 - period) - Math.floor(period / 2);
        const ends = [-(2 ** (bits - 1)), 2 ** (bits - 1) - 1];
        return (ends[i] ?? triangle * 2 ** (bits - 9) + (state % 7) - 3) / 2 ** (bits - 1);
      });
    });

  it.each<[string, number, number, number]>([
    ["stereo-12", 2, 12, 3000],
    ["stereo-16-fixed", 2, 16, 3000],
    ["stereo-20", 2, 20, 3000],
    ["mono-24", 1, 24, 3000],
    ["eight-24", 8, 24, 700],
  ])("of another encoder, %s, gives what went in", async (name, channels, bits, length) => {
    const file = readFileSync(new URL(`./fixtures/${name}.flac`, import.meta.url));
    const sound = await samplesOf(new Uint8Array(file));
    expect(sound.warnings).toEqual([]);
    expect(sound.channels).toEqual(given(length, channels, bits));
  });

  it("of eight channels of 24 bits in the longest blocks gives what went in", async () => {
    const one = integers(70_000, 24);
    const flac = flacFile(Array<Int32Array>(8).fill(one), 48000, 24, { blockSize: 65_535 });
    const { channels, warnings } = await samplesOf(flac);
    expect(warnings).toEqual([]);
    expect(channels.map(({ length }) => length)).toEqual(Array<number>(8).fill(70_000));
    expect(channels[7].every((v, i) => v === one[i] / 2 ** 23)).toBe(true);
  });

  it("steps over what tells of the sound, also where it looks like frames", async () => {
    const flac = flacFile([integers(9000, 16)], 48000, 16);
    const frames = flac.subarray(42);
    const block = Uint8Array.of(2, 0, frames.length >> 8, frames.length & 255);
    const both = new Uint8Array(flac.length + block.length + frames.length);
    both.set(flac.subarray(0, 42));
    both[4] = 0; // its first block is not the last
    block[0] |= 0x80;
    both.set(block, 42);
    both.set(frames, 46);
    both.set(frames, 46 + frames.length);
    const { channels, warnings } = await samplesOf(both);
    expect(warnings).toEqual([]);
    expect(channels[0]).toHaveLength(9000);
  });

  it("notices a flipped bit wherever it is in the sound: silence in its place, and a warning", async () => {
    const sound = integers(5000, 16);
    const flac = flacFile([sound], 48000, 16, { blockSize: 1000 });
    for (let bit = 8 * 42 + 3; bit < 8 * flac.length; bit += 997) {
      const flipped = flac.slice();
      flipped[bit >> 3] ^= 1 << (bit & 7);
      const { channels, warnings } = await samplesOf(flipped);
      expect(warnings.join()).toMatch(/damaged places?|could be decoded/);
      // what is heard stands where it stood
      expect(channels[0].every((v, i) => v === 0 || v === sound[i] / 32768)).toBe(true);
    }
  });

  it("says how much of a file that was cut short could be used", async () => {
    const flac = flacFile([integers(40_000, 16)], 48000, 16);
    const { channels, warnings } = await samplesOf(flac.slice(0, flac.length / 2));
    expect(channels[0].length).toBeGreaterThan(10_000);
    expect(warnings.join()).toMatch(/40000 samples, but \d+ could be decoded/);
  });

  it("refuses what is no FLAC", async () => {
    await expect(samplesOf(new TextEncoder().encode("OggS and so on"))).rejects.toThrow(/nor a FLAC file/);
    await expect(samplesOf(flacFile([integers(100, 16)], 48000, 16).slice(0, 20))).rejects.toThrow(
      /cut short/,
    );
    // says another width than its frames have
    const wide = flacFile([integers(100, 16)], 48000, 16);
    wide[20] |= 1;
    wide[21] |= 0xf0;
    await expect(samplesOf(wide)).rejects.toThrow(/no sound that can be decoded/);
    await expect(samplesOf(flacFile([integers(100, 16)], 48000, 16).slice(0, 42))).rejects.toThrow(
      /no sound/,
    );
  });

  it("meets any damage with a sentence or with what is left, never with a crash", async () => {
    const flac = flacFile([integers(6000, 16), integers(6000, 16)], 48000, 16, { blockSize: 1024 });
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.integer({ min: 0, max: flac.length - 1 }), fc.integer({ min: 0, max: 255 })), {
          minLength: 1,
          maxLength: 30,
        }),
        fc.integer({ min: 5, max: flac.length }),
        async (changes, length) => {
          const damaged = flac.slice(0, length);
          for (const [at, value] of changes) if (at < length) damaged[at] = value;
          try {
            const { channels } = await samplesOf(damaged);
            expect(channels.every((x) => x.every((v) => Math.abs(v) <= 1))).toBe(true);
          } catch (error) {
            expect(error).toBeInstanceOf(SoundFileError);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
