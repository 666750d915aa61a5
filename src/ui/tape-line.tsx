import Box from "@mui/material/Box";
import { Link } from "./link";
import { useEffect, useId, useRef, type ReactNode } from "react";
import type { StationState } from "@/core/alignment/station-state";
import { GLYPH_PATHS, type Glyph } from "./glyph-paths";
import { INK, SOFT, token } from "./theme";

export interface TapeSegment {
  id: string;
  name: string;
  /** What is drawn of a long name. */
  short?: string;
  state: StationState;
  href: string;
  /** Of a station that is set for several blank tapes: a stripe along the piece for each. */
  stripes?: Array<{ name: string; state: StationState }>;
}

/** A place where the tape is cut because what comes there waits for something. */
export interface TapeGap {
  before: string;
  text: string;
}

interface TapeLineProps {
  label: string;
  segments: TapeSegment[];
  present: string | null;
  gap?: TapeGap | null;
  /** Takes over from the links of the pieces. */
  onGoTo?(href: string): void;
  /** Drawn width; the line scales with its container. */
  width?: number;
}

const HEIGHT = 80;
const TOP = 20;
const TAPE = 36;
const SPLICE = 8;
const GAP_WIDTH = 190;
/** A piece is as wide as its state in words. */
const SHORTEST = 5;

/** On a narrow screen it scrolls rather than become too small to be read. */
const SHORTEST_LINE = 700;
const LEAST_PIECE = 54;

const FONT = 14.5;
/** Where pieces are narrower than that, their names are smaller. */
const FULL_SIZE_FROM = 0.68;
/** Where pieces are narrower than that, glyphs stand alone beneath them. */
const WORD_FROM = 62;

const WORDS: Record<StationState, string> = {
  blank: "",
  found: "found",
  settled: "settled",
  stale: "again",
  failed: "failed",
};
const GLYPHS: Partial<Record<StationState, Glyph>> = { settled: "check", failed: "cross" };

/** A job as a length of tape: one spliced piece per station, in working order, with a playhead. */
export function TapeLine({ label, segments, present, gap = null, onGoTo, width = 1220 }: TapeLineProps) {
  const hatch = useId();
  const weights = segments.map(({ name, short = name }) => 34 + 9 * Math.max(SHORTEST, short.length));
  const total = weights.reduce((a, b) => a + b, 0);
  const scale = (width - 2 * SPLICE - (gap ? GAP_WIDTH : 0)) / total;
  const fontSize = FONT * Math.min(1, scale / FULL_SIZE_FROM);
  const glyphsAlone = Math.min(...weights) * scale < WORD_FROM;
  const gapAt = segments.findIndex(({ id }) => id === gap?.before);
  const pieces = segments.map((segment, i) => {
    const before = weights.slice(0, i).reduce((a, b) => a + b, 0) * scale;
    const from = SPLICE + before + (gapAt >= 0 && i >= gapAt ? GAP_WIDTH : 0);
    return { segment, from, to: from + weights[i] * scale, first: i === 0, last: i === segments.length - 1 };
  });
  const cut = pieces.find(({ segment }) => segment.id === gap?.before);

  const nav = useRef<HTMLElement>(null);
  const at = pieces.find(({ segment }) => segment.id === present);
  const share = at ? (at.from + at.to) / 2 / width : 0;
  useEffect(() => {
    // where it does not fit it begins with what is worked at
    const box = nav.current;
    if (box && box.scrollWidth > box.clientWidth)
      box.scrollLeft = share * box.scrollWidth - box.clientWidth / 2;
  }, [share]);

  return (
    <Box component="nav" ref={nav} aria-label={label} sx={{ lineHeight: 0, overflowX: "auto" }}>
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        style={{ minWidth: Math.max(SHORTEST_LINE, segments.length * LEAST_PIECE), width: "100%" }}
      >
        <defs>
          <pattern
            id={hatch}
            width={8}
            height={8}
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width={8} height={8} fill={token("leader")} />
            <rect width={3} height={8} fill={token("stale")} opacity={0.6} />
          </pattern>
        </defs>
        {pieces.map((piece) => (
          <Piece
            key={piece.segment.id}
            {...piece}
            hatch={hatch}
            fontSize={fontSize}
            glyphsAlone={glyphsAlone}
            present={piece.segment.id === present}
            onGoTo={onGoTo}
          />
        ))}
        {cut && gap && <Gap from={cut.from - GAP_WIDTH} text={gap.text} />}
      </svg>
    </Box>
  );
}

interface PieceProps {
  segment: TapeSegment;
  from: number;
  to: number;
  first: boolean;
  last: boolean;
  hatch: string;
  fontSize: number;
  /** There is no room for words beneath the pieces. */
  glyphsAlone: boolean;
  present: boolean;
  onGoTo?(href: string): void;
}

