"use client";
import Box from "@mui/material/Box";
import { Link } from "@/ui/link";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { READING_FONT } from "@/ui/theme";
import { typedContext } from "@/core/alignment/logbook";
import { meterReadings, notLevels } from "@/core/stations/level";
import { appendReadings, newId } from "@/storage/jobs";
import { ControlTest } from "../control-test";
import { Figure } from "../figure";
import { OneOf } from "../one-of";
import { TypedFigures } from "../logging/typed-figures";
import type { PictureProps, StationPicture } from "./picture";
import { isSilent } from "@/core/playback/dead-channel";
import type { ChannelLevel } from "@/core/playback/playback-level";
import type { PlaybackNumbers } from "@/core/playback/playback-numbers";

const METER_READS_TO_DB = 0.25;

const SHOWN: ReadonlyArray<["worked" | undefined, string]> = [
  [undefined, "level"],
  ["worked", "control test"],
];

/** The level, or a control that is worked while a tone plays. */
function LevelOrControl(props: PictureProps) {
  const { circumstances } = props.bench;
  const isWorked = circumstances.control !== undefined;
  return (
    <>
      <OneOf
        label="Of what"
        choices={SHOWN}
        chosen={isWorked ? "worked" : undefined}
        onChoose={(chosen) => props.onCircumstances({ ...circumstances, control: chosen && "" })}
      />
      {isWorked ? <ControlTest {...props} /> : <Level {...props} />}
    </>
  );
}

/** Both channels against the operating level, their balance, the arithmetic behind them, and the machine's own meter. */
function Level({ view, station, bench, absent }: PictureProps) {
  const { numbers, circumstances } = bench;
  const { side } = circumstances;
  const level = numbers?.level ?? null;
  const mono = view.machine.channels === 1;
  const channels = mono ? ["both"] : ["left", "right"];
  const known = level?.numbers.channels.every(({ errorDb }) => errorDb !== null) ?? true;
  const lacks = level && notLevels(level.numbers.channels);
  const settled = !lacks && (level?.tone.fresh ?? false);
  /** Logs what the machine's own meter shows, dB re its 0, less what is measured. */
  const logMeter = (channel: string, shownDb: number) => {
    const own = level?.numbers.channels.find((one) => one.channel === channel);
    if (own?.errorDb == null) return;
    const errorDb = shownDb - own.errorDb;
    const uncertaintyDb = Math.hypot(own.uncertaintyDb, METER_READS_TO_DB);
    const heard = { name: "the machine's own meter", nominalHz: level?.numbers.frequencyHz ?? 0 };
    const context = typedContext(station, bench, heard, { newId, now: Date.now() });
    void appendReadings(meterReadings({ channel, errorDb, uncertaintyDb }, context));
  };
  return (
    <>
      {known ? (
        <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${channels.length}, 1fr)` }, gap: 2 }}>
          {channels.map((channel, c) => {
            const own = level?.numbers.channels.at(c);
            return (
              <Figure
                key={channel}
                size={mono ? "medium" : "narrow"}
                view={view}
                quantity="level.error"
                channel={channel}
                side={side}
                value={own && notLevels([own]) === null ? own.errorDb : null}
                uncertainty={own?.uncertaintyDb ?? 0}
                settled={settled}
                ends={["low", "high"]}
                absent={lacks ?? absent}
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
            value={lacks ? null : (level?.numbers.balanceDb ?? null)}
            uncertainty={level?.numbers.balanceUncertaintyDb ?? 0}
            settled={settled}
            ends={["right louder", "left louder"]}
            absent={lacks ?? absent}
          />
        )}
        {level && <Arithmetic level={level.numbers} />}
      </Box>
      {level && (
        <TypedFigures
          title="The machine's own meter shows, dB"
          channels={level.numbers.channels.map(({ channel }) => channel)}
          label={(channel) => `Meter, ${channel}`}
          quantity="level.meter"
          view={view}
          wrong={(shown) => (Math.abs(shown) > 40 ? "A number of dB" : null)}
          lacks={known ? lacks : "needs a calibrated level"}
          onLog={logMeter}
        />
      )}
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
        {channels.map((own) => (
          <Row
            key={`m ${own.channel}`}
            strong
            what={`measured at ${Math.round(frequencyHz)} Hz, ${own.channel}${own.spreadDb > 0.3 && !isSilent(own) ? ", will not hold still" : ""}`}
            value={measured(own)}
          />
        ))}
      </tbody>
    </Box>
  );
}

/** What arrives on a channel, as it is told. */
const measured = (own: ChannelLevel): string =>
  isSilent(own)
    ? "nothing"
    : `${own.clipped ? "clipped, " : ""}${own.levelDbu === null ? db(own.levelDbfs, "dBFS") : db(own.levelDbu, "dBu")}`;

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

export const level: StationPicture = { Middle: LevelOrControl };
