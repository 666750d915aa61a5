import { expect, it } from "vitest";
import { aReading } from "@/testing/records";
import { inForce } from "./job-records";

it("what supersedes another takes its place, oldest first, also when it is added to a list that was asked before", () => {
  const readings = [aReading({ id: "b", minutes: 2 }), aReading({ id: "a", minutes: 1 })];
  const ids = () => inForce(readings).map(({ id }) => id);
  expect(ids()).toEqual(["a", "b"]);
  expect(ids()).toEqual(["a", "b"]);
  readings.push({ ...aReading({ id: "c", minutes: 3 }), supersedes: "a" });
  expect(ids()).toEqual(["b", "c"]);
  expect(readings.map(({ id }) => id)).toEqual(["b", "a", "c"]);
});
