import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useMemo } from "react";
import { limitFor } from "@/core/alignment/registry";
import type { Circumstances } from "@/core/records/reading";
import { inForce } from "@/core/records/job-records";
import { eraseCausesNow, secondPassCauses } from "@/core/stations/erase-causes";
import { erasedNow, isAtLeast } from "@/core/stations/erase";
import { EraseStaircase } from "@/ui/erase-staircase";
import { Figure } from "../figure";
import { Blanking } from "../recording/blanking";
import { OneOf } from "../one-of";
import { RecordSteps } from "../recording/record-steps";
import { onThisTape } from "../recording/record-view";
import { UsualCauses } from "../usual-causes";
import type { PictureProps, StationPicture } from "./picture";

const TONE_ABOVE_ZERO_DB = 6;

/** How deep a tone is erased in each channel, as a staircase down to what is left of it. */
function Erase({ view, bench, listener, station, absent, onCircumstances }: PictureProps) {
  const mine = useMemo(() => onThisTape(view, bench), [view, bench]);
  const { channels, lacks } = erasedNow(bench);
  const names = view.machine.channels === 1 ? ["both"] : ["left", "right"];
  const leastDb = limitFor(view.machine, "erase.depth") ?? 0;
  const { recordingOn = "", toneWasOn, eraseOf } = bench.circumstances;
  const quantity = eraseOf === "again" ? "erase.again" : "erase.depth";
  const causes = eraseCausesNow(bench);
  const loggedAs = (what: string, channel: string) =>
    inForce(mine.readings).findLast(
      ({ quantity, context }) =>
        quantity === what && context.channel === channel && context.side === bench.circumstances.side,
    );
  const secondPass = names.flatMap((channel) => {
    const [once, twice] = ["erase.depth", "erase.again"].map((what) => loggedAs(what, channel)?.value);
    return once === undefined || twice === undefined ? [] : [{ channel, once, twice }];
  });
  const choice = (
    <OneOf
      label="Erasing of"
      choices={ERASINGS}
      chosen={eraseOf}
      onChoose={(one) => onCircumstances({ ...bench.circumstances, eraseOf: one })}
    />
  );
  const isSaid = toneWasOn === recordingOn;
  // where something is left of the tone it was there, and nobody need say so
  const isHidden = channels.some(({ depth }) => depth?.hidden);
  // what was logged stands there until something is heard
  const staircases =
    channels.length > 0
      ? channels.flatMap(({ channel, depth, noise }) => (depth ? [{ channel, depth, noise }] : []))
      : names.flatMap((channel) => {
          const logged = loggedAs(quantity, channel);
          return logged
            ? [{ channel, depth: { db: logged.value, hidden: isAtLeast(logged) }, noise: null }]
            : [];
        });
  if (eraseOf === "blanking")
    return <Blanking {...{ bench, listener, station, view, mine, names, absent, choice }} />;
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {names.map((name) => {
          const depth = channels.find(({ channel }) => channel === name)?.depth ?? null;
          return (
            <Figure
              key={name}
              view={mine}
              quantity={quantity}
              channel={names.length === 1 ? undefined : name}
              value={depth?.db ?? null}
              uncertainty={depth?.uncertaintyDb ?? 0}
              settled={lacks === null}
              settling={depth?.hidden ? "at least" : "look"}
              ends={["stays", "gone"]}
              absent={absent}
              size="narrow"
            />
          );
        })}
      </Box>
      <RecordSteps {...{ bench, listener, station, view, lacks }}>
        {(isSaid || isHidden) && (
          <FormControlLabel
            control={
              <Checkbox
                checked={isSaid}
                onChange={({ target }) =>
                  onCircumstances({
                    ...bench.circumstances,
                    toneWasOn: target.checked ? recordingOn : undefined,
                  })
                }
              />
            }
            label="The tone to be erased was recorded on this tape before"
          />
        )}
      </RecordSteps>
      {choice}
      {eraseOf === "again" && (
        <Box>Rewind and record the same sequence once more over the same place: erased twice now.</Box>
      )}
      <UsualCauses>
        {[...secondPassCauses(secondPass, leastDb), ...causes].map((cause) => (
          <li key={cause}>{cause}</li>
        ))}
      </UsualCauses>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {staircases.map(({ channel, depth, noise }) => (
          <EraseStaircase
            key={channel}
            label={`Erase depth ${channel}${channels.length > 0 ? ": the tone, noise, and what is left" : ", as logged"}`}
            depthDb={depth.db}
            hidden={depth.hidden}
            noiseBelowDb={noise ? TONE_ABOVE_ZERO_DB - noise.flatDb : null}
            leastDb={leastDb}
          />
        ))}
      </Box>
    </>
  );
}

const ERASINGS: ReadonlyArray<[Circumstances["eraseOf"], string]> = [
  [undefined, "one pass"],
  ["again", "a second pass over the same place"],
  ["blanking", "blanking test"],
];

export const erase: StationPicture = { Middle: Erase };
