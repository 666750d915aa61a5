import Box from "@mui/material/Box";
import { useMemo } from "react";
import { biasErrorNow, type BiasKnown } from "@/core/guidance/bias-screw";
import { BIAS_SCHOOLS, type BiasSchool } from "@/core/records/job";
import { biasSides, heardSchool, schoolOf, type BiasSide } from "@/core/stations/bias";
import { fixed, hertzText } from "@/core/text/number-text";
import { changeJob } from "@/storage/jobs";
import { BiasCurves, type BiasFlag } from "@/ui/bias-curves";
import { PressButton } from "@/ui/press-button";
import { Figure } from "../figure";
import { RecordSteps } from "../record-steps";
import { onThisTape } from "../record-view";
import type { PictureProps, StationPicture } from "./picture";

const SCHOOLS: Record<BiasSchool, string> = {
  flatness: "flat",
  "over-bias": "over-bias",
  "third-harmonic": "least third",
  "makers-figure": "maker's figure",
};

/** Where bias stands by the chosen school in each channel, and what it does over the turns of the screw. */
function Bias({ view, bench, listener, station, advised, absent }: PictureProps) {
  const mine = useMemo(() => onThisTape(view, bench), [view, bench]);
  const chosen = schoolOf(view.job);
  const school = heardSchool(chosen);
  const sides = biasSides(bench);
  const shown = sides.find(({ adjuster }) => adjuster && adjuster.id === advised.adjuster?.id) ?? sides[0];
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${sides.length}, 1fr)` }, gap: 2 }}>
        {sides.map(({ channel, known, overBiasDb, last }) => {
          const error = known ? biasErrorNow(school, known, overBiasDb) : null;
          return (
            <Figure
              key={channel}
              view={mine}
              quantity="bias.error"
              channel={sides.length === 1 ? undefined : channel}
              value={error?.errorDb ?? null}
              uncertainty={error?.uncertaintyDb ?? 0}
              settled={last?.fresh ?? false}
              settling={last ? "turned since" : "not heard yet"}
              ends={["too little bias", "too much"]}
              absent={known ? "cannot be told yet" : absent}
              size="narrow"
            />
          );
        })}
      </Box>
      <RecordSteps {...{ bench, listener, station, view }}>
        <Schools chosen={chosen} onChoose={(biasSchool) => void changeJob(view.job.id, { biasSchool })} />
      </RecordSteps>
      {chosen === "makers-figure" && (
        <Box sx={{ lineHeight: 1.35 }}>
          Set the figure of the maker with a meter at its test point; what is heard by flatness stands beside
          it.
        </Box>
      )}
      {shown.known && shown.known.laws.length > 0 && (
        <Law side={shown} known={shown.known} school={school} several={sides.length > 1} />
      )}
    </>
  );
}

function Schools({ chosen, onChoose }: { chosen: BiasSchool; onChoose(school: BiasSchool): void }) {
  return (
    <Box role="group" aria-label="School" sx={{ display: "flex", gap: 0.5, flexWrap: "wrap" }}>
      {BIAS_SCHOOLS.map((school) => (
        <PressButton key={school} chosen={school === chosen} onClick={() => onChoose(school)}>
          {SCHOOLS[school]}
        </PressButton>
      ))}
    </Box>
  );
}

interface LawProps {
  side: BiasSide;
  known: BiasKnown;
  school: keyof typeof SCHOOLS;
  several: boolean;
}

function Law({ side, known, school, several }: LawProps) {
  const [law] = known.laws;
  const flags = known.answers.flatMap(({ school: of, turns, uncertaintyTurns }): BiasFlag[] =>
    turns === null
      ? []
      : [
          {
            name: SCHOOLS[of],
            turns,
            uncertaintyTurns,
            chosen: of === school,
            curve: of === "third-harmonic" ? "third" : "high",
          },
        ],
  );
  const places = new Set(known.points.map(({ turns }) => turns)).size;
  const middleHz = side.last?.heard.middleHz ?? 315;
  const highHz = side.last?.heard.highHz ?? 10_000;
  const untold = known.answers.filter(({ turns }) => turns === null);
  return (
    <Box>
      <Box sx={{ fontWeight: 650 }}>
        {several && `${side.channel}: `}
        {places < 2
          ? "one place of the screw was heard; another shows what it does"
          : known.answers
              .flatMap(({ school: of, turns }) =>
                turns === null ? [] : [`${SCHOOLS[of]} ${fixed(360 * (turns - known.nowTurns), 0, true)}°`],
              )
              .join(" · ")}
      </Box>
      {known.conflicts && (
        <Box sx={{ color: "warning.main", fontWeight: 600, lineHeight: 1.3 }}>
          What was logged before does not fit what is heard now: is it this tape, and this machine? It is left
          out.
        </Box>
      )}
      {places > 1 && (
        <BiasCurves
          label={`Bias of the ${side.channel} channel over turns of its screw`}
          middle={{
            name: hertzText(middleHz),
            points: known.points.map(({ turns, middleDb }) => ({ turns, db: middleDb })),
            db: (turns) => law.middleDb(turns),
          }}
          high={{
            name: hertzText(highHz),
            points: known.points.map(({ turns, highDb }) => ({ turns, db: highDb })),
            db: (turns) => law.highDb(turns),
          }}
          third={{
            name: "third harmonic",
            points: known.points.flatMap(({ turns, thirdDb }) =>
              thirdDb === null ? [] : [{ turns, db: thirdDb }],
            ),
            db: (turns) => law.thirdDb(turns),
          }}
          flags={flags}
          nowTurns={known.nowTurns}
          dbPerTurn={law.dbPerTurn}
        />
      )}
      {places > 1 &&
        untold.map(({ school: of, says }) => (
          <Box key={of} sx={{ color: "text.secondary", lineHeight: 1.3 }}>
            {SCHOOLS[of]}: {says}
          </Box>
        ))}
    </Box>
  );
}

export const bias: StationPicture = { Middle: Bias };
