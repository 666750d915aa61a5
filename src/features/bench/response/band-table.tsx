import Box from "@mui/material/Box";
import type { ResponsePoint } from "@/core/measure/response";
import { fixed, withUncertainty } from "@/core/text/number-text";
import { READING_FONT } from "@/ui/theme";
import { VerdictMark } from "@/ui/verdict-mark";
import type { ResponseOfChannel } from "@/core/playback/playback-numbers";

const CORRECTIONS: Array<[keyof ResponsePoint & `${string}Db`, string]> = [
  ["rawDb", "measured"],
  ["bandLevelDb", "− band"],
  ["certificateDb", "− certificate"],
  ["fringingDb", "− fringing"],
  ["equalisationDb", "− equalisation"],
];

/** Every band of each channel: what was measured, what was taken away, what is left, and what it is worth. */
export function BandTable({ channels }: { channels: ResponseOfChannel[] }) {
  if (channels.length === 0)
    return <Box sx={{ color: "text.secondary", py: 2 }}>The bands appear here as they play.</Box>;
  return (
    <Box tabIndex={0} role="region" aria-label="Bands" sx={{ overflow: "auto", maxHeight: 250 }}>
      <Box
        component="table"
        sx={{
          borderCollapse: "collapse",
          width: "100%",
          fontSize: 15,
          "& th": { textAlign: "right", fontWeight: 600, color: "text.secondary", px: 0.5 },
          "& td": { fontFamily: READING_FONT, textAlign: "right", px: 0.5, whiteSpace: "nowrap" },
          "& tbody tr": { borderTop: 1, borderColor: "divider" },
        }}
      >
        <thead>
          <tr>
            <th scope="col">Hz</th>
            <th scope="col"> </th>
            {CORRECTIONS.map(([key, name]) => (
              <th key={key} scope="col">
                {name}
              </th>
            ))}
            <th scope="col">left over, dB</th>
            <th scope="col"> </th>
          </tr>
        </thead>
        <tbody>
          {channels.flatMap(({ channel, judged }) =>
            judged.points.map(({ point, verdict }) => (
              <tr key={`${channel} ${point.frequencyHz}`}>
                <td>{Math.round(point.frequencyHz)}</td>
                <td>{channel === "both" ? "" : channel}</td>
                {CORRECTIONS.map(([key]) => (
                  <td key={key}>{fixed(point[key], 2, true)}</td>
                ))}
                <td>
                  <b>{withUncertainty(point.levelDb, point.uncertaintyDb, "", true, 2)}</b>
                </td>
                <td>{verdict ? <VerdictMark verdict={verdict} /> : ""}</td>
              </tr>
            )),
          )}
        </tbody>
      </Box>
    </Box>
  );
}
