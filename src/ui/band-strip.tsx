import { SOFT, token } from "./theme";

/** One piece of a strip: what it sounds like, how long, how loud. */
export interface StripPiece {
  name: string;
  kind: "tone" | "sweep" | "noise" | "silence" | "mark";
  /** All frequencies of a tone; start and end of a sweep. */
  frequenciesHz: number[];
  levelDb: number;
  seconds: number;
}

interface BandStripProps {
  label: string;
  pieces: StripPiece[];
  /** Share that has been played, 0 to 1. */
  played?: number | null;
  /** Pieces that are marked, by place. */
  marked?: number[];
}

const WIDTH = 1000;
const HEIGHT = 150;
const AXIS = 44;
const [LOWEST_HZ, HIGHEST_HZ] = [20, 20_000];
const QUIETEST_DB = -60;

const yOf = (hz: number) =>
  HEIGHT -
  10 -
  ((HEIGHT - 20) * Math.log(Math.max(LOWEST_HZ, Math.min(HIGHEST_HZ, hz)) / LOWEST_HZ)) /
    Math.log(HIGHEST_HZ / LOWEST_HZ);

/**
 * A tape or a test sequence drawn as a length of tape: time to the right, pitch upwards on a logarithmic scale,
 * louder is thicker. Short pieces are drawn wider than they are, so that each can be seen.
 */
export function BandStrip({ label, pieces, played = null, marked = [] }: BandStripProps) {
  const widths = pieces.map(({ seconds }) => Math.sqrt(seconds) + 0.4);
  const scale =
    (WIDTH - AXIS - 8) /
    Math.max(
      1e-9,
      widths.reduce((a, b) => a + b, 0),
    );
  const total = pieces.reduce((sum, { seconds }) => sum + seconds, 0);
  let x = AXIS;
  let at = 0;
  let playhead: number | null = null;
  const drawn = pieces.map((piece, i) => {
    const from = x;
    const width = widths[i] * scale;
    const start = at;
    x += width;
    at += piece.seconds;
    if (played !== null && played * total >= start && played * total <= at)
      playhead = from + width * ((played * total - start) / piece.seconds);
    return <Piece key={i} piece={piece} x={from} width={width} marked={marked.includes(i)} />;
  });
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT + 6}`}
      role="img"
      aria-label={label}
      style={{ width: "100%", height: "auto", display: "block" }}
    >
      <rect
        x={AXIS}
        y={3}
        width={WIDTH - AXIS - 8}
        height={HEIGHT}
        fill={token("leader")}
        stroke={token("line")}
      />
      {[100, 1000, 10_000].map((hz) => (
        <g key={hz}>
          <line
            x1={AXIS}
            x2={WIDTH - 8}
            y1={yOf(hz)}
            y2={yOf(hz)}
            stroke={token("line")}
            strokeDasharray="2 5"
          />
          <text x={AXIS - 6} y={yOf(hz) + 4} fontSize={12.5} textAnchor="end" fill={SOFT}>
            {hz >= 1000 ? `${hz / 1000} kHz` : hz}
          </text>
        </g>
      ))}
      {drawn}
      {playhead !== null && (
        <line x1={playhead} x2={playhead} y1={0} y2={HEIGHT + 6} stroke={token("oxide")} strokeWidth={3} />
      )}
    </svg>
  );
}

function Piece({
  piece,
  x,
  width,
  marked,
}: {
  piece: StripPiece;
  x: number;
  width: number;
  marked: boolean;
}) {
  const { kind, frequenciesHz, levelDb, name } = piece;
  const thick = 2 + 9 * Math.max(0, Math.min(1, 1 - levelDb / QUIETEST_DB));
  const [inset, ink] = [Math.min(2, width / 6), kind === "mark" ? SOFT : token("oxide")];
  return (
    <g>
      <title>{name}</title>
      {marked && <rect x={x} y={3} width={width} height={HEIGHT} fill={token("window")} />}
      <line x1={x} x2={x} y1={3} y2={HEIGHT + 3} stroke={token("line")} />
      {(kind === "tone" || kind === "mark") &&
        frequenciesHz.map((hz, i) => {
          const step = (width - 2 * inset) / (kind === "mark" ? 1 : frequenciesHz.length);
          const from = x + inset + (kind === "mark" ? 0 : i * step);
          return (
            <line
              key={`${hz} ${i}`}
              x1={from}
              x2={from + step}
              y1={yOf(hz)}
              y2={yOf(hz)}
              stroke={ink}
              strokeWidth={kind === "mark" ? 1.5 : thick}
            />
          );
        })}
      {kind === "sweep" && (
        <line
          x1={x + inset}
          x2={x + width - inset}
          y1={yOf(frequenciesHz[0])}
          y2={yOf(frequenciesHz[1])}
          stroke={ink}
          strokeWidth={thick}
        />
      )}
      {kind === "noise" &&
        Array.from({ length: Math.max(3, Math.floor(width / 7)) }, (_, i) => {
          const at = x + inset + ((i + 0.5) * (width - 2 * inset)) / Math.max(3, Math.floor(width / 7));
          return (
            <line
              key={i}
              x1={at}
              x2={at}
              y1={yOf(i % 2 ? 40 : 90)}
              y2={yOf(i % 3 ? 15_000 : 9000)}
              stroke={ink}
              strokeWidth={thick / 4}
            />
          );
        })}
    </g>
  );
}