function Piece({
  segment,
  from,
  to,
  first,
  last,
  hatch,
  fontSize,
  glyphsAlone,
  present,
  onGoTo,
}: PieceProps) {
  const { name, short, state, href, stripes = [] } = segment;
  // stripes that are all alike are one piece
  const differ = stripes.some((stripe) => stripe.state !== stripes[0].state);
  const left = first ? 0 : SPLICE;
  const right = last ? 0 : SPLICE;
  const middle = (from + to) / 2;
  const bottom = TOP + TAPE;
  const notch =
    state === "failed" ? ` ${middle + 9},${bottom} ${middle},${bottom - 9} ${middle - 9},${bottom}` : "";
  const outline = `${from + left},${TOP} ${to + right - 3},${TOP} ${to - right - 3},${bottom}${notch} ${from - left},${bottom}`;
  const filled = state === "settled";
  const marked = state === "found" || state === "failed";
  const glyphAlone = GLYPHS[state] !== undefined && glyphsAlone;
  return (
    <Link
      href={href}
      aria-current={present ? "step" : undefined}
      onNavigate={
        onGoTo &&
        ((event) => {
          event.preventDefault();
          onGoTo(href);
        })
      }
    >
      <rect x={from} y={0} width={to - from} height={HEIGHT} fill="transparent" />
      <polygon
        points={outline}
        fill={differ ? token("leader") : fillOf(state, hatch)}
        stroke={marked ? token("oxide") : filled ? "none" : token("line")}
        strokeWidth={marked ? 2.5 : 1}
      />
      {differ && (
        <Stripes {...{ stripes, from, to, hatch }}>
          <polygon points={outline} />
        </Stripes>
      )}
      {present && (
        <>
          <path d={`M${middle - 11} ${TOP - 17} h22 v7 l-11 9 l-11 -9 z`} fill={INK} />
          <rect x={from + 4} y={bottom + 3} width={to - from - 12} height={4} fill={INK} />
        </>
      )}
      <text
        x={middle - 1}
        y={TOP + TAPE / 2 + 5 - (state === "failed" ? 3 : 0)}
        textAnchor="middle"
        fontSize={fontSize}
        fontWeight={present ? 750 : 550}
        fill={filled ? token("onOxide") : INK}
        stroke={state === "stale" || differ ? token("leader") : "none"}
        strokeWidth={5}
        paintOrder="stroke"
        aria-hidden={short !== undefined}
      >
        {short ?? name}
      </text>
      {/* its whole name for who does not see it */}
      {short !== undefined && (
        <text x={middle} y={TOP} fontSize={1} fillOpacity={0}>
          {name}
        </text>
      )}{" "}
      <text
        x={middle - 2 + (GLYPHS[state] ? 8 : 0)}
        y={bottom + 19}
        textAnchor="middle"
        fontSize={glyphAlone ? 1 : 12}
        fillOpacity={glyphAlone ? 0 : 1}
        fill={SOFT}
      >
        {WORDS[state]}
      </text>
      {GLYPHS[state] && (
        <path
          d={GLYPH_PATHS[GLYPHS[state]]}
          transform={`translate(${middle - (glyphAlone ? 6 : 32)} ${bottom + 9}) scale(0.9)`}
          fill="none"
          stroke={SOFT}
          strokeWidth={2}
        />
      )}
    </Link>
  );
}

const fillOf = (state: StationState, hatch: string): string =>
  state === "settled" ? token("oxide") : state === "stale" ? `url(#${hatch})` : token("leader");

/** The piece divided along its length, a stripe for each blank tape, with what each stands for in words. */
function Stripes({
  stripes,
  from,
  to,
  hatch,
  children,
}: {
  stripes: NonNullable<TapeSegment["stripes"]>;
  from: number;
  to: number;
  hatch: string;
  /** The outline that they are cut to. */
  children: ReactNode;
}) {
  const clip = useId();
  const height = TAPE / stripes.length;
  return (
    <>
      <clipPath id={clip}>{children}</clipPath>
      <g clipPath={`url(#${clip})`}>
        {stripes.map(({ name, state }, i) => (
          <rect
            key={name}
            x={from - SPLICE}
            y={TOP + i * height}
            width={to - from + 2 * SPLICE}
            height={height}
            fill={fillOf(state, hatch)}
            stroke={token(state === "found" || state === "failed" ? "oxide" : "line")}
            strokeWidth={1}
          >
            <title>{`${name}: ${WORDS[state] || "not begun"}`}</title>
          </rect>
        ))}
      </g>
    </>
  );
}

function Gap({ from, text }: { from: number; text: string }) {
  const torn = (x: number) => `M${x} ${TOP} l6 8 l-6 8 l6 8 l-6 12`;
  return (
    <g>
      {[from + 14, from + GAP_WIDTH - 16].map((x) => (
        <path key={x} d={torn(x)} fill="none" stroke={token("close")} strokeWidth={2} />
      ))}
      <text
        x={from + GAP_WIDTH / 2}
        y={TOP + 23}
        textAnchor="middle"
        fontSize={14}
        fontWeight={700}
        fill={token("close")}
      >
        {text}
      </text>
    </g>
  );
}
