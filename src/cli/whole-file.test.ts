import { mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { writeWhole } from "./whole-file";

const folder = mkdtempSync(join(tmpdir(), "unzel-whole-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const at = (name: string) => join(folder, name);
const bytes = (text: string) => new TextEncoder().encode(text);

describe("a file that is written", () => {
  it("is there when it is whole, and nothing beside it", async () => {
    const seen: string[][] = [];
    const pieces = function* () {
      yield bytes("a");
      seen.push(readdirSync(folder).filter((name) => name === "whole.wav"));
      yield bytes("b");
    };
    await writeWhole(at("whole.wav"), [], pieces());
    expect(seen).toEqual([[]]);
    expect(readFileSync(at("whole.wav"), "utf8")).toBe("ab");
    expect(readdirSync(folder).filter((name) => name.includes("part"))).toEqual([]);
  });

  it("that fails on the way leaves what was there before", async () => {
    writeFileSync(at("kept.wav"), "before");
    const pieces = function* () {
      yield bytes("half");
      throw new Error("it went wrong.");
    };
    await expect(writeWhole(at("kept.wav"), [], pieces())).rejects.toThrow(
      /kept\.wav cannot be written: it went wrong/,
    );
    expect(readFileSync(at("kept.wav"), "utf8")).toBe("before");
    expect(readdirSync(folder).filter((name) => name.includes("part"))).toEqual([]);
  });

  it.each<[string, () => [string, string[]], RegExp]>([
    ["what is read meanwhile", () => [at("read.json"), [at("read.json")]], /is read for this/],
    ["the same by another name", () => [at("link.json"), [at("read.json")]], /is read for this/],
    ["a folder", () => [folder, []], /is a folder/],
    ["where there is no folder", () => [at("none/x.wav"), []], /no such file or folder/],
    ["under a file", () => [at("read.json/x.wav"), []], /is a file, not a folder/],
  ])("is never %s", async (_, given, says) => {
    writeFileSync(at("read.json"), "{}");
    rmSync(at("link.json"), { force: true });
    symlinkSync(at("read.json"), at("link.json"));
    const [path, reads] = given();
    await expect(writeWhole(path, reads, [bytes("x")])).rejects.toThrow(says);
    expect(readFileSync(at("read.json"), "utf8")).toBe("{}");
  });
});
