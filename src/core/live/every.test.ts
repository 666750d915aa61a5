import { expect, it } from "vitest";
import { Every } from "./every";

it("is due at once, then once each interval, and stays due until it is done", () => {
  const every = new Every(2);
  expect([0, 0.1, 1.9, 2, 2.1, 3.9, 4].filter((at) => every.takes(at))).toEqual([0, 2, 4]);
  expect(every.isDue(7)).toBe(true);
  expect(every.isDue(7.5)).toBe(true);
  every.done(7.5);
  expect([9, 9.4, 9.5].map((at) => every.isDue(at))).toEqual([false, false, true]);
});
