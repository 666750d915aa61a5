import { fixed } from "@/core/text/number-text";
import { READING_FONT, SOFT, token } from "./theme";

interface StripFrameProps {
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Place of a value from the top. */
  y(value: number): number;
  /** Values that are written at the left edge. */
  labels: number[];
  decimals: number;
  window: { from: number; to: number } | null;
}

/** What every strip is drawn on: the window as a clear band, a frame, the scale at the left. */
export function StripFrame({ left, right, top, bottom, y, labels, decimals, window }: StripFrameProps) {
  return (
    <>
      {window && (
        <rect
          x={left}
          y={y(window.to)}
          width={right - left}
          height={y(window.from) - y(window.to)}
          fill={token("window")}
        />
      )}
      <rect x={left} y={top} width={right - left} height={bottom - top} fill="none" stroke={token("line")} />
      {labels.map((value) => (
        <text
          key={value}
          x={left - 6}
          y={y(value) + 4}
          textAnchor="end"
          fontSize={12}
          fontFamily={READING_FONT}
          fill={SOFT}
        >
          {fixed(value, decimals, true)}
        </text>
      ))}
    </>
  );
}
