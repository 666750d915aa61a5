"use client";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import { memo } from "react";
import type { PartChange } from "@/core/advice/compare-runs";
import { weightedPeakOf, type Explanation } from "@/core/advice/explain-transport";
import { SHORTEST_SECONDS, type PartFinding } from "@/core/advice/find-parts";
import { GLYPH_PATHS } from "@/ui/glyph-paths";
import { OnceAround } from "@/ui/once-around";
import { READING_FONT } from "@/ui/theme";
import { VerdictMark } from "@/ui/verdict-mark";

interface PartsPictureProps {
  finding: PartFinding;
  explanations: Explanation[];
  /** Against an earlier run, where one was chosen. */
  changes: PartChange[] | null;
  machineHasParts: boolean;
  /** The flutter is beyond its limit; otherwise a part that stands out is only worth a look. */
  failing: boolean;
}

const MOST_ROWS = 4;

/** Which part the flutter comes from, readable from across the bench. */
export const PartsPicture = memo(function PartsPicture({
  finding,
  explanations,
  changes,
  machineHasParts,
  failing,
}: PartsPictureProps) {
  const [first] = explanations;
  const tooShort = finding.seconds < SHORTEST_SECONDS;
  const guilty = new Set(explanations.map(({ fault }) => fault.split(" (")[0]));
  const shown = finding.parts.slice(0, MOST_ROWS);
  const shape = shown.find(({ part, turn }) => turn !== null && guilty.has(part)) ?? shown[0];
  return (
    <Box role="region" aria-label="Where the flutter comes from">
      <Box sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          {tooShort ? (
            <Box sx={{ fontSize: 24, fontWeight: 650, color: "text.secondary" }}>listening for parts…</Box>
          ) : (
            <Headline explanation={first} heard={finding.parts.length > 0} failing={failing} />
          )}
          <Typography sx={{ color: "text.secondary", lineHeight: 1.3, fontSize: 14.5 }}>
            {first ? `${first.because}. ${first.cure}` : idle(finding, machineHasParts)}
          </Typography>
        </Box>
        {shape?.turn && (
          <Box sx={{ width: 190, flex: "none" }}>
            <OnceAround
              label={`The ${shape.part}, once around: ${shape.shape}, ±${shape.peakPercent.toFixed(3)} percent`}
              percent={shape.turn.percent}
            />
            <Box sx={{ textAlign: "center", fontSize: 13, color: "text.secondary", mt: -0.5 }}>
              {shape.part}
            </Box>
          </Box>
        )}
      </Box>
      <Bars finding={finding} guilty={guilty} changes={changes} failing={failing} />
      {!machineHasParts && (
        <Typography sx={{ mt: 0.5 }}>
          <Link href="/machines">Enter this machine’s rotating parts</Link> and the lines get names.
        </Typography>
      )}
    </Box>
  );
});

interface HeadlineProps {
  explanation: Explanation | undefined;
  heard: boolean;
  failing: boolean;
}

function Headline({ explanation, heard, failing }: HeadlineProps) {
  const accused = explanation !== undefined;
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1,
        color: !accused ? "success.main" : failing ? "error.main" : "warning.main",
        fontSize: 30,
        fontWeight: 760,
        lineHeight: 1.1,
        mb: 0.5,
      }}
    >
      <svg width="26" height="26" viewBox="0 0 12 12" aria-hidden style={{ flex: "none" }}>
        <path
          d={GLYPH_PATHS[!accused ? "check" : failing ? "cross" : "wave"]}
          fill="none"
          stroke="currentColor"
          strokeWidth={2.2}
        />
      </svg>
      <span>{explanation?.fault ?? (heard ? "no part stands out" : "nothing with a rhythm")}</span>
    </Box>
  );
}

function idle(finding: PartFinding, machineHasParts: boolean): string {
  if (finding.warnings.length > 0) return finding.warnings[0];
  return machineHasParts ? "Each part turns as quietly as it should for this machine’s limit." : "";
}

interface BarsProps {
  finding: PartFinding;
  guilty: Set<string>;
  changes: PartChange[] | null;
  failing: boolean;
}

function Bars({ finding, guilty, changes, failing }: BarsProps) {
  const accused = failing ? "error.main" : "warning.main";
  const rows = changes
    ? changes.slice(0, MOST_ROWS).map((change) => {
        const part = finding.parts.find((p) => p.part === change.part);
        return {
          name: change.part,
          percent: change.afterPercent,
          before: change.beforePercent as number | null,
          says: change.change,
          guilty: guilty.has(change.part),
          alike: part?.indistinguishableFrom ?? [],
        };
      })
    : finding.parts.slice(0, MOST_ROWS).map((part) => ({
        name: part.part,
        percent: part.peakPercent,
        before: null,
        says: part.sharePercent < 0.5 ? "<1 %" : `${part.sharePercent.toFixed(0)} %`,
        guilty: guilty.has(part.part),
        alike: part.indistinguishableFrom,
      }));
  const most = Math.max(1e-6, ...rows.flatMap(({ percent, before }) => [percent, before ?? 0]));
  return (
    <Box
      component="ul"
      aria-label="Parts heard"
      sx={{
        listStyle: "none",
        m: 0,
        mt: 0.75,
        p: 0,
        display: "grid",
        gridTemplateColumns: "minmax(92px, auto) 1fr auto auto",
        columnGap: 1.25,
        rowGap: 0.5,
        alignItems: "center",
        "& > li": { display: "contents" },
      }}
    >
      {rows.map((row) => (
        <li key={row.name}>
          <Box
            sx={{
              fontSize: 17,
              fontWeight: row.guilty ? 750 : 500,
              color: row.guilty ? accused : "text.primary",
            }}
          >
            {row.guilty ? (
              <VerdictMark
                verdict={failing ? "fail" : "close"}
                detail={[row.name, ...row.alike].join(" or ")}
              />
            ) : (
              [row.name, ...row.alike].join(" or ")
            )}
          </Box>
          <Box sx={{ position: "relative", height: 18 }}>
            <Box
              sx={{
                position: "absolute",
                inset: 0,
                right: "auto",
                width: `${(100 * row.percent) / most}%`,
                bgcolor: row.guilty ? accused : "text.secondary",
                opacity: row.guilty ? 1 : 0.55,
              }}
            />
            {row.before !== null && (
              <Box
                sx={{
                  position: "absolute",
                  inset: 0,
                  right: "auto",
                  width: `${(100 * row.before) / most}%`,
                  border: 2,
                  borderColor: "text.primary",
                }}
              />
            )}
          </Box>
          <Box sx={{ fontFamily: READING_FONT, fontSize: 15, textAlign: "right" }}>
            ±{row.percent.toFixed(3)} %
          </Box>
          <Box sx={{ fontFamily: READING_FONT, fontSize: 15, textAlign: "right", minWidth: 52 }}>
            {row.says}
          </Box>
        </li>
      ))}
    </Box>
  );
}

/** The part with the largest weighted flutter of its own, for marks on the spectrum. */
export const marksOf = (finding: PartFinding) =>
  finding.parts
    .toSorted((a, b) => weightedPeakOf(b) - weightedPeakOf(a))
    .slice(0, 5)
    .map(({ part, rateHz }) => ({ rateHz, label: part }));
