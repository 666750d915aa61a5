"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { limitFor } from "@/core/alignment/limits";
import type { Phase, StationId } from "@/core/alignment/records";
import { atSpeed, speedAdjusters } from "@/core/alignment/job-speeds";
import { pitchRange } from "@/core/alignment/pitch-range";
import { sideSpeeds, targetFor } from "@/core/alignment/sides";
import { decidingQuantity, otherSpeedsToDo, readingsOf, toRepeat } from "@/core/alignment/station-state";
import { ROUTE, stationById, type Station } from "@/core/alignment/stations";
import { JobTapeLine, stationHref } from "../job/job-tape-line";
import { useJobRecords, type JobView } from "../job/use-job-records";
import { Missing } from "../shell/missing";
import { useLatest } from "@/ui/use-latest";
import { BenchHeader } from "./bench-header";
import { Checklist } from "./checklist";
import { KeyList } from "./key-list";
import { nominalToneHz, useJobListener } from "./listener-provider";
import { useGuideTone } from "./use-guide-tone";
import { MeasurePanel, shownAt } from "./measure-panel";
import { PracticeDrawer } from "./practice-drawer";
import { SetUpColumn } from "./set-up-card";
import { Slip } from "./slip";
import { SourceBar } from "./source-bar";
import { TurnCard } from "./turn-card";
import type { ListenerState } from "./use-listener";
import { useCircumstances } from "./use-circumstances";
import { useLogbook } from "./use-logbook";
import { GOOD_ENOUGH_SHARE, useTurnAdvice } from "./use-turn-advice";
import { useChosenWork, WorkCard } from "./work-card";

const GUIDE_WINDOW_PERCENT = 0.5;

export function Bench({ jobId, stationId }: { jobId: string; stationId: StationId }) {
  const view = useJobRecords(jobId);
  const station = stationById(stationId);
  const listener = useJobListener();
  if (view === null || !station) return <Missing what="This job is not in this browser." />;
  if (view === undefined || listener === null)
    return <Box sx={{ p: 6, color: "text.secondary" }}>Opening the bench…</Box>;
  return <OpenBench view={view} station={station} listener={listener} />;
}

