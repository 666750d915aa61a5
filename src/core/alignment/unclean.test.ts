import { expect, it } from "vitest";
import { clean } from "@/core/stations/clean";
import type { TapeCheck } from "@/core/workshop/tape-condition";
import { whyUnclean } from "./unclean";

const played = (
  signs: TapeCheck["signs"],
  playedAt: string | null = "2026-11-27T10:00:00.000Z",
): TapeCheck => ({
  id: "t",
  at: "2026-11-27T09:00:00.000Z",
  name: "Interview 12",
  signs,
  consent: false,
  baked: null,
  playedAt,
});
const ticked = (n: number) => ({ clean: clean.checks.slice(0, n) });

it.each<[string, TapeCheck[], Record<string, string[]>, boolean]>([
  ["no tape was looked at", [], {}, false],
  ["a sound tape was played", [played([])], {}, false],
  ["one that sheds was looked at and not played", [played(["squeals"], null)], {}, false],
  ["one that sheds was played", [played(["squeals"])], {}, true],
  [
    "a back-coated one was played, and half of the cleaning is ticked",
    [played(["back-coated"])],
    ticked(3),
    true,
  ],
  ["all of it is ticked since", [played(["squeals"])], ticked(clean.checks.length), false],
])("%s", (_, tapeChecks, done, blocked) => {
  const why = whyUnclean({ tapeChecks, done });
  if (blocked) expect(why).toMatch(/^Interview 12 was played/);
  else expect(why).toBeNull();
});
