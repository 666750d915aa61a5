import Box from "@mui/material/Box";
import { useMemo } from "react";
import { limitFor } from "@/core/alignment/registry";
import { mapLogged, reductionNow } from "@/core/stations/reduction";
import { switchDoes, worstOf } from "@/core/stations/reduction-map";
import { reductionCauses } from "@/core/stations/reduction-causes";
import { ErrorMap } from "@/ui/error-map";
import { shortDay } from "@/ui/short-day";
import { Figure } from "../figure";
import { RecordSteps } from "../recording/record-steps";
import { onThisTape } from "../recording/record-view";
import { UsualCauses } from "../usual-causes";
import type { PictureProps, StationPicture } from "./picture";

/** What comes back against what went in, over level and frequency, with what is switched on. */
function Reduction({ view, bench, listener, station, absent }: PictureProps) {
  const mine = useMemo(() => onThisTape(view, bench), [view, bench]);
  const now = reductionNow(bench);
  const { switchedOn, points, off, lacks } = now;
  const limitDb = limitFor(view.machine, "reduction.worst") ?? 0;
  const worst = worstOf(points, limitDb);
  const causes = reductionCauses(now, limitDb);
  const common = { view: mine, absent, settled: lacks === null, size: "narrow" as const };
  const does = (level: 0 | -20, hz: number, sign = 1) => {
    const found = off && switchDoes(points, off, level, hz);
    return { value: found ? sign * found.db : null, uncertainty: found?.uncertaintyDb ?? 0 };
  };
  // what was logged stands there until something is heard
  const logged = points.length === 0 ? mapLogged(bench) : null;
  const shown = logged?.points ?? points;
  const tapeOf = (id: string | undefined) => {
    const tape = view.job.blankTapes?.find((one) => one.id === id);
    return tape ? `, ${tape.name}` : "";
  };
  const names = view.machine.channels === 1 ? ["both"] : ["left", "right"];
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: "1fr 1fr" }, gap: 2 }}>
        {switchedOn.includes("multiplex") && (
          <>
            <Figure {...common} quantity="multiplex.at15" {...does(-20, 15_000)} ends={["less", "more"]} />
            <Figure
              {...common}
              quantity="multiplex.at19"
              {...does(-20, 19_000, -1)}
              ends={["leaks", "blocks"]}
            />
          </>
        )}
        {switchedOn.includes("headroom") && (
          <>
            <Figure {...common} quantity="headroom.loud" {...does(0, 10_000)} ends={["loses", "gains"]} />
            <Figure {...common} quantity="headroom.quiet" {...does(-20, 10_000)} ends={["less", "more"]} />
          </>
        )}
        {!switchedOn.includes("multiplex") && !switchedOn.includes("headroom") && (
          <Figure
            {...common}
            quantity="reduction.worst"
            value={worst?.errorDb ?? null}
            uncertainty={worst?.uncertaintyDb ?? 0}
            ends={["less", "more"]}
            noVerdict={switchedOn.includes("reduction") ? undefined : "everything off"}
          />
        )}
      </Box>
      <RecordSteps {...{ bench, listener, station, view, lacks }} anySwitch />
      <UsualCauses>
        {causes.map((cause) => (
          <li key={cause}>{cause}</li>
        ))}
      </UsualCauses>
      {logged && (
        <Box sx={{ fontWeight: 600 }}>
          As logged on {shortDay(logged.at)} with noise reduction on
          {tapeOf(logged.recordingOn)}
        </Box>
      )}
      {shown.length > 0 && (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: { sm: `repeat(${names.length}, minmax(0, 1fr))` },
            gap: 2,
          }}
        >
          {names.map((name) => (
            <ErrorMap
              key={name}
              label={`Came back less sent, dB, ${name}`}
              points={shown.filter(({ channel }) => channel === name)}
              limitDb={limitDb}
            />
          ))}
        </Box>
      )}
    </>
  );
}

export const reduction: StationPicture = { Middle: Reduction };
