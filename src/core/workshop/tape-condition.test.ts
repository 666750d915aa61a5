import { describe, expect, it } from "vitest";
import {
  BAKED_DAYS,
  daysLeft,
  decide,
  MAY_PLAY,
  TAPE_SIGNS,
  whyNotBakedSo,
  type TapeSign,
} from "./tape-condition";

const NOW = "2026-11-27T12:00:00.000Z";
const ago = (days: number) => new Date(Date.parse(NOW) - days * 86_400_000).toISOString();
const baked = (days: number) => ({ at: ago(days), celsius: 54, hours: 8 });
const of = (...signs: TapeSign[]) => decide({ signs, baked: null }, NOW);

describe("what may be done with a tape", () => {
  it.each<[TapeSign[], (typeof MAY_PLAY)[number], boolean]>([
    [[], "play", false],
    [["back-coated"], "with care", true],
    [["squeals"], "not yet", true],
    [["brown residue", "splices"], "not yet", true],
    [["mould", "squeals"], "never as it is", true],
    [["acetate base"], "with care", false],
    [["wound oxide out"], "not yet", false],
    [["unknown base"], "with care", false],
  ])("%j: %s, cleaned after: %s", (signs, play, cleanAfter) => {
    expect(of(...signs)).toMatchObject({ play, cleanAfter });
  });

  it("of any signs: one more never makes it safer, and every one is spoken of", () => {
    for (const one of TAPE_SIGNS)
      for (const other of TAPE_SIGNS) {
        const both = of(one, other);
        const worse = Math.max(MAY_PLAY.indexOf(of(one).play), MAY_PLAY.indexOf(of(other).play));
        expect(MAY_PLAY.indexOf(both.play)).toBeGreaterThanOrEqual(worse);
        expect(both.says.length).toBeGreaterThan(0);
      }
  });

  it("a tape that sheds plays for some days after it was baked, and not after them", () => {
    const at = (days: number) => decide({ signs: ["squeals"], baked: baked(days) }, NOW);
    expect(at(1)).toMatchObject({ play: "with care", cleanAfter: true });
    expect(at(1).says[0]).toContain(`${BAKED_DAYS - 1} more days`);
    expect(at(BAKED_DAYS - 0.5).says[0]).toContain("1 more day,");
    expect(at(BAKED_DAYS)).toMatchObject({ play: "not yet" });
    expect(at(BAKED_DAYS).says[0]).toMatch(/too long ago/);
    // baked and mouldy is still mouldy
    expect(decide({ signs: ["squeals", "mould"], baked: baked(1) }, NOW).play).toBe("never as it is");
    expect([daysLeft(null, NOW), daysLeft(baked(100), NOW)]).toEqual([null, 0]);
  });
});

describe("baking", () => {
  const FIT = { celsius: 54, hours: 8 };
  const sheds = (...more: TapeSign[]) => ({ signs: ["squeals" as const, ...more], consent: true });
  it.each<[string, Parameters<typeof whyNotBakedSo>[0], Parameters<typeof whyNotBakedSo>[1], RegExp | null]>([
    ["with consent, warm and long enough", sheds(), FIT, null],
    ["without the owner's consent", { ...sheds(), consent: false }, FIT, /consent/],
    ["acetate", sheds("acetate base"), FIT, /never baked/],
    ["what smells of vinegar is acetate", sheds("vinegar smell"), FIT, /never baked/],
    ["a base that nobody knows", sheds("unknown base"), FIT, /has to be known/],
    ["mould", sheds("mould"), FIT, /mould/],
    ["a tape that does not shed", { signs: ["splices"], consent: true }, FIT, /Nothing of it asks/],
    ["as hot as an oven", sheds(), { celsius: 120, hours: 8 }, /Between 45 and 57/],
    ["for a coffee", sheds(), { celsius: 54, hours: 0.5 }, /For 4 to 72 hours/],
    ["figures that are none", sheds(), { celsius: NaN, hours: NaN }, /Between/],
  ])("%s", (_, check, how, why) => {
    const found = whyNotBakedSo(check, how, NOW);
    if (why) expect(found).toMatch(why);
    else expect(found).toBeNull();
  });
});
