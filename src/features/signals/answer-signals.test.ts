import { describe, expect, it } from "vitest";
import { PRESETS } from "@/core/signals/presets";
import { answerSignals, askedByAddress, askedByPost, type AskedSignals } from "./answer-signals";

const answer = (asked: AskedSignals | Response) => (asked instanceof Response ? asked : answerSignals(asked));
const ask = (query: Record<string, string>) => answer(askedByAddress(new URLSearchParams(query)));
const post = (body: unknown) => answer(askedByPost(typeof body === "string" ? body : JSON.stringify(body)));
const sequence = (fields: object) => JSON.stringify({ ...PRESETS[1], ...fields });

describe("the route that renders test signals", () => {
  it("streams a WAV file of exactly the length it announces", async () => {
    const response = ask({ preset: "left-right", rate: "44100", bits: "16" });
    expect(response.status).toBe(200);
    expect(response.headers.get("content-type")).toBe("audio/wav");
    const bytes = new Uint8Array(await response.arrayBuffer());
    expect(bytes.length).toBe(Number(response.headers.get("content-length")));
    expect(new TextDecoder().decode(bytes.slice(0, 4))).toBe("RIFF");
  });

  it("takes a long sequence by POST, and gives the same file", async () => {
    const segments = Array.from({ length: 60 }, (_, i) => ({
      kind: "steps",
      frequenciesHz: Array.from({ length: 90 }, (_unused, k) => 300.125 + 7 * i + k),
      levelDb: -20,
      seconds: 0.01,
    }));
    const long = { ...PRESETS[1], segments, marks: false };
    const posted = post({ sequence: long, rate: 44100, bits: 16 });
    expect(posted.status, posted.ok ? "" : await posted.clone().text()).toBe(200);
    const bytes = new Uint8Array(await posted.arrayBuffer());
    expect(bytes.length).toBe(Number(posted.headers.get("content-length")));
    const address = ask({ sequence: JSON.stringify(long), rate: "44100", bits: "16" });
    expect(address.status).toBe(413);
    expect(((await address.json()) as { message: string }).message).toMatch(/by POST/);
    expect(post({ preset: "left-right" }).status).toBe(200);
  });

  it.each([
    ["{", 400, /not complete JSON/],
    ["7", 400, /a group of fields is expected/],
    [{ preset: 4 }, 400, /preset: text is expected, 4 was found/],
    [{}, 404, /no such preset/],
    [{ sequence: [] }, 400, /cannot be played/],
    [`${"[".repeat(500)}${"]".repeat(500)}`, 400, /levels deep/],
  ])("refuses bad post %#, with a sentence", async (body, status, why) => {
    const response = post(body);
    expect(response.status).toBe(status);
    expect(((await response.json()) as { message: string }).message).toMatch(why);
  });

  it("takes a described sequence, and makes its file name harmless", () => {
    const response = ask({ sequence: sequence({ id: '../x"\r\ny' }) });
    expect(response.status).toBe(200);
    expect(response.headers.get("content-disposition")).toBe('attachment; filename="unzel----x---y.wav"');
  });

  it.each([
    [{ preset: "no-such" }, 404, /no such preset/],
    [{}, 404, /preset=ID/],
    [{ preset: "bias", rate: "8000" }, 400, /44100, 48000, 96000/],
    [{ preset: "bias", bits: "12" }, 400, /16, 24, 32/],
    [{ sequence: "{" }, 400, /not complete JSON/],
    [{ sequence: sequence({ segments: [] }) }, 400, /at least one segment/],
    [{ sequence: "x".repeat(30_000) }, 413, /24000 characters/],
    [
      {
        sequence: sequence({ segments: [{ kind: "silence", seconds: 5000 }] }),
        rate: "96000",
        bits: "32",
      },
      413,
      /larger than 2 GiB/,
    ],
    [
      {
        sequence: sequence({ segments: [{ kind: "sine", frequencyHz: 22000, levelDb: 0, seconds: 1 }] }),
        rate: "44100",
      },
      400,
      /does not fit a sample rate/,
    ],
  ])("refuses bad question %#, with a sentence", async (query, status, why) => {
    const response = ask(query as Record<string, string>);
    expect(response.status).toBe(status);
    expect(((await response.json()) as { message: string }).message).toMatch(why);
  });
});