function OpenBench({
  view,
  station,
  listener,
}: {
  view: JobView;
  station: Station;
  listener: ListenerState;
}) {
  const { job, machine } = view;
  const router = useRouter();
  const { wantFlutter } = listener;
  useEffect(() => wantFlutter(station.id === "flutter"), [wantFlutter, station.id]);
  const [circumstances, setCircumstances] = useCircumstances(job.id, listener.practice);
  // what belongs to the tape speed that is worked at
  const here = useMemo(() => atSpeed(view), [view]);
  const again = useMemo(() => toRepeat(view), [view]);
  const { log, logTurn } = useLogbook(here, station.id, nominalToneHz(view), listener, circumstances);
  const sides = useMemo(() => sideSpeeds(here.readings, here.adjustments), [here]);
  const toDo = useMemo(
    () => (station.kind === "measure" ? otherSpeedsToDo(view, station) : []),
    [view, station],
  );
  const pitch = useMemo(() => pitchRange(view.readings, job.speedCmPerS), [view.readings, job.speedCmPerS]);
  const sideTarget = targetFor(circumstances.side, sides.differencePercent, !job.oneSideOnly);
  const [notice, setNotice] = useState<string | null>(null);
  const [drawer, setDrawer] = useState(false);
  const [keys, setKeys] = useState(false);
  const sourceButton = useRef<HTMLButtonElement>(null);
  const measuring = station.kind === "measure";

  const toTurn = useTurnAdvice(view, listener, sideTarget);
  const { adjuster, turns, slot, targetPercent } = toTurn;
  const { adjusters } = machine;
  const work = useMemo(() => adjusters.filter((a) => a.kind === "work"), [adjusters]);
  const [workId, chooseWork] = useChosenWork(work);
  const logAs = async (phase: Phase) => measuring && setNotice(await log(phase));
  const turned = async (atStop = listener.practice?.trimmers[slot]?.atStop ?? false) => {
    setNotice(null);
    const chosen = station.id === "speed" ? adjuster : work.find(({ id }) => id === workId);
    if (!measuring || !chosen) return;
    if (station.id === "speed" && turns === 0)
      return setNotice("The slot has not been turned since the last time.");
    await logTurn(chosen, station.id === "speed" ? turns : null, atStop);
  };
  const step = (by: number) => {
    const next = ROUTE[ROUTE.findIndex(({ id }) => id === station.id) + by];
    if (next) router.push(stationHref(job.id, next));
  };

  const shown = shownAt(station, view, listener.measured);
  const guideWindow = limitFor(machine, decidingQuantity(station.id, machine)) ?? GUIDE_WINDOW_PERCENT;
  const guide = useGuideTone(
    shown && measuring ? shown.value - targetPercent : null,
    // the tolerance is where the work ends, not where the ear should be content
    guideWindow * GOOD_ENOUGH_SHARE,
    listener.kind === "sound card",
  );

  // these parts of the bench do not change with each reading: they get functions that stay the same
  const logFromSlip = useLatest((phase: Phase) => void logAs(phase));
  const turnedFromCard = useLatest((atStop: boolean) => void turned(atStop));
  const workDone = useLatest(() => void turned());
  const showKeys = useLatest(() => setKeys(true));
  const hideKeys = useLatest(() => setKeys(false));
  const toggleGuide = useLatest(guide.toggle);
  const togglePractice = useLatest(() => setDrawer((open) => !open));
  const chooseWorkStable = useLatest(chooseWork);
  const changeCircumstances = useLatest(setCircumstances);

  const actions: Record<string, () => void> = {
    " ": () => void logAs("working"),
    f: () => void logAs("as found"),
    l: () => void logAs("as left"),
    t: () => void turned(),
    p: () => setDrawer((open) => !open),
    g: () => measuring && guide.toggle(),
    "[": () => step(-1),
    "]": () => step(1),
    PageUp: () => step(-1),
    PageDown: () => step(1),
    ",": () => sourceButton.current?.focus(),
    "?": () => setKeys(true),
  };
  useHotkeys(
    "*",
    (event) => {
      const action = actions[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!action || event.ctrlKey || event.metaKey || event.altKey || onControl(event)) return;
      event.preventDefault();
      action();
    },
    { enabled: !keys },
  );

  const drop = (event: React.DragEvent) => {
    event.preventDefault();
    const file = event.dataTransfer.files[0];
    if (file && measuring) void listener.measureFile(file);
  };
  return (
    <Box
      sx={{
        minHeight: "100dvh",
        height: { md: "100dvh" },
        overflow: { md: "hidden" },
        display: "flex",
        flexDirection: "column",
      }}
      onDragOver={(event) => event.preventDefault()}
      onDrop={drop}
      onPointerUp={releaseButton}
    >
      <BenchHeader view={view} station={station} onKeys={showKeys} />
      <Box sx={{ px: 2.5 }}>
        <JobTapeLine records={view} here={station.id} />
      </Box>
      {guide.warning && (
        <Alert severity="warning" sx={{ mx: 2.5 }}>
          {guide.warning}
        </Alert>
      )}
      {(notice ?? listener.trouble) && (
        <Alert
          severity="warning"
          sx={{ mx: 2.5 }}
          action={
            listener.lost && !notice ? (
              <Button color="inherit" onClick={() => void listener.startSoundCard()}>
                Start again
              </Button>
            ) : undefined
          }
          onClose={() => {
            setNotice(null);
            listener.dismissTrouble();
          }}
        >
          {notice ?? listener.trouble}
        </Alert>
      )}
      <Box
        component="main"
        sx={{
          flex: 1,
          display: "grid",
          gridTemplateColumns: {
            xs: "1fr",
            md: measuring ? "236px minmax(0, 1fr) 286px" : "236px minmax(0, 1fr)",
          },
          gap: 1.5,
          px: 2.5,
          py: 1.25,
          minHeight: 0,
          gridTemplateRows: { md: "minmax(0, 1fr)" },
          "& > *": { overflowY: { md: "auto" } },
        }}
      >
        <SetUpColumn
          view={here}
          station={station}
          circumstances={circumstances}
          onChange={changeCircumstances}
          sideKnown={listener.practice !== null}
          sides={sides}
          pitch={pitch}
          toDo={toDo}
        />
        {measuring ? (
          <MeasurePanel
            view={here}
            station={station}
            listener={listener}
            targetPercent={station.id === "speed" ? targetPercent : 0}
          />
        ) : (
          <Checklist view={view} station={station} onNext={() => step(1)} />
        )}
        {measuring && (
          <Box
            role="region"
            aria-label="Turn and slip"
            tabIndex={0}
            sx={{ display: "flex", flexDirection: "column", gap: 1.5, minWidth: 0 }}
          >
            {station.id === "speed" ? (
              <TurnCard
                toTurn={toTurn}
                view={here}
                errorPercent={listener.measured?.speed?.errorPercent ?? null}
                foundFirst={readingsOf(here, "speed").length === 0}
                counted={listener.kind === "practice"}
                onTurned={turnedFromCard}
              />
            ) : (
              <WorkCard work={work} chosenId={workId} onChoose={chooseWorkStable} onDone={workDone} />
            )}
            <Slip view={here} stationId={station.id} again={again} onLog={logFromSlip} />
          </Box>
        )}
      </Box>
      <Box sx={{ position: { xs: "sticky", md: "static" }, bottom: 0, zIndex: 2 }}>
        {drawer && measuring && (
          <PracticeDrawer
            listener={listener}
            adjusterNames={speedAdjusters(machine).map(({ name }) => name)}
            onClose={() => setDrawer(false)}
          />
        )}
        {measuring && (
          <SourceBar
            listener={listener}
            firstButton={sourceButton}
            guideOn={guide.on}
            onGuide={toggleGuide}
            onPractice={togglePractice}
          />
        )}
      </Box>
      <KeyList open={keys} onClose={hideKeys} />
    </Box>
  );
}

/** A button keeps its own Space and Enter while it has the focus. */
function onControl(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return (
    event.key === " " && target?.closest("button, a, [role=slider], [role=combobox], [role=option]") !== null
  );
}

/** After a click the focus goes back to the page, so that Space logs and does not press the button again. */
function releaseButton(event: React.PointerEvent): void {
  const button = (event.target as HTMLElement).closest?.("button");
  if (button) setTimeout(() => button.blur());
}
