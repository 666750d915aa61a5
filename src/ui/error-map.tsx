import Box from "@mui/material/Box";
import { verdictOf, type Verdict } from "@/core/judging/verdict";
import { MAP_HZ, MAP_LEVELS, type MapPoint } from "@/core/stations/reduction-map";
import { fixed, hertzText } from "@/core/text/number-text";
import { GLYPH_PATHS, type Glyph } from "./glyph-paths";
import { token } from "./theme";

interface ErrorMapProps {
  label: string;
  points: readonly MapPoint[];
  limitDb: number;
}

const GLYPHS: Record<Verdict, Glyph> = {
  pass: "check",
  close: "wave",
  fail: "cross",
  "cannot be told": "wave",
};
const TONES = { pass: "settled", close: "close", fail: "fail", "cannot be told": "close" } as const;

/** What came back less what was sent, a cell for each level and frequency, each judged by shape, word and colour. */
export function ErrorMap({ label, points, limitDb }: ErrorMapProps) {
  const at = (level: number, hz: number) =>
    points.find((one) => one.level === level && Math.abs(one.frequencyHz / hz - 1) < 0.01);
  return (
    <Box
      component="table"
      aria-label={label}
      sx={{
        borderCollapse: "separate",
        borderSpacing: 2,
        width: "100%",
        tableLayout: "fixed",
        fontVariantNumeric: "tabular-nums",
        fontSize: 13.5,
        "& th": { fontWeight: 500, color: "text.secondary", textAlign: "center", p: 0.25 },
      }}
    >
      <caption style={{ captionSide: "top", textAlign: "left" }}>{label}</caption>
      <thead>
        <tr>
          <th scope="col">Hz</th>
          {MAP_HZ.map((hz) => (
            <th key={hz} scope="col">
              {hertzText(hz).replace("Hz", "")}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {MAP_LEVELS.map((level) => (
          <tr key={level}>
            <th scope="row">{fixed(level, 0)}</th>
            {MAP_HZ.map((hz) => {
              const point = at(level, hz);
              if (!point) return <td key={hz} />;
              const verdict = verdictOf(point.errorDb, point.uncertaintyDb, limitDb);
              return (
                <Box
                  component="td"
                  key={hz}
                  title={verdict}
                  sx={{
                    border: 2,
                    borderColor: token(TONES[verdict]),
                    borderRadius: 0.5,
                    textAlign: "center",
                    py: 0.5,
                    whiteSpace: "nowrap",
                  }}
                >
                  <svg width={10} height={10} viewBox="0 0 12 12" role="img" aria-label={verdict}>
                    <path
                      d={GLYPH_PATHS[GLYPHS[verdict]]}
                      fill="none"
                      stroke={token(TONES[verdict])}
                      strokeWidth={2.2}
                    />
                  </svg>{" "}
                  {fixed(point.errorDb, 1, true)}
                </Box>
              );
            })}
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
