import { FUNCTIONS, lastTrial, type FunctionId, type FunctionTrial } from "@/core/workshop/function-trial";
import { GLYPH_PATHS } from "@/ui/glyph-paths";
import { GROUND, INK, SOFT, token } from "@/ui/theme";

interface FunctionRunProps {
  all: readonly FunctionId[];
  current: FunctionId | null;
  trials: readonly FunctionTrial[];
  onChoose(one: FunctionId): void;
}

const WIDTH = 640;
const ROWS = [34, 84, 134] as const;
const [LEFT, RIGHT] = [26, WIDTH - 26];
const RADIUS = 13;

/** In which stretch of the run a function is tried, and where along the tape that ends; what plays meanwhile stands between. */
const STRETCHES: ReadonlyArray<{ row: 0 | 1 | 2; says: string; back?: true; of: readonly FunctionId[] }> = [
  {
    row: 0,
    says: "from one end of the tape to the other",
    of: ["door", "play", "pause", "meters", "lamps", "headphones", "outputs", "cue", "wind", "windEnd"],
  },
  { row: 1, says: "and back", back: true, of: ["rewind", "counter", "memory"] },
  {
    row: 2,
    says: "played into its end, then what needs no tape",
    of: ["playEnd", "reverse", "speeds", "safety", "supply"],
  },
];

/** The whole trial as one run of a tape, there, back and there again, with each function where it is tried. */
export function FunctionRun({ all, current, trials, onChoose }: FunctionRunProps) {
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 172`}
      role="img"
      aria-label={`One run of a tape: ${all.filter((one) => lastTrial(trials, one, "as left")).length} of ${all.length} functions tried as left`}
      style={{ width: "100%", maxWidth: 760, height: "auto", display: "block" }}
    >
      {ROWS.map((y) => (
        <line key={y} x1={LEFT} x2={RIGHT} y1={y} y2={y} stroke={token("line")} strokeWidth={9} />
      ))}
      <path
        d={`M${RIGHT} ${ROWS[0]} a25 25 0 0 1 0 50 M${LEFT} ${ROWS[1]} a25 25 0 0 0 0 50`}
        fill="none"
        stroke={token("line")}
        strokeWidth={9}
      />
      {STRETCHES.map(({ row, says }) => (
        <text key={says} x={WIDTH / 2} y={ROWS[row] + 30} fontSize={12.5} textAnchor="middle" fill={SOFT}>
          {says}
        </text>
      ))}
      {STRETCHES.map(({ row, back, of }) => {
        const here = of.filter((one) => all.includes(one));
        return here.map((one, i) => {
          const share = here.length === 1 ? 0.5 : i / (here.length - 1);
          const x = LEFT + (RIGHT - LEFT) * (back ? 1 - share : share);
          return (
            <Stop
              key={one}
              x={x}
              y={ROWS[row]}
              number={all.indexOf(one) + 1}
              one={one}
              isCurrent={one === current}
              trials={trials}
              onChoose={onChoose}
            />
          );
        });
      })}
    </svg>
  );
}

function Stop({
  x,
  y,
  number,
  one,
  isCurrent,
  trials,
  onChoose,
}: {
  x: number;
  y: number;
  number: number;
  one: FunctionId;
  isCurrent: boolean;
  trials: readonly FunctionTrial[];
  onChoose(one: FunctionId): void;
}) {
  const [found, left] = [lastTrial(trials, one, "as found"), lastTrial(trials, one, "as left")];
  const last = left ?? found;
  const ink = last === null ? SOFT : last.works ? token("settled") : token("fail");
  return (
    <g onClick={() => onChoose(one)} style={{ cursor: "pointer" }}>
      <title>{FUNCTIONS[one].name}</title>
      {isCurrent && <path d={`M${x - 9} ${y - 32} h18 v6 l-9 9 l-9 -9 z`} fill={INK} />}
      <circle
        cx={x}
        cy={y}
        r={RADIUS}
        fill={left?.works ? token("settled") : GROUND}
        stroke={isCurrent ? token("oxide") : ink}
        strokeWidth={isCurrent ? 3.5 : 2}
        strokeDasharray={last === null && !isCurrent ? "3 3" : undefined}
      />
      {last === null ? (
        <text x={x} y={y + 4.5} fontSize={12.5} textAnchor="middle" fill={INK}>
          {number}
        </text>
      ) : (
        <path
          d={GLYPH_PATHS[last.works ? "check" : "cross"]}
          transform={`translate(${x - 7} ${y - 7}) scale(1.17)`}
          fill="none"
          stroke={left?.works ? GROUND : ink}
          strokeWidth={2.2}
        />
      )}
    </g>
  );
}
