"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { limitFor } from "@/core/alignment/limits";
import type { Phase, StationId } from "@/core/alignment/records";
import { atSpeed } from "@/core/alignment/job-speeds";
import { unitOf, type Unit } from "@/core/alignment/quantities";
import { secondPass } from "@/core/alignment/second-pass";
import { pitchRange } from "@/core/alignment/pitch-range";
import { sideSpeeds, targetFor } from "@/core/alignment/sides";
import { decidingQuantity, otherSpeedsToDo, readingsOf, toRepeat } from "@/core/alignment/station-state";
import { routeOf, stationById, type Station } from "@/core/alignment/stations";
import { JobTapeLine, stationHref } from "../job/job-tape-line";
import { useJobRecords, type JobView } from "../job/use-job-records";
import { Missing } from "../shell/missing";
import { useLatest } from "@/ui/use-latest";
import { BenchNotice } from "./bench-notice";
import { BenchHeader } from "./bench-header";
import { onControl, releaseButton } from "./bench-focus";
import { Checklist } from "./checklist";
import { KeyList } from "./key-list";
import { useJobListener } from "./listener-provider";
import { useGuideTone } from "./use-guide-tone";
import { MeasurePanel, shownAt } from "./measure-panel";
import { NothingToTurn } from "./nothing-to-turn";
import { PlaybackPanel } from "./playback/playback-panel";
import { playbackReadings } from "@/core/alignment/playback-station-readings";
import {
  isPlayback,
  playbackShown,
  useForgetTones,
  usePlaybackNumbers,
} from "./playback/use-playback-numbers";
import { usePlaybackTurns } from "./playback/use-playback-turns";
import { practiceSlots } from "./practice-slots";
import { ReadElsewhere } from "./read-elsewhere";
import { flutterStationReadings, speedReadings } from "./transport-readings";
import { WithoutTrimmer } from "./without-trimmer";
import { PracticeDrawer } from "./practice-drawer";
import { SetUpColumn } from "./set-up-card";
import { Slip } from "./slip";
import { SourceBar } from "./source-bar";
import { TurnCard } from "./turn-card";
import type { ListenerState } from "./use-listener";
import type { ResponseSource } from "@/core/listen/response-runs";
import { useCircumstances } from "./use-circumstances";
import { useLogbook } from "./use-logbook";
import { GOOD_ENOUGH_SHARE, useTurnAdvice } from "./use-turn-advice";
import { useChosenWork, WorkCard } from "./work-card";

