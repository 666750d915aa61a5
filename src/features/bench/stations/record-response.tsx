import Box from "@mui/material/Box";
import { useMemo, useState } from "react";
import { curvesOf } from "@/core/alignment/response-curves";
import { inForce } from "@/core/records/job-records";
import { explainRecordResponse } from "@/core/advice/explain-record-response";
import { recordResponseNow, type RecordSource } from "@/core/stations/record-response";
import { hertzText } from "@/core/text/number-text";
import { ResponseChart, type ResponseLine } from "@/ui/response-chart";
import { PressButton } from "@/ui/press-button";
import { VerdictMark } from "@/ui/verdict-mark";
import { Figure } from "../figure";
import { RecordSteps } from "../recording/record-steps";
import { onThisTape } from "../recording/record-view";
import type { PictureProps, StationPicture } from "./picture";

const NAMES: Record<RecordSource, string> = { steps: "tones", sweep: "sweep", pink: "noise" };
/** A channel that strays by more while it is averaged will not hold still. */
const UNSTEADY_DB = 0.6;

/** The response of a recording against its corridor, as found behind, and the other blank tapes laid over it. */
function RecordResponse({ view, bench, listener, station, absent }: PictureProps) {
  const mine = useMemo(() => onThisTape(view, bench), [view, bench]);
  const [chosen, choose] = useState<RecordSource | null>(null);
  const { last, corridor, ways } = recordResponseNow(bench);
  const way = ways.find(({ from }) => from === chosen) ?? ways.at(0);
  const channels = way?.channels ?? [];
  const worst = channels
    .flatMap(({ channel, judged }) => (judged.worst ? [{ channel, point: judged.worst }] : []))
    .toSorted((a, b) => Math.abs(b.point.levelDb) - Math.abs(a.point.levelDb))
    .at(0);
  const found = curvesOf(mine.readings, "recordResponse.point").filter(({ phase }) => phase === "as found");
  const others = (view.job.blankTapes ?? [])
    .filter(({ id }) => id !== bench.circumstances.recordingOn)
    .flatMap(({ id, name }) =>
      curvesOf(
        view.readings.filter(({ context }) => context.recordingOn === id),
        "recordResponse.point",
      )
        .filter(({ phase }) => phase === "as left")
        .map((curve) => ({ ...curve, name })),
    );
  const asLine = (
    label: string,
    look: ResponseLine["look"],
    points: Array<{ frequencyHz: number; levelDb: number }>,
  ) => ({
    label,
    look,
    points: points.map(({ frequencyHz, levelDb }) => ({ frequencyHz, db: levelDb })),
  });
  const lines: ResponseLine[] = [
    ...channels.map(({ channel, points }) =>
      asLine(channel === "both" ? "recorded" : channel, channel === "right" ? "right" : "left", points),
    ),
    ...found.map(({ channel, points }) =>
      asLine(`${channel} as found`, channel === "right" ? "right found" : "left found", points),
    ),
    ...others.map(({ channel, points, name }) => asLine(`${name}, ${channel}`, "plain", points)),
  ];
  const restless = channels.filter(
    ({ points }) => points.filter(({ spreadDb }) => spreadDb > UNSTEADY_DB).length > 2,
  );
  const biasErrorDb = (channel: string) =>
    inForce(mine.readings).findLast((r) => r.quantity === "bias.error" && r.context.channel === channel)
      ?.value ?? null;
  const causes = channels.flatMap(({ channel, points }) =>
    explainRecordResponse({ points, limitDb: corridor.db, biasErrorDb: biasErrorDb(channel) }).map(
      (cause) => ({
        channel,
        ...cause,
      }),
    ),
  );
  return (
    <>
      <Figure
        view={mine}
        quantity="recordResponse.worst"
        value={worst?.point.levelDb ?? null}
        uncertainty={worst?.point.uncertaintyDb ?? 0}
        settled={last?.fresh ?? false}
        settling={last ? "turned since" : "not heard yet"}
        ends={["dull", "bright"]}
        absent={absent}
        shownAs={
          worst
            ? `${worst.channel === "both" ? "" : `${worst.channel}, `}${hertzText(worst.point.frequencyHz)}`
            : undefined
        }
      />
      <RecordSteps {...{ bench, listener, station, view }} />
      {ways.length > 1 && (
        <Box role="group" aria-label="Read from" sx={{ display: "flex", gap: 0.5 }}>
          {ways.map(({ from }) => (
            <PressButton key={from} chosen={from === way?.from} onClick={() => choose(from)}>
              {NAMES[from]}
            </PressButton>
          ))}
        </Box>
      )}
      <ResponseChart label="Record response of each channel" lines={lines} corridor={corridor} height={200} />
      {restless.map(({ channel }) => (
        <Box key={channel} sx={{ lineHeight: 1.3 }}>
          <VerdictMark verdict="close" detail={`${channel} swings while it is averaged`} />: a contact,
          drop-outs, or tape that does not lie still at the head.
        </Box>
      ))}
      {causes.map(({ channel, name, because, tryFirst }) => (
        <Box key={`${channel} ${name}`} sx={{ lineHeight: 1.35 }}>
          <b>
            {channel === "both" ? "" : `${channel}: `}
            {name}
          </b>
          . {because} {tryFirst}
        </Box>
      ))}
    </>
  );
}

export const recordResponse: StationPicture = { Middle: RecordResponse };
