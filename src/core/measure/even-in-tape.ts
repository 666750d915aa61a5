import type { Samples } from "@/core/dsp/signal";
import { meanOf } from "@/core/dsp/mean";
import { PIECE, type Values } from "@/core/dsp/values";

/** Where the reading of a piece begins: at which value in time, and how much tape had passed by then, in mean steps. */
interface Mark {
  at: number;
  passed: number;
}

/** How much tape passes from one value to the next, in mean steps. */
const stepFrom = (here: number, next: number, whole: number): number => (1 + 0.5 * (here + next)) / whole;

/** The deviation at equal steps of tape that has passed, as many as there were in time. */
export function evenInTape(deviation: Samples): Values {
  const { length } = deviation;
  const whole = 1 + meanOf(deviation);
  // one for every piece: nothing as long as a recording is kept
  const marks: Mark[] = [];
  let passed = 0;
  for (let i = 0; i + 1 < length; i++) {
    const after = passed + stepFrom(deviation[i], deviation[i + 1], whole);
    if (after >= marks.length * PIECE) marks.push({ at: i, passed });
    passed = after;
  }
  return {
    length,
    read(from, piece) {
      const to = from + piece.length;
      // of one value alone there is no mark
      const mark = marks.at(Math.min(marks.length - 1, Math.floor(from / PIECE)));
      let { at: i, passed } = mark ?? { at: 0, passed: 0 };
      let k = from;
      for (; i + 1 < length && k < to; i++) {
        const step = stepFrom(deviation[i], deviation[i + 1], whole);
        for (; k < to && k <= passed + step; k++)
          piece[k - from] = deviation[i] + ((k - passed) / step) * (deviation[i + 1] - deviation[i]);
        passed += step;
      }
      // the last step of the tape may end a little early
      piece.fill(length > 0 ? deviation[length - 1] : 0, k - from);
      return piece;
    },
  };
}
