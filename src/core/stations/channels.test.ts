import { describe, expect, it } from "vitest";
import { heardOn } from "./channels";

describe("what was heard on a channel", () => {
  const left = { channel: "left", db: 1 };
  const right = { channel: "right", db: 2 };

  it("is found by its name wherever it stands", () => {
    expect(heardOn([right, left], 0)).toBe(left);
    expect(heardOn([right, left], 1)).toBe(right);
  });

  it("is not the other's where nothing can be said of the one", () => {
    expect(heardOn([right], 0)).toBeUndefined();
    expect(heardOn([left], 1)).toBeUndefined();
  });

  it("is the only one's of a recording of one channel", () => {
    const mono = { channel: "mono", db: 3 };
    expect(heardOn([mono], 0)).toBe(mono);
    expect(heardOn([mono], 1)).toBeUndefined();
  });
});
