"use client";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useMemo, useState } from "react";
import { responseCorridor } from "@/core/stations/response";
import { curvesOf } from "@/core/alignment/response-curves";
import { fixed, hertzText } from "@/core/text/number-text";
import { ResponseChart, type ResponseLine } from "@/ui/response-chart";
import { PressButton } from "@/ui/press-button";
import { VerdictMark } from "@/ui/verdict-mark";
import { responseCsv } from "@/core/formats/response-csv";
import { download, downloadUrl } from "@/features/job/download";
import { BandTable } from "../response/band-table";
import { DoctorSays } from "../response/doctor-says";
import { Figure } from "../figure";
import type { PictureProps, StationPicture } from "./picture";
import type { ResponseOfChannel } from "@/core/playback/playback-numbers";
import { useOtherCurves } from "../response/use-other-curves";

const VIEWS = ["curve", "bands", "what it means"] as const;
const NO_CHANNELS: ResponseOfChannel[] = [];
const UNSTEADY_DB = 0.5;

/** The response as it fills in, against its corridor and as found; each band; and what the curve looks like. */
function Response({ view, bench, listener, station, absent, onReadFrom }: PictureProps) {
  const { numbers, circumstances } = bench;
  const { side } = circumstances;
  const [shown, setShown] = useState<(typeof VIEWS)[number]>("curve");
  const [against, setAgainst] = useState("");
  const { choices, suspicions } = useOtherCurves(view);
  const channels = numbers?.response.channels ?? NO_CHANNELS;
  const { missing = [], sources = [], from = null, doubts = [] } = numbers?.response ?? {};
  const corridor = useMemo(() => responseCorridor(view.machine), [view.machine]);
  const found = useMemo(
    () =>
      curvesOf(view.readings).filter(
        (curve) =>
          curve.phase === "as found" && (side === undefined || curve.side === null || curve.side === side),
      ),
    [view.readings, side],
  );
  const other = choices.find(({ id }) => id === against);
  const lines = useMemo(
    () => [
      ...channels.map((one) => line(one)),
      ...found.map(({ channel, points }): ResponseLine => ({
        label: `${channel === "both" ? "" : `${channel} `}as found`,
        look: channel === "right" ? "right found" : "left found",
        points: points.map(({ frequencyHz, levelDb }) => ({ frequencyHz, db: levelDb })),
      })),
      ...(other?.curves ?? []).map(({ channel, points }): ResponseLine => ({
        label: `${other!.label}${channel === "both" ? "" : `, ${channel}`}`,
        look: "plain",
        points: points.map(({ frequencyHz, levelDb }) => ({ frequencyHz, db: levelDb })),
      })),
    ],
    [channels, found, other],
  );
  const worst = worstOf(channels);
  const lacks = station.tapeLacks(bench);
  // of the other one alone nothing passes
  const silent = doubts.find(({ kind }) => kind === "dead");
  // a tape of too few bands may have missed the worst
  const said = silent || lacks ? null : worst;
  const name = `${view.job.number} response${side ? ` ${side}` : ""}`;
  return (
    <>
      <Figure
        view={view}
        quantity="response.worst"
        side={side}
        value={said?.point.levelDb ?? null}
        uncertainty={said?.point.uncertaintyDb ?? 0}
        settled={missing.length === 0}
        ends={["dull", "bright"]}
        absent={silent?.says ?? absent}
        shownAs={
          said
            ? `${said.channel === "both" ? "" : `${said.channel}, `}${hertzText(said.point.frequencyHz)}`
            : undefined
        }
      />
      {doubts
        // what is silent stands in place of the number, what does not hold still is said of each channel below
        .filter(({ kind }) => kind === "clipped" || kind === "turned")
        .map(({ says }) => (
          <Box key={says} sx={{ color: "warning.main", fontWeight: 600, lineHeight: 1.3 }}>
            {says}
          </Box>
        ))}
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        <Box role="group" aria-label="Show" sx={{ display: "flex", gap: 0.5 }}>
          {VIEWS.map((one) => (
            <PressButton key={one} chosen={one === shown} onClick={() => setShown(one)}>
              {one}
            </PressButton>
          ))}
        </Box>
        {sources.length > 1 && (
          <Box role="group" aria-label="Read from" sx={{ display: "flex", gap: 0.5 }}>
            {sources.map((source) => (
              <PressButton key={source} chosen={source === from} onClick={() => onReadFrom(source)}>
                {source === "bands" ? "tones" : source}
              </PressButton>
            ))}
          </Box>
        )}
        {choices.length > 0 && shown === "curve" && (
          <TextField
            select
            size="small"
            label="Laid over it"
            value={against}
            onChange={({ target }) => setAgainst(target.value)}
            sx={{ minWidth: 220 }}
          >
            <MenuItem value="">nothing</MenuItem>
            {choices.map(({ id, label }) => (
              <MenuItem key={id} value={id}>
                {label}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Box sx={{ color: "text.secondary" }}>
          {missing.length > 0 &&
            channels.length > 0 &&
            `${missing.length} more to hear: ${missing.slice(0, 3).join("; ")}`}
        </Box>
      </Box>
      {shown === "curve" && (
        <ResponseChart
          label="Response of each channel"
          lines={lines}
          corridor={corridor}
          height={222}
          exports={
            channels.length === 0
              ? undefined
              : {
                  onPng: (url) => downloadUrl(`${name}.png`, url),
                  onCsv: () => download(`${name}.csv`, responseCsv(channels), "text/csv"),
                }
          }
        />
      )}
      {shown === "bands" && <BandTable channels={channels} />}
      {shown === "what it means" && (
        <DoctorSays
          view={view}
          numbers={numbers}
          channels={channels}
          referenceHz={numbers?.response.referenceHz ?? null}
          listener={listener}
        />
      )}
      {suspicions.map(({ frequencyHz, db, machines }) => (
        <Box key={frequencyHz} sx={{ color: "warning.main", fontWeight: 600, lineHeight: 1.3 }}>
          The tape is suspect: {machines.join(", ")} all show {fixed(db, 1, true)} dB at{" "}
          {Math.round(frequencyHz)} Hz on {view.tape.name}.
        </Box>
      ))}
      {channels.map(({ channel, points }) => {
        const moving = points.filter(({ spreadDb }) => spreadDb > UNSTEADY_DB);
        return moving.length < 2 ? null : (
          <Box key={channel} sx={{ lineHeight: 1.3 }}>
            <VerdictMark verdict="close" detail={`${channel} will not hold still`} />: it moves by up to ±
            {fixed(Math.max(...moving.map(({ spreadDb }) => spreadDb)), 1)} dB while a band plays. A contact,
            a component, or drop-outs.
          </Box>
        );
      })}
    </>
  );
}

const line = ({ channel, points }: ResponseOfChannel): ResponseLine => ({
  label: channel === "both" ? "measured" : channel,
  look: channel === "right" ? "right" : "left",
  points: points.map(({ frequencyHz, levelDb }) => ({ frequencyHz, db: levelDb })),
});

/** The point that is farthest off in either channel. */
function worstOf(channels: ResponseOfChannel[]) {
  return channels
    .flatMap(({ channel, judged }) => (judged.worst ? [{ channel, point: judged.worst }] : []))
    .toSorted((a, b) => Math.abs(b.point.levelDb) - Math.abs(a.point.levelDb))
    .at(0);
}

export const response: StationPicture = { Middle: Response };
