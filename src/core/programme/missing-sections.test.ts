import { expect, it } from "vitest";
import type { Section } from "./programme";
import { missingSections } from "./missing-sections";

const tone = (frequencyHz: number): Section => ({ kind: "tone", frequencyHz, levelDb: -20, seconds: 5 });
const TAPE = {
  name: "SSA-10",
  sections: [tone(315), tone(1000), { ...tone(0), kind: "silence" as const }, tone(8000), tone(10_000)],
};
const found = (...indices: number[]) => indices.map((index) => ({ index }));

it.each<[string, number[], RegExp[]]>([
  ["all of it", [0, 1, 3, 4], []],
  ["nothing of it", [], []],
  ["its end", [0, 1], [/8.*kHz, 10.*kHz, after the last/]],
  ["its beginning and its middle", [1, 4], [/315.*Hz, before the first/, /8.*kHz, between bands/]],
])("of a recording with %s what is missing is named", (_, indices, says) => {
  const sentences = missingSections(TAPE, found(...indices));
  expect(sentences).toHaveLength(says.length === 0 ? 0 : indices[0] === 0 ? 1 : 2);
  says.forEach((one, i) => expect(sentences[i]).toMatch(one));
});
