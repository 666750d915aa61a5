import { fixed } from "@/core/text/number-text";
import { INK, SOFT, token } from "./theme";

interface Curve {
  name: string;
  /** What was heard, and the law through it. */
  points: Array<{ turns: number; db: number }>;
  db(turns: number): number;
}

export interface BiasFlag {
  name: string;
  turns: number;
  uncertaintyTurns: number;
  chosen: boolean;
  /** On which of the curves it stands. */
  curve: "high" | "third";
}

interface BiasCurvesProps {
  label: string;
  middle: Curve;
  high: Curve;
  /** Null where none was heard. */
  third: Curve | null;
  flags: readonly BiasFlag[];
  /** Where the screw stands now. */
  nowTurns: number;
  /** Bias per turn; its sign says which end of the axis has more bias. */
  dbPerTurn: number;
}

const WIDTH = 700;
const HEIGHT = 236;
const LEFT = 54;
const RIGHT = 16;
const TOP = 40;
const LEVELS_BOTTOM = 136;
const THIRD_TOP = 150;
const BOTTOM = 206;
const STEPS = 60;

/** What bias does over the turns of its screw: a middle and a high tone above, the third harmonic below, a flag where each school stops. */
export function BiasCurves({ label, middle, high, third, flags, nowTurns, dbPerTurn }: BiasCurvesProps) {
  const places = [...middle.points, ...high.points]
    .map(({ turns }) => turns)
    .concat(
      nowTurns,
      flags.map(({ turns }) => turns),
    );
  const margin = 0.6 / Math.max(1, Math.abs(dbPerTurn));
  const from = Math.min(...places) - margin;
  const to = Math.max(...places) + margin;
  const x = (turns: number) => LEFT + ((turns - from) / (to - from)) * (WIDTH - LEFT - RIGHT);
  const grid = Array.from({ length: STEPS + 1 }, (_, i) => from + ((to - from) * i) / STEPS);
  const levels = [middle, high].flatMap((curve) => [
    ...grid.map(curve.db),
    ...curve.points.map(({ db }) => db),
  ]);
  const thirds = third ? [...grid.map(third.db), ...third.points.map(({ db }) => db)] : [];
  const scale = (values: number[], top: number, bottom: number) => {
    const [low, most] = [Math.min(...values), Math.max(...values, Math.min(...values) + 1)];
    return { low, most, y: (db: number) => bottom - ((db - low) / (most - low)) * (bottom - top) };
  };
  const upper = scale(levels, TOP, LEVELS_BOTTOM);
  const lower = scale(thirds.length > 0 ? thirds : [0], THIRD_TOP, BOTTOM);
  const path = (curve: Curve, y: (db: number) => number) =>
    grid
      .map((turns, i) => `${i === 0 ? "M" : "L"}${x(turns).toFixed(1)} ${y(curve.db(turns)).toFixed(1)}`)
      .join("");
  const more = dbPerTurn > 0 ? "clockwise: more bias" : "clockwise: less bias";
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={label}>
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={BOTTOM} y2={BOTTOM} stroke={SOFT} />
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={143} y2={143} stroke={SOFT} strokeDasharray="2 4" />
      {[upper.most, upper.low].map((db) => (
        <text key={db} x={LEFT - 7} y={upper.y(db) + 5} textAnchor="end" fontSize={13} fill={SOFT}>
          {fixed(db, 1)}
        </text>
      ))}
      {(third ? [lower.most, lower.low] : []).map((db) => (
        <text key={db} x={LEFT - 7} y={lower.y(db) + 5} textAnchor="end" fontSize={13} fill={SOFT}>
          {fixed(db, 0)}
        </text>
      ))}
      <text x={LEFT - 7} y={BOTTOM + 20} textAnchor="end" fontSize={13} fill={SOFT}>
        dB
      </text>
      {flags.map(({ name, turns, uncertaintyTurns, chosen, curve }) => {
        const on = curve === "third" && third ? lower.y(third.db(turns)) : upper.y(high.db(turns));
        return (
          <g key={name}>
            <rect
              x={x(turns - uncertaintyTurns)}
              width={Math.max(1, x(turns + uncertaintyTurns) - x(turns - uncertaintyTurns))}
              y={TOP - 10}
              height={BOTTOM - TOP + 10}
              fill={token(chosen ? "oxide" : "stale")}
              opacity={chosen ? 0.16 : 0.1}
            />
            <line
              x1={x(turns)}
              x2={x(turns)}
              y1={TOP - 10}
              y2={BOTTOM}
              stroke={chosen ? token("oxide") : SOFT}
              strokeWidth={chosen ? 3 : 1.5}
              strokeDasharray={chosen ? undefined : "5 4"}
            />
            <circle cx={x(turns)} cy={on} r={chosen ? 7 : 4.5} fill={chosen ? token("oxide") : SOFT} />
          </g>
        );
      })}
      <FlagNames flags={flags} x={x} />
      <path d={path(middle, upper.y)} fill="none" stroke={SOFT} strokeWidth={2.5} strokeDasharray="9 5" />
      <path d={path(high, upper.y)} fill="none" stroke={INK} strokeWidth={3} />
      {third && <path d={path(third, lower.y)} fill="none" stroke={token("oxide")} strokeWidth={2.5} />}
      {middle.points.map(({ turns, db }, i) => (
        <rect
          key={i}
          x={x(turns) - 4.5}
          y={upper.y(db) - 4.5}
          width={9}
          height={9}
          fill={token("leader")}
          stroke={SOFT}
          strokeWidth={2}
        />
      ))}
      {high.points.map(({ turns, db }, i) => (
        <circle
          key={i}
          cx={x(turns)}
          cy={upper.y(db)}
          r={5}
          fill={token("leader")}
          stroke={INK}
          strokeWidth={2}
        />
      ))}
      {third?.points.map(({ turns, db }, i) => (
        <circle
          key={i}
          cx={x(turns)}
          cy={lower.y(db)}
          r={4.5}
          fill={token("leader")}
          stroke={token("oxide")}
          strokeWidth={2}
        />
      ))}
      {apart([
        { curve: high, y: upper.y(high.db(to)), fill: INK },
        { curve: middle, y: upper.y(middle.db(to)), fill: SOFT },
      ]).map(({ curve, y, fill }) => (
        <text
          key={curve.name}
          x={WIDTH - RIGHT}
          y={y}
          textAnchor="end"
          fontSize={14}
          fontWeight={650}
          fill={fill}
        >
          {curve.name}
        </text>
      ))}
      <text
        x={WIDTH - RIGHT}
        y={THIRD_TOP + 10}
        textAnchor="end"
        fontSize={14}
        fontWeight={650}
        fill={token("oxide")}
      >
        {third?.name ?? "third harmonic: heard in passes of the sequence only"}
      </text>
      <path d={`M${x(nowTurns)} ${BOTTOM} l10 15 l-20 0 z`} fill={INK} />
      <text x={x(nowTurns)} y={BOTTOM + 29} textAnchor="middle" fontSize={13} fontWeight={700} fill={INK}>
        now
      </text>
      <text x={WIDTH - RIGHT} y={HEIGHT - 6} textAnchor="end" fontSize={13} fill={SOFT}>
        {more}
      </text>
    </svg>
  );
}

