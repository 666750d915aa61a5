"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Link from "next/link";
import { useState } from "react";
import { inForce } from "@/core/records/job-records";
import { fixed, THIN_SPACE, withUncertainty } from "@/core/text/number-text";
import { READING_FONT } from "@/ui/theme";
import type { JobView } from "@/features/job/use-job-records";
import { typedContext } from "@/core/alignment/logbook";
import { meterReadings } from "@/core/stations/level";
import { typedNumber } from "@/core/text/typed-number";
import { appendReadings, newId } from "@/storage/jobs";
import { Figure } from "../figure";
import type { PictureProps, StationPicture } from "./picture";
import type { PlaybackNumbers } from "@/core/playback/playback-numbers";

const METER_READS_TO_DB = 0.25;

/** Both channels against the operating level, their balance, the arithmetic behind them, and the machine's own meter. */
function Level({ view, station, bench, absent }: PictureProps) {
  const { numbers, circumstances } = bench;
  const { side } = circumstances;
  const level = numbers?.level ?? null;
  const mono = view.machine.channels === 1;
  const channels = mono ? ["both"] : ["left", "right"];
  const known = level?.numbers.channels.every(({ errorDb }) => errorDb !== null) ?? true;
  const settled = level?.tone.fresh ?? false;
  /** Logs what the machine's own meter shows, dB re its 0, less what is measured. */
  const logMeter = (channel: string, errorDb: number, uncertaintyDb: number) => {
    const heard = { name: "the machine's own meter", nominalHz: level?.numbers.frequencyHz ?? 0 };
    const context = typedContext(station, bench, heard, { newId, now: Date.now() });
    void appendReadings(meterReadings({ channel, errorDb, uncertaintyDb }, context));
  };
  return (
    <>
      {known ? (
        <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${channels.length}, 1fr)` }, gap: 2 }}>
          {channels.map((channel, c) => {
            const own = level?.numbers.channels[c];
            return (
              <Figure
                key={channel}
                size={mono ? "medium" : "narrow"}
                view={view}
                quantity="level.error"
                channel={channel}
                side={side}
                value={own?.errorDb ?? null}
                uncertainty={own?.uncertaintyDb ?? 0}
                settled={settled}
                ends={["low", "high"]}
                absent={absent}
              />
            );
          })}
        </Box>
      ) : (
        <Box sx={{ color: "text.secondary", lineHeight: 1.4 }}>
          {view.machine.operatingLevel === null
            ? "The level itself cannot be judged: the machine has no operating level written down."
            : "The level itself cannot be judged: this input has no calibrated level."}{" "}
          <Link href={view.machine.operatingLevel === null ? "/machines" : "/settings"}>
            {view.machine.operatingLevel === null ? "Write it down" : "Calibrate it"}
          </Link>
          . Balance needs neither.
        </Box>
      )}
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { sm: mono ? "1fr" : "1fr 1fr" },
          gap: 2,
          alignItems: "start",
        }}
      >
        {!mono && (
          <Figure
            size="narrow"
            view={view}
            quantity="level.balance"
            side={side}
            value={level?.numbers.balanceDb ?? null}
            uncertainty={level?.numbers.balanceUncertaintyDb ?? 0}
            settled={settled}
            ends={["right louder", "left louder"]}
            absent={absent}
          />
        )}
        {level && <Arithmetic level={level.numbers} />}
      </Box>
      {level && <MeterCheck view={view} level={level.numbers} onMeter={logMeter} />}
    </>
  );
}

type LevelNumbers = NonNullable<PlaybackNumbers["level"]>["numbers"];
const db = (value: number, unit = "dB") => `${fixed(value, 2, true)}${THIN_SPACE}${unit}`;

/** How the expected level comes about, a line each. */
function Arithmetic({ level: { terms, expectedDbu, channels, frequencyHz } }: { level: LevelNumbers }) {
  return (
    <Box component="table" sx={{ borderCollapse: "collapse", width: "100%", "& td": { py: 0.1 } }}>
      <tbody>
        {terms.map(({ what, db: value }) => (
          <Row key={what} what={what} value={db(value)} />
        ))}
        {channels.map(({ channel, certificateDb }) =>
          certificateDb === 0 ? null : (
            <Row key={channel} what={`certificate, ${channel}`} value={db(certificateDb)} />
          ),
        )}
        {expectedDbu !== null && <Row strong what="expected" value={db(expectedDbu, "dBu")} />}
        {channels.map(({ channel, levelDbu, levelDbfs, spreadDb }) => (
          <Row
            key={`m ${channel}`}
            strong
            what={`measured at ${Math.round(frequencyHz)} Hz, ${channel}${spreadDb > 0.3 ? ", will not hold still" : ""}`}
            value={levelDbu === null ? db(levelDbfs, "dBFS") : db(levelDbu, "dBu")}
          />
        ))}
      </tbody>
    </Box>
  );
}

function Row({ what, value, strong = false }: { what: string; value: string; strong?: boolean }) {
  return (
    <Box component="tr" sx={strong ? { fontWeight: 650, borderTop: 1, borderColor: "divider" } : undefined}>
      <td>{what}</td>
      <Box component="td" sx={{ fontFamily: READING_FONT, textAlign: "right", whiteSpace: "nowrap" }}>
        {value}
      </Box>
    </Box>
  );
}

/** The machine's own meters against the measured level. */
function MeterCheck({
  view,
  level,
  onMeter,
}: {
  view: JobView;
  level: LevelNumbers;
  onMeter(channel: string, errorDb: number, uncertaintyDb: number): void;
}) {
  const [typed, setTyped] = useState<Record<string, string>>({});
  const logged = inForce(view.readings).filter(({ quantity }) => quantity === "level.meter");
  return (
    <Box
      component="section"
      aria-label="Meters of the machine"
      sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, alignItems: "center" }}
    >
      <Box sx={{ fontWeight: 600, color: "text.secondary", flexBasis: "100%" }}>
        The machine&apos;s own meter shows, dB
      </Box>
      {level.channels.map(({ channel, errorDb, uncertaintyDb }) => {
        const value = typedNumber(typed[channel] ?? "");
        const empty = !typed[channel]?.trim();
        const wrong = !empty && (!Number.isFinite(value) || Math.abs(value) > 40);
        const last = logged.findLast(({ context }) => context.channel === channel);
        return (
          <Box key={channel} sx={{ display: "flex", gap: 1, alignItems: "center", mt: 0.75 }}>
            <TextField
              size="small"
              label={`Meter, ${channel}`}
              value={typed[channel] ?? ""}
              error={wrong}
              onChange={({ target }) => setTyped({ ...typed, [channel]: target.value })}
              sx={{ width: 110 }}
            />
            <Button
              variant="outlined"
              color="inherit"
              disabled={empty || wrong || errorDb === null}
              onClick={() => onMeter(channel, value - errorDb!, Math.hypot(uncertaintyDb, METER_READS_TO_DB))}
            >
              Log
            </Button>
            <Box sx={{ fontFamily: READING_FONT, fontSize: 15 }}>
              {wrong
                ? "A number of dB"
                : last
                  ? `off by ${withUncertainty(last.value, last.uncertainty, "dB", true)}`
                  : errorDb === null
                    ? "needs a calibrated level"
                    : ""}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}

export const level: StationPicture = { Middle: Level };
