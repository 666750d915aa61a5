import { SeededRandom } from "@/core/dsp/seeded-random";
import { biasErrorAt, biasKnown, turnsTo, type BiasReading } from "@/core/guidance/bias-screw";
import { sensitivityDb, thirdShare, trebleShelfDb } from "@/core/simulator/tape-formula";
import { Trimmer } from "@/core/simulator/trimmer";

const SPEED_CM_PER_S = 4.76;
const TONES = { middleHz: 315, highHz: 10_000, speedCmPerS: SPEED_CM_PER_S };
const TRIAL_TURNS = 0.125;
const MOST_TURNS = 6;
const GOOD_ENOUGH_DB = 0.3;
const LIMIT_DB = 1;

/**
 * How many turns the card needs to bring the bias of random machines to flatness: the practice machine's tape heard with
 * 0.03 dB of noise, its screw with slack, turned by a hand that is 3 % off. Without the sound in between.
 * @returns for each machine the turns, trial turn counted, or null where it was not within ±1 dB after six
 */
export function biasTurns(machines: number): Array<number | null> {
  return Array.from({ length: machines }, (_, i) => {
    const random = new SeededRandom(1000 + i);
    const between = (low: number, high: number) => low + (high - low) * random.uniform();
    const dbPerTurn = between(4, 14) * (random.uniform() < 0.5 ? -1 : 1);
    const [offDb, trebleDb] = [between(-3.5, 3.5), between(-1.5, 1.5)];
    const trimmer = new Trimmer(between(0, 0.06), 3);
    const biasDb = () => offDb + dbPerTurn * trimmer.spindleTurns;
    const high = () => sensitivityDb(biasDb(), 10_000, SPEED_CM_PER_S) + trebleShelfDb(trebleDb, 10_000);
    const middle = () => sensitivityDb(biasDb(), 315, SPEED_CM_PER_S);
    const turns: number[] = [];
    const heard: BiasReading[] = [];
    for (let count = 0; count <= MOST_TURNS; count++) {
      heard.push({
        middleDb: middle() + 0.03 * random.normal(),
        highDb: high() + 0.03 * random.normal(),
        thirdDb: 20 * Math.log10(thirdShare(biasDb())) + 0.2 * random.normal(),
        afterTurns: turns.length,
      });
      const known = biasKnown({
        about: "left",
        turns,
        heard,
        beside: [],
        standing: null,
        tones: TONES,
        overBiasDb: null,
      });
      const error = biasErrorAt("flatness", known, known.nowTurns);
      // a decibel of bias is 1.3 to 1.9 dB between the two tones
      if (error && Math.abs(error.errorDb) < GOOD_ENOUGH_DB && error.uncertaintyDb < LIMIT_DB)
        return Math.abs(high() - middle()) < 1.3 * LIMIT_DB ? turns.length : null;
      const answer = known.answers.find(({ school }) => school === "flatness")!;
      const by = answer.turns === null ? TRIAL_TURNS : turnsTo(answer.turns, known);
      const said = Math.round(360 * by) / 360 || Math.sign(by) / 360;
      turns.push(said);
      trimmer.turn(said * (1 + 0.03 * random.normal()));
    }
    return null;
  });
}
