import Box from "@mui/material/Box";
import { decimalsFor, fixed } from "@/core/text/number-text";
import type { StretchReport } from "@/core/recordings/measure-stretches";
import { READING_FONT } from "@/ui/theme";

interface StretchTableProps {
  stretches: StretchReport[];
  /** They have numbers of their own: of bands, or of segments. */
  counted: boolean;
}

/** What was recognised, in playing order, with level, speed and flutter. */
export function StretchTable({ stretches, counted }: StretchTableProps) {
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Measured stretches">
      <Box
        component="table"
        sx={{
          borderCollapse: "collapse",
          width: "100%",
          "& th": { textAlign: "right", color: "text.secondary", fontWeight: 600, px: 1, py: 0.5 },
          "& td": {
            textAlign: "right",
            fontFamily: READING_FONT,
            px: 1,
            py: 0.5,
            borderTop: 1,
            borderColor: "divider",
            whiteSpace: "nowrap",
          },
          "& th.text, & td.text": { textAlign: "left", fontFamily: "inherit" },
        }}
      >
        <thead>
          <tr>
            {counted && <th className="text">no.</th>}
            <th className="text">what</th>
            <th>from</th>
            <th>to, s</th>
            <th>left</th>
            <th>right, dBFS</th>
            <th>frequency, Hz</th>
            <th>speed error, %</th>
            <th>weighted peak flutter, %</th>
          </tr>
        </thead>
        <tbody>
          {stretches.map((stretch) => (
            <StretchRow
              key={`${stretch.index} ${stretch.startSeconds}`}
              stretch={stretch}
              counted={counted}
            />
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

function StretchRow({ stretch, counted }: { stretch: StretchReport; counted: boolean }) {
  const { index, what, startSeconds, endSeconds, levelDb, speed, flutter } = stretch;
  return (
    <tr>
      {counted && <td className="text">{index + 1}</td>}
      <td className="text">{what}</td>
      <td>{startSeconds.toFixed(2)}</td>
      <td>{endSeconds.toFixed(2)}</td>
      <td>{fixed(levelDb.left, 2)}</td>
      <td>{levelDb.right === null ? "" : fixed(levelDb.right, 2)}</td>
      <td>{speed?.frequencyHz.toFixed(2)}</td>
      <td>
        {speed &&
          `${fixed(speed.errorPercent, decimalsFor(speed.uncertaintyPercent), true)} ± ${Math.max(0.001, speed.uncertaintyPercent).toFixed(decimalsFor(speed.uncertaintyPercent))}`}
      </td>
      <td>{flutter && flutter.seconds >= 5 ? flutter.weighted.peakPercent.toFixed(3) : ""}</td>
    </tr>
  );
}

/** So many stretches are named of which the same is to be said. */
const MOST_NAMED = 4;

/** What makes their figures doubtful, each said once with the stretches that it is said of. */
export function StretchDoubts({ stretches, counted }: StretchTableProps) {
  const of = new Map<string, string[]>();
  for (const { index, what, warnings } of stretches)
    for (const warning of warnings)
      of.set(warning, [...(of.get(warning) ?? []), counted ? `no. ${index + 1}` : what]);
  if (of.size === 0) return null;
  return (
    <Box component="ul" aria-label="Doubts" sx={{ m: 0, mt: 1.5, pl: 2.5, color: "warning.main" }}>
      {[...of].map(([warning, names]) => (
        <li key={warning}>
          <b>{named(names)}:</b> {warning}
        </li>
      ))}
    </Box>
  );
}

const named = (names: readonly string[]): string =>
  names.length > MOST_NAMED
    ? `${names.slice(0, MOST_NAMED).join(", ")} and ${names.length - MOST_NAMED} more`
    : names.join(", ");
