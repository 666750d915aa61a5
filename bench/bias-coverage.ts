import { HEARD_SCHOOLS, type HeardSchool } from "@/core/guidance/bias-answers";
import { answersOfTrial, offDb } from "@/testing/bias-trials";
import { randomTrial } from "@/testing/random-recorders";

interface Row {
  answered: number;
  held: number;
  spanned: number;
  spannedAnswered: number;
  offDb: number[];
  uncertaintyDb: number[];
}

/** How often answers about bias hold, for random recorders of several make-ups: the coverage table, a line each. */
export function biasCoverage(recorders: number, firstSeed: number, print: (line: string) => void): void {
  const rows = new Map<string, Row>();
  let [decided, wrong] = [0, 0];
  for (let seed = firstSeed; seed < firstSeed + recorders; seed++) {
    const trial = randomTrial(seed);
    const { answers, direction } = answersOfTrial(trial);
    if (direction !== null) {
      decided++;
      if (direction !== Math.sign(trial.dbPerTurn)) wrong++;
    }
    for (const answer of answers)
      for (const name of [answer.school, `${answer.school}: ${trial.recorder.makeUp}`]) {
        const row: Row = rows.get(name) ?? {
          answered: 0,
          held: 0,
          spanned: 0,
          spannedAnswered: 0,
          offDb: [],
          uncertaintyDb: [],
        };
        rows.set(name, row);
        if (trial.spanned[answer.school]) row.spanned++;
        if (answer.turns === null) continue;
        row.answered++;
        if (trial.spanned[answer.school]) row.spannedAnswered++;
        const [off, uncertainty] = offDb(trial, answer);
        if (off <= uncertainty) row.held++;
        row.offDb.push(off);
        row.uncertaintyDb.push(uncertainty);
      }
  }
  const median = (list: readonly number[]) => list.toSorted((a, b) => a - b)[list.length >> 1] ?? NaN;
  const percent = (part: number, whole: number) => `${((100 * part) / Math.max(1, whole)).toFixed(1)} %`;
  const order = (name: string) => HEARD_SCHOOLS.indexOf(name.split(":")[0] as HeardSchool);
  for (const [name, row] of [...rows].toSorted(([a], [b]) => order(a) - order(b) || a.localeCompare(b)))
    print(
      `${name.padEnd(34)} holds ${percent(row.held, row.answered)} of ${row.answered}; answered where spanned ${percent(row.spannedAnswered, row.spanned)} of ${row.spanned}; median off ${median(row.offDb).toFixed(3)}, median ± ${median(row.uncertaintyDb).toFixed(3)}, most off ${Math.max(...row.offDb).toFixed(2)} dB`,
    );
  print(`direction: decided ${decided} of ${recorders}, wrong ${wrong}`);
}
