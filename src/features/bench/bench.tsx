"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import { useRouter } from "next/navigation";
import { useCallback, useMemo, useRef, useState } from "react";
import { measures, routeOf, stationById } from "@/core/alignment/registry";
import { whyUnclean } from "@/core/alignment/unclean";
import { clean } from "@/core/stations/clean";
import { isAnythingTurned } from "@/core/alignment/moves";
import { passStations, type OnePass } from "@/core/alignment/one-pass";
import { secondPass } from "@/core/alignment/second-pass";
import { otherSpeedsToDo, readingsOf, toRepeat } from "@/core/alignment/station-state";
import { pitchRange } from "@/core/guidance/pitch-range";
import { sideSpeeds } from "@/core/guidance/speed-sides";
import { atSpeed } from "@/core/records/job-speeds";
import type { Job } from "@/core/records/job";
import type { Circumstances, Phase } from "@/core/records/reading";
import type { Station } from "@/core/stations/station";
import { useLatest } from "@/ui/use-latest";
import { JobTapeLine, stationHref } from "../job/job-tape-line";
import { jobAddress, useJobAddress } from "../job/job-address";
import { useJobRecords, type JobView } from "../job/use-job-records";
import { Missing } from "../shell/missing";
import { MissingJob } from "../shell/missing-job";
import { releaseButton } from "./bench-focus";
import { BenchHeader } from "./bench-header";
import { BenchNotice } from "./bench-notice";
import { Desk } from "./desks";
import { KeyList } from "./key-list";
import { useJobListener } from "./listening/listener-provider";
import { useWants } from "./listening/use-wants";
import { absence, Middle } from "./middle";
import { PassPicture } from "./one-pass/pass-picture";
import { useOnePass } from "./one-pass/use-one-pass";
import { PracticeDrawer } from "./practice/practice-drawer";
import { SetUpColumn } from "./set-up-card";
import { shownSlots } from "./practice/shown-slots";
import { Slip } from "./logging/slip";
import { SquealAlarm } from "./squeal-alarm";
import { SourceBar } from "./source-bar";
import type { PictureProps } from "./stations/picture";
import { TurnColumn } from "./turning/turn-column";
import { useBenchKeys, useFocusBack } from "./use-bench-keys";
import { useCircumstances } from "./use-circumstances";
import { useForgetTones } from "./use-forget-tones";
import { useGuideTone } from "./turning/use-guide-tone";
import type { ListenerState } from "./listening/use-listener";
import { useClockSetBack } from "./logging/use-clock-set-back";
import { useLogbook } from "./logging/use-logbook";
import { useOnTheBench } from "./use-on-the-bench";
import { useProposedTurns } from "./turning/use-proposed-turns";
import { useChosenWork } from "./turning/work-card";

export function Bench() {
  const { jobId, stationId } = useJobAddress();
  const view = useJobRecords(jobId);
  const station = stationById(stationId ?? "");
  const listener = useJobListener();
  if (!station || station.kind === "sheet") return <Missing what="There is no such station." />;
  if (view === null) return <MissingJob />;
  if (view === undefined || listener === null)
    return <Box sx={{ p: 6, color: "text.secondary" }}>Opening the bench…</Box>;
  return <OpenBench view={view} station={station} listener={listener} />;
}

/** By hand: the source, then the tape, then found out by itself again. */
function sayNext({ heard, sayHears }: ListenerState): void {
  const { byHand = false, hears = null } = heard?.comparison ?? {};
  sayHears(!byHand ? "source" : hears === "source" ? "tape" : null);
}

/** Recording on the next of the job's blank tapes. */
function onNextBlank({ blankTapes = [] }: Job, circumstances: Circumstances): Circumstances {
  const at = blankTapes.findIndex(({ id }) => id === circumstances.recordingOn);
  const next = blankTapes.at((at + 1) % Math.max(1, blankTapes.length));
  return { ...circumstances, recordingOn: next?.id };
}

interface OpenBenchProps {
  view: JobView;
  station: Station;
  listener: ListenerState;
}