const GUIDE_WINDOW: Partial<Record<Unit, number>> = { "%": 0.5, "°": 30, dB: 1 };

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
  const { wantFlutter, wantPlayback } = listener;
  const playback = isPlayback(station.id);
  useEffect(() => {
    wantFlutter(station.id === "flutter");
    wantPlayback(playback ? station.id : null);
  }, [wantFlutter, wantPlayback, station.id, playback]);
  const [circumstances, setCircumstances] = useCircumstances(job.id, listener.practice);
  useForgetTones(listener, circumstances);
  // what belongs to the tape speed that is worked at
  const here = useMemo(() => atSpeed(view), [view]);
  const again = useMemo(() => toRepeat(view), [view]);
  const moved = useMemo(() => secondPass(here), [here]);
  const [readFrom, setReadFrom] = useState<ResponseSource | null>(null);
  const numbers = usePlaybackNumbers(here, listener, readFrom);
  const stationReadings = playback
    ? playbackReadings(station.id, machine, numbers)
    : station.id === "speed"
      ? speedReadings(listener)
      : flutterStationReadings(listener);
  const { log, logTurn } = useLogbook(here, station.id, listener, stationReadings, circumstances);
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

  const speedTurn = useTurnAdvice(view, listener, sideTarget);
  const playbackTurn = usePlaybackTurns(here, station.id, numbers, listener, circumstances);
  const toTurn = playback ? playbackTurn : speedTurn;
  const turns = station.id !== "flutter" && toTurn.adjuster !== undefined;
  const targetPercent = station.id === "speed" ? speedTurn.targetPercent : 0;
  const { adjusters } = machine;
  const work = useMemo(
    () => adjusters.filter(({ kind, sets }) => kind === "work" && sets === station.id),
    [adjusters, station.id],
  );
  const [workId, chooseWork] = useChosenWork(work);
  const logAs = async (phase: Phase) => measuring && setNotice(await log(phase));
  const atPracticeStop = toTurn.slot !== null && (listener.practice?.trimmers[toTurn.slot]?.atStop ?? false);
  const turned = async (atStop = atPracticeStop) => {
    setNotice(null);
    if (!measuring || !turns || !toTurn.adjuster) return;
    if (toTurn.turns === 0) return setNotice("The slot has not been turned since the last time.");
    await logTurn(toTurn.adjuster, toTurn.turns, atStop);
  };
  const workIsDone = async () => {
    setNotice(null);
    const done = work.find(({ id }) => id === workId);
    if (measuring && done) await logTurn(done, null);
  };
  const step = (by: number) => {
    const route = routeOf(job);
    const next = route[route.findIndex(({ id }) => id === station.id) + by];
    if (next) router.push(stationHref(job.id, next));
  };

  const quantity = decidingQuantity(station.id, machine);
  const shown = playback
    ? playbackShown(station.id, machine, numbers, playbackTurn.channel)
    : shownAt(station, view, listener.measured);
  const guideWindow = limitFor(machine, quantity) ?? GUIDE_WINDOW[unitOf(quantity)] ?? 1;
  const guide = useGuideTone(
    shown && measuring ? shown.value - targetPercent : null,
    // the tolerance is where the work ends, not where the ear should be content
    guideWindow * GOOD_ENOUGH_SHARE,
    listener.kind === "sound card",
  );

  // these parts of the bench do not change with each reading: they get functions that stay the same
  const logFromSlip = useLatest((phase: Phase) => void logAs(phase));
  const turnedFromCard = useLatest((atStop: boolean) => void turned(atStop));
  const workDone = useLatest(() => void workIsDone());
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
    t: () => void (turns ? turned() : workIsDone()),
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
      <BenchNotice
        notice={notice ?? listener.trouble}
        onStartAgain={listener.lost && !notice ? () => void listener.startSoundCard() : undefined}
        onClose={() => {
          setNotice(null);
          listener.dismissTrouble();
        }}
      />
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
        {!measuring ? (
          <Checklist view={view} station={station} onNext={() => step(1)} />
        ) : playback ? (
          <PlaybackPanel
            view={here}
            station={station}
            numbers={numbers}
            listener={listener}
            circumstances={circumstances}
            toTurn={playbackTurn}
            onReadFrom={setReadFrom}
          />
        ) : (
          <MeasurePanel view={here} station={station} listener={listener} targetPercent={targetPercent} />
        )}
        {measuring && (
          <Box
            role="region"
            aria-label="Turn and slip"
            tabIndex={0}
            sx={{ display: "flex", flexDirection: "column", gap: 1.5, minWidth: 0 }}
          >
            {station.id !== "flutter" && (
              <TurnCard
                toTurn={toTurn}
                without={
                  station.id === "speed" ? (
                    <WithoutTrimmer
                      errorPercent={listener.measured?.speed?.errorPercent ?? null}
                      parts={machine.parts}
                    />
                  ) : (
                    <NothingToTurn station={station.id} />
                  )
                }
                first={
                  station.id === "speed" && speedTurn.readElsewhere ? (
                    <ReadElsewhere view={here} read={speedTurn.readElsewhere} />
                  ) : undefined
                }
                foundFirst={readingsOf(here, station.id).length === 0}
                counted={listener.kind === "practice" && toTurn.slot !== null}
                onTurned={turnedFromCard}
              />
            )}
            {work.length > 0 && (
              <WorkCard
                work={work}
                chosenId={workId}
                onChoose={chooseWorkStable}
                onDone={workDone}
                withKey={!turns}
                nothingTurned={station.id === "flutter"}
              />
            )}
            <Slip view={here} stationId={station.id} again={again} moved={moved} onLog={logFromSlip} />
          </Box>
        )}
      </Box>
      <Box sx={{ position: { xs: "sticky", md: "static" }, bottom: 0, zIndex: 2 }}>
        {drawer && measuring && (
          <PracticeDrawer
            listener={listener}
            slots={practiceSlots(machine, station.id)}
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
