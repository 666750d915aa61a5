import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import { readSparesCsv, writeSparesCsv } from "@/core/formats/spare-csv";
import { sparesFor } from "@/core/workshop/spare";
import { stateOf } from "@/core/workshop/part";
import { database } from "./database";
import { needPart, stepPart, takeBackStep, takeFromBox } from "./needed-parts";
import { countSpare, importSpares, saveSpare } from "./spares";

beforeEach(() => Promise.all(database.tables.map((table) => table.clear())));
const drawers = async () =>
  (await database.spares.orderBy("name").toArray()).map(({ name, count, place }) => [name, count, place]);

describe("the spare-parts box", () => {
  it("goes out as CSV and comes back the same, whatever stands in its names", async () => {
    await saveSpare({ name: '=clip "3", flat', kind: "clip", count: 25, place: "drawer 4; left" });
    await saveSpare({ name: "belt 71 × 1.2 mm", kind: "belt", count: 0, place: "" });
    const before = await drawers();
    const text = writeSparesCsv(await database.spares.toArray());
    expect(text).not.toMatch(/(^|,)"?=/m);
    await database.spares.clear();
    await importSpares(text.replace(/'=/g, "="));
    expect(await drawers()).toEqual(before);
  });

  it("a list counts anew what is there and adds what is not", async () => {
    await saveSpare({ name: "Belt 71 mm", kind: "belt", count: 1, place: "top" });
    const done = await importSpares(
      "name;kind;count;place\nbelt 71 mm;belt;4;drawer 2\nclip 3 mm;clip;20;\n",
    );
    expect(done).toEqual({ added: 1, changed: 1 });
    expect(await drawers()).toEqual([
      ["belt 71 mm", 4, "drawer 2"],
      ["clip 3 mm", 20, ""],
    ]);
  });

  it.each([
    ["no count", "name,kind\nbelt,belt\n", /first row must be/],
    ["half a piece", "name,kind,count\nbelt,belt,1.5\n", /Row 2: count.*whole/],
    ["another kind", "name,kind,count\nbelt,rubber,1\n", /Row 2: kind/],
    ["no name", "name,kind,count\n,belt,1\n", /Row 2: name/],
    ["twice the same", "name,kind,count\na,belt,1\nA,belt,2\n", /Row 3: "A" stands in row 2/],
    ["nothing but names", "name,kind,count\n", /no parts/],
  ])("%s: refused whole, with the row", async (_, text, says) => {
    expect(() => readSparesCsv(text)).toThrow(says);
    await expect(importSpares(text)).rejects.toThrow(says);
    expect(await database.spares.count()).toBe(0);
  });

  it("never gives more than there is", async () => {
    await saveSpare({ name: "lamp 6 V", kind: "lamp", count: 1, place: "" });
    const [{ id }] = await database.spares.toArray();
    await countSpare(id, -1);
    await countSpare(id, -1);
    expect(await drawers()).toEqual([["lamp 6 V", 0, ""]]);
  });

  it("a part from the box comes out of its drawer when it is fitted, and back when that is taken back", async () => {
    await saveSpare({ name: "clip 3 mm", kind: "clip", count: 5, place: "drawer 4" });
    const [spare] = await database.spares.toArray();
    await needPart("j1", {
      name: "clip",
      count: 2,
      station: "service",
      from: "",
      state: "wanted",
      expected: null,
    });
    const [{ id }] = await database.neededParts.toArray();
    await takeFromBox(id, spare);
    const part = (await database.neededParts.get(id))!;
    expect(stateOf(part)).toBe("fits");
    expect(part.from).toBe("spare-parts box, drawer 4");
    expect((await database.spares.get(spare.id))!.count).toBe(5);
    await stepPart(id, "fitted", null);
    expect((await database.spares.get(spare.id))!.count).toBe(3);
    await takeBackStep(id);
    expect((await database.spares.get(spare.id))!.count).toBe(5);
  });

  it("is searched by words in name, kind and place", () => {
    const spare = (name: string, kind: "belt" | "clip", place: string) => ({
      id: name,
      name,
      kind,
      count: 1,
      place,
      updatedAt: "",
    });
    const all = [spare("71 mm", "belt", "drawer 2"), spare("3 mm", "clip", "drawer 4")];
    expect(sparesFor(all, "belt 71")).toHaveLength(1);
    expect(sparesFor(all, "DRAWER mm")).toHaveLength(2);
    expect(sparesFor(all, "reel")).toHaveLength(0);
    expect(sparesFor(all, " ")).toHaveLength(2);
  });
});
