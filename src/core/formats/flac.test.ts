import fc from "fast-check";
import { describe, expect, it, vi } from "vitest";
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
  it.each([16, 24] as const)("gives the very samples that a WAV of %i bits gives", async (bits) => {
    const sound = [integers(10_000, bits), integers(10_000, bits, 99)];
    const scaled = sound.map((x) => Float64Array.from(x, (v) => v / 2 ** (bits - 1)));
    const wav = await samplesOf(wavFile(scaled, 48000, bits === 16 ? "int16" : "int24"));
    const flac = await samplesOf(flacFile(sound, 48000, bits));
    expect(flac.channels).toEqual(wav.channels);
    expect(flac.warnings).toEqual([]);
  });

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

  it("says how much of a file that was cut short could be used", async () => {
    const flac = flacFile([integers(40_000, 16)], 48000, 16);
    const { channels, warnings } = await samplesOf(flac.slice(0, flac.length / 2));
    expect(channels[0].length).toBeGreaterThan(10_000);
    expect(warnings.join()).toMatch(/40000 samples, but \d+ could be decoded/);
  });

  it("refuses what is no FLAC, and more bits than it can give exactly", async () => {
    await expect(samplesOf(new TextEncoder().encode("OggS and so on"))).rejects.toThrow(/nor a FLAC file/);
    await expect(samplesOf(flacFile([integers(100, 16)], 48000, 16).slice(0, 20))).rejects.toThrow(
      /cut short/,
    );
    const wide = flacFile([integers(100, 16)], 48000, 16);
    wide[20] |= 1;
    wide[21] |= 0xf0; // 32 bits
    await expect(samplesOf(wide)).rejects.toThrow(/32 bits/);
    await expect(samplesOf(flacFile([integers(100, 16)], 48000, 16).slice(0, 42))).rejects.toThrow(
      /no sound/,
    );
  });

  it("meets any damage with a sentence or with what is left, never with a crash", async () => {
    const quiet = vi.spyOn(console, "error").mockImplementation(() => {});
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
    quiet.mockRestore();
  });
});
