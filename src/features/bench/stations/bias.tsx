import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo } from "react";
import type { BiasKnown } from "@/core/guidance/bias-screw";
import { alongLaw } from "@/core/guidance/law-table";
import type { HeardSchool } from "@/core/guidance/bias-answers";
import { BIAS_SCHOOLS, type BiasSchool, type Job } from "@/core/records/job";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { heardSchool, schoolOf } from "@/core/stations/bias-school";
import { schoolsApart, tapeDoubt } from "@/core/stations/bias-doubt";
import { typedLast } from "@/core/stations/bias-meter";
import { biasNow, biasSides, errorOf, type BiasSide } from "@/core/stations/bias-sides";
import { fixed, hertzText, THIN_SPACE } from "@/core/text/number-text";
import { changeBlankTapes, changeJob } from "@/storage/jobs";
import { BiasCurves, type BiasFlag } from "@/ui/bias-curves";
import { PressButton } from "@/ui/press-button";
import { READING_FONT } from "@/ui/theme";
import { MakersFigure } from "../bias/makers-figure";
import { Figure } from "../figure";
import { HearsSourceOrTape } from "../recording/hears-source-or-tape";
import { RecordSteps } from "../recording/record-steps";
import { onThisTape } from "../recording/record-view";
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
  const { tones, lacks } = biasNow(bench);
  const comparison = bench.heard?.comparison ?? null;
  const doubt = tapeDoubt(bench, sides);
  const apart = schoolsApart(school, sides);
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${sides.length}, 1fr)` }, gap: 2 }}>
        {sides.map((side) => (
          <Figure
            key={side.channel}
            view={mine}
            quantity="bias.error"
            channel={sides.length === 1 ? undefined : side.channel}
            ends={["too little bias", "too much"]}
            size="narrow"
            {...(chosen === "makers-figure" ? typedFigure(bench, side) : heardFigure(school, side, absent))}
          />
        ))}
      </Box>
      {doubt && (
        <Box sx={{ color: "warning.main", fontWeight: 600, lineHeight: 1.3, display: "flex", gap: 1 }}>
          <Box sx={{ flex: 1 }}>{doubt}</Box>
          <Button variant="outlined" color="inherit" onClick={() => void looked(view.job, bench)}>
            I looked: it is this tape
          </Button>
        </Box>
      )}
      {apart && (
        <Box role="note" sx={{ display: "flex", gap: 1, fontWeight: 600, lineHeight: 1.3 }}>
          <Box sx={{ flex: 1 }}>{apart}</Box>
          <Button
            variant="outlined"
            color="inherit"
            onClick={() => void changeJob(view.job.id, { biasSchool: "over-bias" })}
          >
            Set by over-bias
          </Button>
        </Box>
      )}
      {chosen === "makers-figure" && <MakersFigure {...{ view: mine, station, bench }} />}
      {tones ? (
        <TonesNow sides={sides} />
      ) : (
        <RecordSteps {...{ bench, listener, station, view, lacks }}>
          <Schools chosen={chosen} onChoose={(biasSchool) => void changeJob(view.job.id, { biasSchool })} />
        </RecordSteps>
      )}
      {/* it comes and goes with what is heard: below the buttons, it moves none of them */}
      {comparison?.hears && view.machine.monitorsTape && (
        <HearsSourceOrTape comparison={comparison} onSay={listener.sayHears} live={listener.live !== null} />
      )}
      {shown.known && <Law side={shown} known={shown.known} school={school} several={sides.length > 1} />}
    </>
  );
}

function heardFigure(school: HeardSchool, side: BiasSide, absent: string) {
  const error = errorOf(school, side);
  return {
    value: error?.errorDb ?? null,
    uncertainty: error?.uncertaintyDb ?? 0,
    settled: side.last?.fresh ?? false,
    settling: side.moves ? "turning" : side.last ? "turned" : "logged",
    absent: side.thinking ? "working it out" : side.known ? "cannot be told yet" : absent,
  };
}

function typedFigure(bench: OnTheBench, { adjuster, channel }: BiasSide) {
  const typed = typedLast(bench, adjuster?.channel ?? channel);
  return {
    value: typed?.reading.value ?? null,
    uncertainty: typed?.reading.uncertainty ?? 0,
    settled: typed?.fresh ?? false,
    settling: "turned since: read the meter again",
    absent: "read the meter",
  };
}

/** Somebody looked at the tape and the switch. */
const looked = ({ id }: Job, { circumstances }: OnTheBench) =>
  changeBlankTapes(id, (tapes) =>
    tapes.map((blank) => (blank.id === circumstances.recordingOn ? { ...blank, seen: true } : blank)),
  );

/** Both tones off the tape at this moment re what went in, right through a turn. */
function TonesNow({ sides }: { sides: readonly BiasSide[] }) {
  return (
    <Box
      role="status"
      aria-label="Both tones"
      sx={{
        display: "grid",
        gridTemplateColumns: { sm: `repeat(${sides.length}, 1fr)` },
        columnGap: 2,
        fontSize: 17,
      }}
    >
      {sides.map(({ channel, last }) => (
        <Box key={channel} sx={{ whiteSpace: "nowrap" }}>
          {last &&
            [
              [last.heard.middleHz, last.heard.middleDb],
              [last.heard.highHz, last.heard.highDb],
            ].map(([hz, db]) => (
              <Box component="span" key={hz} sx={{ mr: 2 }}>
                {hertzText(hz)}{" "}
                <Box component="span" sx={{ fontFamily: READING_FONT, fontWeight: 650 }}>
                  {fixed(db, 2, true)}
                </Box>
                {THIN_SPACE}dB
              </Box>
            ))}
        </Box>
      ))}
    </Box>
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
  const { law } = known;
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
  const thirds = known.points.flatMap(({ turns, thirdDb }) =>
    thirdDb === null ? [] : [{ turns, db: thirdDb }],
  );
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
            db: (turns) => alongLaw(law, "middleDb", turns),
          }}
          high={{
            name: hertzText(highHz),
            points: known.points.map(({ turns, highDb }) => ({ turns, db: highDb })),
            db: (turns) => alongLaw(law, "highDb", turns),
          }}
          third={
            // without one that was heard its curve is but what is usual
            thirds.length === 0
              ? null
              : { name: "third harmonic", points: thirds, db: (turns) => alongLaw(law, "thirdDb", turns) }
          }
          flags={flags}
          nowTurns={side.movesAt ?? known.nowTurns}
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
