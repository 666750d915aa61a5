import type { StripKind } from "@/core/workshop/strip-entry";

/** What comes off a machine, drawn in a 24 by 24 box. */
const PATHS: Record<StripKind, string> = {
  assembly: "M3 8 h18 v12 h-18 z M7 8 v-4 h10 v4 M3 13 h18",
  screw: "M8 3 h8 v4 h-8 z M10 7 v11 l2 3 l2 -3 v-11 M10 11 h4 M10 14 h4 M10 17 h4",
  washer: "M12 4 a8 8 0 1 0 0.01 0 z M12 9 a3 3 0 1 0 0.01 0 z",
  spring: "M3 12 h3 l1.5 -5 l3 10 l3 -10 l3 10 l1.5 -5 h3",
  clip: "M17 6 a8 8 0 1 0 0 12 M17 6 l-4 3 M17 18 l-4 -3",
  ball: "M12 5 a7 7 0 1 0 0.01 0 z M9 10 a4 4 0 0 1 3 -2.5",
  wire: "M3 18 c6 0 4 -12 9 -12 s3 12 9 12 M3 16 v4 M21 16 v4",
  belt: "M7 7 a5 5 0 0 0 0 10 h10 a5 5 0 0 0 0 -10 z M7 10 a2 2 0 1 0 0.01 0 z M17 10 a2 2 0 1 0 0.01 0 z",
  "slotted position": "M4 9 a3 3 0 0 0 0 6 h16 a3 3 0 0 0 0 -6 z M13 9 v6 M13 4 v3 M11 5.5 l2 2 l2 -2",
  "other part": "M4 9 l8 -5 l8 5 v7 l-8 5 l-8 -5 z M4 9 l8 5 l8 -5 M12 14 v7",
};

export const KindGlyph = ({ kind, size = 24 }: { kind: StripKind; size?: number }) => (
  <svg viewBox="0 0 24 24" width={size} height={size} aria-hidden style={{ flexShrink: 0 }}>
    <path
      d={PATHS[kind]}
      fill="none"
      stroke="currentColor"
      strokeWidth={1.6}
      strokeLinejoin="round"
      strokeLinecap="round"
    />
  </svg>
);
