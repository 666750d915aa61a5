"use client";
import Box from "@mui/material/Box";
import { csvText } from "@/core/formats/csv-text";
import { memo } from "react";
import type { FlutterMeter } from "@/core/records/machine";
import type { FlutterResult } from "@/core/measure/flutter";
import type { ScrapeFlutter } from "@/core/measure/scrape-meter";
import type { RatePoint } from "@/core/measure/rate-points";
import { READING_FONT } from "@/ui/theme";
import { SpectrumChart, type SpectrumMark } from "@/ui/spectrum-chart";
import { download, downloadUrl } from "@/features/job/download";

const METERS: Array<[FlutterMeter, string]> = [
  ["peak", "peak"],
  ["twoSigma", "two-sigma"],
  ["rms", "RMS"],
  ["average", "average"],
];

interface FlutterPanelProps {
  flutter: FlutterResult & { scrape?: ScrapeFlutter | null };
  points: RatePoint[];
  meter: FlutterMeter;
  /** Parts whose lines are named on the spectrum. */
  marks: SpectrumMark[];
}

/** All meters at once, the strongest rates, and the rate spectrum. */
export const FlutterPanel = memo(function FlutterPanel({ flutter, points, meter, marks }: FlutterPanelProps) {
  const csv = () =>
    download(
      "rate-spectrum.csv",
      csvText(points.map(({ rateHz, percent }) => ({ rateHz, peakPercent: percent }))),
      "text/csv",
    );
  const png = (url: string) => downloadUrl("rate-spectrum.png", url);
  return (
    <Box>
      <Box
        component="table"
        sx={{
          width: "100%",
          borderCollapse: "collapse",
          fontFamily: READING_FONT,
          fontSize: 15,
          "& td, & th": { p: "1px 6px", textAlign: "right", fontWeight: 400 },
        }}
      >
        <thead>
          <tr>
            <th />
            {METERS.map(([id, name]) => (
              <Box component="th" key={id} scope="col" sx={{ color: "text.secondary" }}>
                {name}
              </Box>
            ))}
            <Box component="th" scope="col" sx={{ color: "text.secondary" }}>
              bands, RMS
            </Box>
          </tr>
        </thead>
        <tbody>
          {(["weighted", "unweighted"] as const).map((path, row) => (
            <tr key={path}>
              <Box component="th" scope="row" sx={{ textAlign: "left !important", color: "text.secondary" }}>
                {path}
              </Box>
              {METERS.map(([id]) => (
                <Box
                  component="td"
                  key={id}
                  sx={{ fontWeight: path === "weighted" && id === meter ? "700 !important" : 400 }}
                >
                  {flutter[path][`${id}Percent`].toFixed(3)}
                </Box>
              ))}
              <td>
                {row === 0
                  ? `wow ${flutter.wowRmsPercent.toFixed(3)}`
                  : `flutter ${flutter.flutterRmsPercent.toFixed(3)}`}
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
      {flutter.components.length > 0 && (
        <Box sx={{ color: "text.secondary", mt: 0.5 }}>
          Strongest rates:{" "}
          {flutter.components
            .slice(0, 3)
            .map(({ rateHz, peakPercent }) => `${rateHz.toFixed(2)} Hz ±${peakPercent.toFixed(3)} %`)
            .join(", ")}
        </Box>
      )}
      {flutter.scrape && (
        <Box sx={{ color: "text.secondary" }}>
          Scrape, {flutter.scrape.fromHz} Hz to {(flutter.scrape.toHz / 1000).toFixed(1)} kHz:{" "}
          {flutter.scrape.rmsPercent.toFixed(3)} % RMS, most at {Math.round(flutter.scrape.strongestHz)} Hz
        </Box>
      )}
      {points.length > 0 && <SpectrumChart points={points} marks={marks} onPng={png} onCsv={csv} />}
    </Box>
  );
}, sameFlutter);

/** Results come more often than the figures change, each time as a copy. */
function sameFlutter(a: FlutterPanelProps, b: FlutterPanelProps): boolean {
  return (
    a.points === b.points &&
    a.meter === b.meter &&
    a.marks === b.marks &&
    a.flutter.seconds === b.flutter.seconds &&
    a.flutter.weighted.peakPercent === b.flutter.weighted.peakPercent
  );
}
