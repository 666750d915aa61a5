import { describe, expect, it } from "vitest";
import { PRESETS } from "@/core/signals/presets";
import { answerSignals } from "./answer-signals";

const ask = (query: Record<string, string>) => answerSignals(new URLSearchParams(query));
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
