import { describe, expect, it } from "vitest";
import { sampled } from "@/core/dsp/sampled";
import { KeptSound } from "./kept-sound";
import { SoundRooms } from "./sound-rooms";

describe("rooms for sound", () => {
  it("the shortest that is long enough is taken again; one that is too short is given up", () => {
    const rooms = new SoundRooms();
    const [short, long] = [rooms.take(10), rooms.take(30)];
    rooms.giveBack(long);
    rooms.giveBack(short);
    expect(rooms.take(8)).toBe(short);
    expect(rooms.take(8)).toBe(long);
    rooms.giveBack(short);
    const longer = rooms.take(20);
    expect(longer).toHaveLength(20);
    rooms.giveBack(longer);
    expect(rooms.take(5)).toBe(longer);
  });

  it("what was kept in a room before is not heard after it, and what is measured is still its own", () => {
    const rooms = new SoundRooms();
    const first = new KeptSound(10, 1, { fromSeconds: 0, toSeconds: 3 }, rooms);
    first.push([new Float32Array(30).fill(7)], 0);
    const second = new KeptSound(10, 1, { fromSeconds: 3, toSeconds: 5 }, rooms);
    first.measure(([x]) => expect([...x]).toEqual(Array(30).fill(7)));
    // the recording is heard from the middle of it on
    second.push([sampled(10, (i) => i + 1)], 35);
    expect(second.measure(([x]) => [...x])).toEqual([0, 0, 0, 0, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
  });
});