const NAME_ROW = 18;

/** The names of two curves beside their ends, above them, never one over the other. */
function apart<T extends { y: number }>(names: readonly T[]): T[] {
  const [upper, lower] = names.toSorted((a, b) => a.y - b.y);
  const y = Math.max(TOP + 8, Math.min(LEVELS_BOTTOM - NAME_ROW, upper.y) - 8);
  return [
    { ...upper, y },
    {
      ...lower,
      y: Math.max(
        y + NAME_ROW,
        Math.min(LEVELS_BOTTOM, lower.y) + (lower.y - upper.y < NAME_ROW ? NAME_ROW : -8),
      ),
    },
  ];
}

/** Names of the flags above them; the chosen one is bold, and neighbours stand in two rows. */
function FlagNames({ flags, x }: { flags: readonly BiasFlag[]; x(turns: number): number }) {
  const sorted = flags.toSorted((a, b) => a.turns - b.turns);
  return sorted.map(({ name, turns, chosen }, i) => (
    <text
      key={name}
      x={Math.max(LEFT + 40, Math.min(WIDTH - RIGHT - 50, x(turns)))}
      y={i % 2 === 0 ? 12 : 26}
      textAnchor="middle"
      fontSize={14}
      fontWeight={chosen ? 760 : 500}
      fill={chosen ? token("oxide") : INK}
    >
      {name}
    </text>
  ));
}
