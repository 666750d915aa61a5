import { SeededRandom } from "@/core/dsp/seeded-random";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { followTheScreens, type Followed } from "@/testing/follow-the-screens";

type Settings = Partial<TransportParameters>;

/** Each playback fault from a random position. */
const FAULTS: Record<string, (random: SeededRandom) => Settings> = {
  azimuth: (random) => ({
    "head.azimuthArcMinutes": (3 + 19 * random.uniform()) * (random.uniform() < 0.5 ? -1 : 1),
    "head.weaveArcMinutes": 0.1,
  }),
  levels: (random) => ({
    "output.leftDb": -12 - 3.5 * random.uniform(),
    "output.rightDb": -12 + 3.5 * random.uniform(),
  }),
  equalisers: (random) => ({
    "playback.leftT2ErrorPercent": -20 - 20 * random.uniform(),
    "playback.rightT2ErrorPercent": 25 + 30 * random.uniform(),
  }),
  dirt: (random) => ({ "head.spacingMicrometres": 0.8 + 0.7 * random.uniform() }),
  "worn gap": (random) => ({ "head.gapMicrometres": 2.2 + 0.6 * random.uniform() }),
  resonance: (random) => ({ "head.resonanceHz": 10_500 + 2000 * random.uniform() }),
  contact: () => ({ "contact.jumpDb": 2.5, "contact.jumpsPerMinute": 40 }),
};

/** Each fault alone and in pairs, aligned by doing what the screens say: name, seconds it took, what came of it. */
export function* playbackFaultRuns(most: number): Generator<[string, number, Followed]> {
  const names = Object.keys(FAULTS);
  const pairs = names.flatMap((one, i) => names.slice(i + 1).map((other) => [one, other]));
  const random = new SeededRandom(7);
  for (const faults of [...names.map((name) => [name]), ...pairs].slice(0, most)) {
    const settings = Object.assign({}, ...faults.map((fault) => FAULTS[fault](random))) as Settings;
    const start = performance.now();
    const followed = followTheScreens(settings, 11);
    yield [faults.join(" and "), (performance.now() - start) / 1000, followed];
  }
}
