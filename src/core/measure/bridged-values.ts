import type { Values } from "@/core/dsp/values";
import type { Bridge } from "./steady-stretch";

/**
 * The same values with straight lines over some places, wider by `edge` elements on either side: what filters have seen
 * of their edges goes too.
 */
export function bridgedValues(values: Values, bridges: readonly Bridge[], edge: number): Values {
  const { length } = values;
  const lines: Array<{ from: number; to: number }> = [];
  for (const bridge of bridges.toSorted((a, b) => a.from - b.from)) {
    const [from, to] = [Math.max(0, bridge.from - edge), Math.min(length, bridge.to + edge)];
    const before = lines.at(-1);
    if (before && from <= before.to) before.to = Math.max(before.to, to);
    else lines.push({ from, to });
  }
  const at = (place: number) => values.read(place, new Float64Array(1))[0];
  const drawn = lines.map(({ from, to }) => ({
    from,
    to,
    begins: at(Math.max(0, from - 1)),
    ends: at(Math.min(length - 1, to)),
  }));
  return {
    length,
    read(from, piece) {
      values.read(from, piece);
      const to = from + piece.length;
      for (const line of drawn)
        for (let i = Math.max(from, line.from); i < Math.min(to, line.to); i++)
          piece[i - from] =
            line.begins + ((line.ends - line.begins) * (i - line.from)) / (line.to - line.from);
      return piece;
    },
  };
}