function OpenBench({ view, station, listener }: OpenBenchProps) {
  const { job, machine } = view;
  const router = useRouter();
  const measuring = measures(station) ? station : null;
  const follows = measuring?.hears.follows ?? null;
  const [circumstances, setCircumstances, circumstancesKnown] = useCircumstances(job.id, listener.practice);
  const listensTo = (station.kind === "checklist" && station.listensTo) || null;
  useForgetTones(listener, circumstances, circumstancesKnown);
  // what belongs to the tape speed that is worked at
  const here = useMemo(() => atSpeed(view), [view]);
  const again = useMemo(() => toRepeat(view), [view]);
  const moved = useMemo(() => secondPass(here), [here]);
  const sides = useMemo(() => sideSpeeds(here.readings, here.adjustments), [here]);
  const toDo = useMemo(() => (measuring ? otherSpeedsToDo(view, measuring) : []), [view, measuring]);
  const pitch = useMemo(() => pitchRange(view.readings, job.speedCmPerS), [view.readings, job.speedCmPerS]);
  const { bench, advised, chooseAdjuster, readFrom } = useOnTheBench(
    view,
    measuring,
    listener,
    circumstances,
  );
  const whole = useOnePass(bench, listener);
  const passes = whole.pass !== null && !whole.isOver;
  const controls = useWants({ view, measuring, listensTo, circumstances, passes, listener });
  const { log, logTurn } = useLogbook(measuring, bench, listener);
  const setBack = useClockSetBack(view);
  const proposed = useProposedTurns(advised, bench, listener);
  const [notice, setNotice] = useState<string | null>(null);
  const [drawer, setDrawer] = useState(false);
  const [keys, setKeys] = useState(false);
  const sourceButton = useRef<HTMLButtonElement>(null);
  const main = useRef<HTMLElement>(null);
  const says = measuring?.circumstances ?? [];
  const turns = advised?.adjuster !== undefined;
  const { adjusters } = machine;
  const work = useMemo(
    () => adjusters.filter(({ kind, sets }) => kind === "work" && sets === station.id),
    [adjusters, station.id],
  );
  const hears = measuring !== null || listensTo !== null;
  const asLeftNext = isAnythingTurned(view.adjustments);
  const [workId, chooseWork] = useChosenWork(work);
  const blank = view.blanks?.find(({ id }) => id === circumstances.recordingOn);
  const unclean = measuring && whyUnclean(job);
  const logAs = async (phase: Phase) => measuring && !unclean && setNotice(await log(phase));
  const turned = async (atStop = proposed.atStop) => {
    setNotice(null);
    if (!proposed.adjuster || unclean) return;
    if (proposed.turns === 0) return setNotice("The slot has not been turned since the last time.");
    await logTurn(proposed.adjuster, proposed.turns, atStop);
  };
  const workIsDone = async () => {
    setNotice(null);
    const done = work.find(({ id }) => id === workId);
    if (measuring && done) await logTurn(done, null);
  };
  // another station is the same page: the server is not asked, and what plays goes on
  const goTo = useCallback(
    (href: string) => {
      if (jobAddress(href).stationId === null) router.push(href);
      else history.pushState(null, "", href);
    },
    [router],
  );
  const served = passStations(here);
  const beginPass = (phase: OnePass["phase"]) => {
    if (unclean || served.length === 0) return;
    if (!served.some(({ id }) => id === station.id)) goTo(stationHref(job.id, served[0]));
    whole.begin(phase);
  };
  const step = (by: number) => {
    const route = routeOf(view);
    const next = route[route.findIndex(({ id }) => id === station.id) + by];
    if (next) goTo(stationHref(job.id, next));
  };

  const guide = useGuideTone(bench.heard ? advised : null, machine, listener.kind === "sound card");

  // these parts of the bench do not change with each reading: they get functions that stay the same
  const logFromSlip = useLatest((phase: Phase) => void logAs(phase));
  const showKeys = useLatest(() => setKeys(true));
  const hideKeys = useLatest(() => setKeys(false));
  const toggleGuide = useLatest(guide.toggle);
  const togglePractice = useLatest(() => setDrawer((open) => !open));
  const changeCircumstances = useLatest(setCircumstances);
  const offerPass = useLatest(beginPass);

  useBenchKeys({
    " ": () => void logAs("working"),
    f: () => void logAs("as found"),
    l: () => void logAs("as left"),
    t: () => void (turns ? turned() : workIsDone()),
    p: () => setDrawer((open) => !open),
    g: () => measuring && guide.toggle(),
    m: () => follows && sayNext(listener),
    b: () => says.includes("recordingOn") && setCircumstances(onNextBlank(job, circumstances)),
    o: () => void (whole.pass === null && beginPass(asLeftNext ? "as left" : "as found")),
    "[": () => step(-1),
    "]": () => step(1),
    PageUp: () => step(-1),
    PageDown: () => step(1),
    ",": () => sourceButton.current?.focus(),
    "?": () => setKeys(true),
  });
  useFocusBack(main, keys);

  const drop = (event: React.DragEvent) => {
    event.preventDefault();
    const file = event.dataTransfer.files[0];
    if (file && measuring) void listener.measureFile(file);
  };
  const picture: PictureProps | null =
    measuring && advised
      ? {
          view: here,
          station: measuring,
          bench,
          advised,
          listener,
          slotTurns: proposed.slotTurns,
          absent: absence(listener, measuring, view.tape.name),
          onCircumstances: setCircumstances,
          onReadFrom: readFrom,
        }
      : null;
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
        <JobTapeLine records={view} here={station.id} onGoTo={goTo} />
      </Box>
      {guide.warning && (
        <Alert severity="warning" sx={{ mx: 2.5 }}>
          {guide.warning}
        </Alert>
      )}
      <SquealAlarm
        jobId={job.id}
        tapeName={says.includes("recordingOn") && blank ? blank.name : view.tape.name}
        squeal={listener.live?.squeal ?? null}
      />
      <BenchNotice notice={setBack} action={null} onClose={null} />
      <BenchNotice
        notice={unclean}
        action={{ words: "To cleaning", onPress: () => goTo(stationHref(job.id, clean)) }}
        onClose={null}
      />
      <BenchNotice
        notice={notice ?? listener.trouble}
        action={
          listener.lost && !notice ? { words: "Start again", onPress: () => void startAgain(listener) } : null
        }
        onClose={() => {
          setNotice(null);
          listener.dismissTrouble();
        }}
      />
      <Box
        component="main"
        ref={main}
        tabIndex={-1}
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
          outline: "none",
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
          onPass={whole.pass === null && served.some(({ id }) => id === station.id) ? offerPass : null}
          asLeftNext={asLeftNext}
        />
        {picture && whole.pass ? (
          <PassPicture view={view} listener={listener} hands={whole} side={circumstances.side} />
        ) : picture ? (
          <Middle {...picture} />
        ) : (
          <Desk
            view={view}
            station={station}
            listener={listener}
            onNext={() => step(1)}
            onPass={() => beginPass("as found")}
          />
        )}
        {picture && measuring && (
          <Box
            role="region"
            aria-label="Turn and slip"
            tabIndex={0}
            sx={{ display: "flex", flexDirection: "column", gap: 1.5, minWidth: 0 }}
          >
            {!passes && !controls && (
              <TurnColumn
                picture={picture}
                proposed={proposed}
                onChooseAdjuster={chooseAdjuster}
                foundFirst={readingsOf(here, measuring).length === 0}
                onTurned={(atStop) => void turned(atStop)}
                work={work}
                workId={workId}
                onChooseWork={chooseWork}
                onWorkDone={() => void workIsDone()}
              />
            )}
            <Slip view={here} station={measuring} again={again} moved={moved} onLog={logFromSlip} />
          </Box>
        )}
      </Box>
      <Box sx={{ position: { xs: "sticky", md: "static" }, bottom: 0, zIndex: 2 }}>
        {drawer && hears && (
          <PracticeDrawer
            listener={listener}
            machineId={machine.id}
            slots={measuring ? shownSlots(machine, measuring, blank?.type ?? null) : []}
            onClose={() => setDrawer(false)}
          />
        )}
        {hears && (
          <SourceBar
            listener={listener}
            firstButton={sourceButton}
            guideOn={guide.on}
            anyTone={follows !== null || measuring === null || measuring.hears.what === "sequence"}
            onGuide={toggleGuide}
            onPractice={togglePractice}
          />
        )}
      </Box>
      <KeyList open={keys} onClose={hideKeys} />
    </Box>
  );
}

/** Starts again what stopped by itself. */
const startAgain = ({ practice, startPractice, startSoundCard }: ListenerState) =>
  practice ? startPractice(practice.conditionId) : startSoundCard();
