import { KNOB_REACH, knobWords } from "@/core/text/knob-words";
import { INK, SOFT } from "./theme";

interface KnobProps {
  name: string;
  /** From its middle, clockwise positive. */
  turns: number;
  /** Sets the drawing to what the machine shows; left out where it only shows. */
  onTurn?(turns: number): void;
  size?: number;
}

const STEP = 1 / 24;
const FINE_STEP = 1 / 96;
/** Where its marks stand, turns from its middle. */
export const KNOB_MARKS = Array.from({ length: 11 }, (_, i) => ((i - 5) * KNOB_REACH) / 5);
const WAYS: Record<string, number | undefined> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };

/** A knob on the front of a machine as it stands, with its place in words; arrow keys turn it. */
export function Knob({ name, turns, onTurn, size = 116 }: KnobProps) {
  const held = (to: number) => Math.max(-KNOB_REACH, Math.min(KNOB_REACH, to));
  const place = (at: number, radius: number) => ({
    x: 60 + radius * Math.sin(2 * Math.PI * at),
    y: 58 - radius * Math.cos(2 * Math.PI * at),
  });
  const [tip, root] = [place(turns, 34), place(turns, 8)];
  const degrees = (at: number) => Math.round(360 * at);
  return (
    <svg
      viewBox="0 0 120 132"
      width={size}
      height={(size * 132) / 120}
      role={onTurn ? "slider" : "img"}
      tabIndex={onTurn ? 0 : undefined}
      aria-label={onTurn ? `${name}, as it stands` : `${name} ${knobWords(turns)}`}
      aria-valuenow={onTurn ? degrees(turns) : undefined}
      aria-valuemin={onTurn ? degrees(-KNOB_REACH) : undefined}
      aria-valuemax={onTurn ? degrees(KNOB_REACH) : undefined}
      aria-valuetext={onTurn ? knobWords(turns) : undefined}
      style={{ cursor: onTurn ? "grab" : undefined, touchAction: "none" }}
      onKeyDown={(event) => {
        const way = WAYS[event.key];
        if (!onTurn || way === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        onTurn(held(turns + way * (event.shiftKey ? FINE_STEP : STEP)));
      }}
      onPointerDown={(event) => onTurn && event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        if (!onTurn || event.buttons === 0) return;
        const box = event.currentTarget.getBoundingClientRect();
        const x = ((event.clientX - box.x) / box.width) * 120 - 60;
        const y = ((event.clientY - box.y) / box.height) * 132 - 58;
        if (Math.hypot(x, y) > 6) onTurn(held(Math.atan2(x, -y) / (2 * Math.PI)));
      }}
    >
      {KNOB_MARKS.map((at) => {
        const [inner, outer] = [place(at, 46), place(at, at === 0 ? 54 : 51)];
        return (
          <line
            key={at}
            x1={inner.x}
            y1={inner.y}
            x2={outer.x}
            y2={outer.y}
            stroke={SOFT}
            strokeWidth={at === 0 ? 2.5 : 1.3}
          />
        );
      })}
      <circle cx={60} cy={58} r={40} fill="none" stroke={INK} strokeWidth={2.5} />
      <line
        x1={root.x}
        y1={root.y}
        x2={tip.x}
        y2={tip.y}
        stroke={INK}
        strokeWidth={5}
        strokeLinecap="round"
      />
      <text x={60} y={124} textAnchor="middle" fontSize={15} fontWeight={700} fill={INK}>
        {name}
      </text>
    </svg>
  );
}
