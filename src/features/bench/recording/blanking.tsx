import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { limitFor } from "@/core/alignment/registry";
import { blankingCauses, blankingNow, leftOf } from "@/core/stations/blanking";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { JobView } from "@/features/job/use-job-records";
import { Figure } from "../figure";
import { Send } from "./send";
import type { PictureProps } from "../stations/picture";
import { UsualCauses } from "../usual-causes";

interface BlankingProps extends Pick<PictureProps, "bench" | "listener" | "station" | "view" | "absent"> {
  /** What belongs to the tape that is recorded on. */
  mine: JobView;
  names: readonly string[];
  /** Which of the erase figures is looked at. */
  choice: ReactNode;
}

/** An old programme, recorded over with nothing going in: it must go quiet. How far, how fast, and what is left. */
export function Blanking({ bench, listener, station, view, mine, names, absent, choice }: BlankingProps) {
  const { channels, lacks } = blankingNow(bench);
  const { practice } = listener;
  const leastDb = limitFor(view.machine, "erase.depth") ?? 0;
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {channels.map(({ channel, heard }) => (
          <Figure
            key={channel}
            view={mine}
            quantity="erase.blanking"
            channel={names.length === 1 ? undefined : channel}
            value={heard?.blanked?.downDb ?? null}
            uncertainty={0}
            settled={lacks === null}
            settling="listening"
            ends={["stays", "gone"]}
            absent={absent}
            size="narrow"
          />
        ))}
      </Box>
      <Box role="status" aria-label="Blanking test" sx={{ fontWeight: 600, fontSize: 17, lineHeight: 1.35 }}>
        {lacks ?? "It went quiet and stays so: log it."}
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        <Button variant="contained" disabled={!listener.hears} onClick={listener.beginBlanking}>
          Listen
        </Button>
        {practice && (
          <Button variant="outlined" color="inherit" onClick={() => void listener.recordNothing()}>
            Record nothing from here on
          </Button>
        )}
        <Send {...{ listener, station, view, bench }} only="steady" />
      </Box>
      {choice}
      <UsualCauses>
        {blankingCauses(channels, leastDb).map((cause) => (
          <li key={cause}>{cause}</li>
        ))}
      </UsualCauses>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {channels.map(({ channel, heard }) => (
          <Box key={channel} sx={{ lineHeight: 1.5 }}>
            {heard === null
              ? `${channel}: no programme yet`
              : heard.blanked === null
                ? `${channel}: programme for ${fixed(heard.programmeSeconds, 0)}${THIN_SPACE}s`
                : `${channel}: quiet within ${fixed(heard.blanked.fallSeconds, 1)}${THIN_SPACE}s, for ${fixed(heard.blanked.quietSeconds, 0)}${THIN_SPACE}s${heard.blanked.cameBack ? ", then sound again" : ""}; ${leftOf(heard.blanked)}`}
          </Box>
        ))}
      </Box>
    </>
  );
}
