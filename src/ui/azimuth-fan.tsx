import { INK, SOFT, token } from "./theme";

export interface FanTone {
  frequencyHz: number;
  /** Whole cycles counted in where they are known. */
  phaseDegrees: number;
  spreadDegrees: number;
  /** Heard before the last turn: drawn hollow. */
  old?: boolean;
}

interface AzimuthFanProps {
  tones: FanTone[];
  /** Null while the number of cycles is not known: then there is no line. */
  delaySeconds: number | null;
  /** The tone that azimuth is judged at. */
  judgedHz: number;
  /** What passes at 10 kHz, degrees either way; drawn as a wedge. */
  limitDegrees?: number | null;
}

const WIDTH = 430;
const HEIGHT = 300;
const LEFT = 66;
const RIGHT = 14;
const TOP = 16;
const BOTTOM = 34;
const TEN_KHZ = 10_000;
const KHZ = [0, 5000, 10_000, 15_000];

/** Phase of right behind left for each tone, and the straight line that a pure delay makes. */
export function AzimuthFan({ tones, delaySeconds, judgedHz, limitDegrees = null }: AzimuthFanProps) {
  const last = Math.max(12_000, ...tones.map(({ frequencyHz }) => 1.06 * frequencyHz));
  const reach = tones.flatMap(({ phaseDegrees, spreadDegrees }) => [
    phaseDegrees - spreadDegrees,
    phaseDegrees + spreadDegrees,
  ]);
  const high = niceAbove(Math.max(20, ...reach, delaySeconds === null ? 0 : 360 * last * delaySeconds));
  const low = -niceAbove(-Math.min(-20, ...reach, delaySeconds === null ? 0 : 360 * last * delaySeconds));
  const x = (hz: number) => LEFT + (hz / last) * (WIDTH - LEFT - RIGHT);
  const y = (degrees: number) => TOP + ((high - degrees) / (high - low)) * (HEIGHT - TOP - BOTTOM);
  const wedge = limitDegrees === null ? 0 : (limitDegrees * last) / TEN_KHZ;
  const judged = tones.findLast(({ frequencyHz }) => Math.abs(frequencyHz / judgedHz - 1) < 0.03);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={`Phase of right behind left: ${tones.map((t) => `${Math.round(t.phaseDegrees)}° at ${Math.round(t.frequencyHz)} Hz`).join(", ")}`}
      style={{ maxWidth: 560 }}
    >
      {wedge > 0 && (
        <path
          d={`M${x(0)} ${y(0)} L${x(last)} ${Math.max(TOP, y(wedge))} V${Math.min(HEIGHT - BOTTOM, y(-wedge))} z`}
          fill={token("window")}
        />
      )}
      {ticksBetween(low, high).map((degrees) => (
        <g key={degrees}>
          <line
            x1={LEFT}
            x2={WIDTH - RIGHT}
            y1={y(degrees)}
            y2={y(degrees)}
            stroke={degrees === 0 ? SOFT : token("line")}
          />
          <text x={LEFT - 8} y={y(degrees) + 5} textAnchor="end" fontSize={16} fill={SOFT}>
            {degrees < 0 ? `−${-degrees}` : degrees}°
          </text>
        </g>
      ))}
      {KHZ.filter((hz) => hz < last).map((hz) => (
        <text key={hz} x={x(hz)} y={HEIGHT - 10} textAnchor="middle" fontSize={16} fill={SOFT}>
          {hz === 0 ? "0" : `${hz / 1000} kHz`}
        </text>
      ))}
      {delaySeconds !== null && (
        <line
          x1={x(0)}
          y1={y(0)}
          x2={x(last)}
          y2={y(360 * last * delaySeconds)}
          stroke={token("oxide")}
          strokeWidth={3}
          strokeDasharray="6 4"
        />
      )}
      {lastDrawn(tones, judged).map((tone, i) => (
        <g key={i} stroke={INK} strokeWidth={2.5}>
          <line
            x1={x(tone.frequencyHz)}
            x2={x(tone.frequencyHz)}
            y1={y(tone.phaseDegrees - tone.spreadDegrees)}
            y2={y(tone.phaseDegrees + tone.spreadDegrees)}
          />
          <circle
            cx={x(tone.frequencyHz)}
            cy={y(tone.phaseDegrees)}
            r={tone === judged ? 10 : 6}
            fill={tone === judged && !tone.old ? INK : token("leader")}
            strokeDasharray={tone.old ? "2 2" : undefined}
          />
        </g>
      ))}
    </svg>
  );
}

/** The tone that is judged lies on top of its neighbours. */
const lastDrawn = (tones: FanTone[], judged: FanTone | undefined) =>
  tones.toSorted((a, b) => Number(a === judged) - Number(b === judged));

const STEPS = [5, 10, 15, 30, 45, 90, 180, 360, 720];
const MOST_TICKS = 6;

function ticksBetween(low: number, high: number): number[] {
  const step = STEPS.find((one) => (high - low) / one <= MOST_TICKS) ?? 720;
  return Array.from(
    { length: Math.floor(high / step) - Math.ceil(low / step) + 1 },
    (_, i) => (Math.ceil(low / step) + i) * step,
  );
}

function niceAbove(value: number): number {
  const step = STEPS.find((one) => value / one <= MOST_TICKS) ?? 720;
  return Math.ceil(value / step) * step;
}
