import { knobWords } from "@/core/text/knob-words";
import { KNOB_MARKS } from "@/ui/knob";

const SOFT = "var(--soft)";
const INK = "var(--ink)";

/** A knob on paper, as it stands. */
export function PaperKnob({ turns }: { turns: number }) {
  const line = (at: number, from: number, to: number) => {
    const [x, y] = [Math.sin(2 * Math.PI * at), -Math.cos(2 * Math.PI * at)];
    return { x1: 30 + from * x, y1: 30 + from * y, x2: 30 + to * x, y2: 30 + to * y };
  };
  return (
    <svg viewBox="0 0 60 60" width={76} height={76} role="img" aria-label={`a knob ${knobWords(turns)}`}>
      {KNOB_MARKS.map((at) => (
        <line
          key={at}
          {...line(at, 23, at === 0 ? 29 : 26)}
          stroke={SOFT}
          strokeWidth={at === 0 ? 1.6 : 0.8}
        />
      ))}
      <circle cx={30} cy={30} r={19} fill="none" stroke={INK} strokeWidth={1.6} />
      <line {...line(turns, 4, 16)} stroke={INK} strokeWidth={3} strokeLinecap="round" />
    </svg>
  );
}
