"use client";
import { isAnythingTurned } from "@/core/alignment/moves";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { functionsOf } from "@/core/stations/functions";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import {
  functionOf,
  FUNCTIONS,
  lastTrial,
  TRIAL_PHASES,
  whyNoMoreRuns,
  windTimesSay,
  type FunctionId,
  type TrialPhase,
} from "@/core/workshop/function-trial";
import { changeFunctionTrials, newId } from "@/storage/jobs";
import { changeMachine } from "@/storage/machines";
import { Announcer } from "@/ui/announcer";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import { PressButton } from "@/ui/press-button";
import { READING_FONT } from "@/ui/theme";
import { DeskPaper } from "@/ui/desk-paper";
import type { ChecklistProps } from "../bench/checklist";
import { useBenchKeys } from "../bench/use-bench-keys";
import { DeskColumns } from "./desk-columns";
import { FunctionRun } from "./function-run";
import { FunctionsList } from "./functions-list";
import { secondsByEar, WindByEar } from "./wind-by-ear";
import { useWatch } from "./use-watch";

/** What a machine does beside playing and recording: tried once as found and once as left, in one run of a tape. */
export function FunctionsDesk({ view, onNext, listener }: ChecklistProps) {
  const { job, machine } = view;
  const trials = job.functionTrials ?? [];
  const all = functionsOf(machine);
  const [phase, setPhase] = useState<TrialPhase>(isAnythingTurned(view.adjustments) ? "as left" : "as found");
  const [chosen, choose] = useState<FunctionId | null>(null);
  const [note, setNote] = useState("");
  const [said, say] = useState("");
  const watch = useWatch();
  const [run, timeRun] = useState<number | null>(null);
  const next = all.find((one) => lastTrial(trials, one, phase) === null) ?? null;
  const current = chosen !== null && all.includes(chosen) ? chosen : next;
  const timed = current !== null && functionOf(current).timed === true;

  const heard = listener.live?.wind ?? null;
  const wind = run !== null && heard?.run === run ? heard : null;
  const hasEar = listener.kind === "sound card" && listener.hears;
  const byEar = async () => {
    if (!timed || !hasEar) return;
    watch.clear();
    timeRun(await listener.beginWind());
  };

  const goTo = (one: FunctionId | null) => {
    choose(one);
    watch.clear();
    timeRun(null);
    setNote("");
  };
  const log = async (works: boolean) => {
    if (current === null) return;
    watch.stop();
    // what was timed by hand is what somebody meant
    const seconds = timed ? (watch.seconds() ?? secondsByEar(wind)) : null;
    const trial = {
      id: newId(),
      at: new Date().toISOString(),
      of: current,
      phase,
      works,
      seconds,
      note: note.trim(),
    };
    await changeFunctionTrials(job.id, (before) => [...before, trial]);
    say(`${FUNCTIONS[current].name}: ${works ? "works" : "faulty"}, ${phase}`);
    goTo(null);
  };
  const undo = () => changeFunctionTrials(job.id, (before) => before.slice(0, -1));
  const isNotOnIt = () =>
    current !== null &&
    changeMachine(machine.id, ({ without = [] }) => ({ without: [...without, current] })).then(() =>
      goTo(null),
    );
  const has = (one: string) =>
    changeMachine(machine.id, ({ without = [] }) => ({ without: without.filter((other) => other !== one) }));
  const changePhase = (to: TrialPhase) => {
    setPhase(to);
    goTo(null);
  };
  useBenchKeys({
    "1": () => void log(true),
    "2": () => void log(false),
    "3": () => void isNotOnIt(),
    f: () => changePhase("as found"),
    l: () => changePhase("as left"),
    z: () => void undo(),
    e: () => void byEar(),
    " ": () => timed && watch.toggle(),
  });
  const wornOut = current && whyNoMoreRuns(trials, current, phase);
  const winds = windTimesSay(trials, phase);
  return (
    <DeskColumns
      asideName="Functions of the machine"
      middle={
        <DeskPaper label="Functions">
          <Box role="group" aria-label="When" sx={{ display: "flex", gap: 0.75 }}>
            {TRIAL_PHASES.map((one) => (
              <PressButton key={one} chosen={phase === one} onClick={() => changePhase(one)}>
                {one}
                <KeyCap>{one === "as found" ? "F" : "L"}</KeyCap>
              </PressButton>
            ))}
          </Box>
          {current === null ? (
            <Box role="status" sx={{ fontSize: 34, fontWeight: 750, lineHeight: 1.15 }}>
              Everything was tried {phase}
            </Box>
          ) : (
            <>
              <Box>
                <Box role="status" sx={{ fontSize: 36, fontWeight: 750, lineHeight: 1.15 }}>
                  {FUNCTIONS[current].name}
                </Box>
                <Box sx={{ fontSize: 20, lineHeight: 1.35, mt: 0.5 }}>{FUNCTIONS[current].how}</Box>
                <Box sx={{ color: "text.secondary", fontSize: 17, lineHeight: 1.35, mt: 0.5 }}>
                  Where it is faulty, look first: {FUNCTIONS[current].look}
                </Box>
                {wornOut && <Box sx={{ color: "warning.main", fontWeight: 650, mt: 0.5 }}>{wornOut}</Box>}
              </Box>
              {timed && (
                <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
                  <Box
                    role="timer"
                    aria-label="Watch"
                    sx={{
                      fontFamily: READING_FONT,
                      fontSize: 64,
                      fontWeight: 700,
                      lineHeight: 1,
                      minWidth: 220,
                    }}
                  >
                    {fixed(watch.shown, 1)}
                    {THIN_SPACE}s
                  </Box>
                  <Button
                    size="large"
                    variant={watch.shown > 0 && !watch.runs ? "outlined" : "contained"}
                    onClick={watch.toggle}
                  >
                    {watch.runs ? "Stop the watch" : "Start the watch"}
                    <KeyCap>Space</KeyCap>
                  </Button>
                </Box>
              )}
              {timed && <WindByEar wind={wind} hasEar={hasEar} onBegin={() => void byEar()} />}
              <TextField
                size="small"
                label="What it does, where it is faulty"
                value={note}
                onChange={({ target }) => setNote(target.value.slice(0, 300))}
              />
              <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
                <Button
                  size="large"
                  variant={
                    timed && watch.shown === 0 && secondsByEar(wind) === null ? "outlined" : "contained"
                  }
                  color="success"
                  onClick={() => void log(true)}
                  sx={{ minWidth: 150 }}
                >
                  Works<KeyCap>1</KeyCap>
                </Button>
                <Button
                  size="large"
                  variant="outlined"
                  color="error"
                  onClick={() => void log(false)}
                  sx={{ minWidth: 150 }}
                >
                  Faulty<KeyCap>2</KeyCap>
                </Button>
                <Button size="large" color="inherit" onClick={() => void isNotOnIt()}>
                  This machine has none<KeyCap>3</KeyCap>
                </Button>
              </Box>
            </>
          )}
          {winds && <Box sx={{ fontSize: 17, fontWeight: 600 }}>{winds}</Box>}
          <Box sx={{ mt: "auto" }}>
            <FunctionRun all={all} current={current} trials={trials} onChoose={goTo} />
          </Box>
          <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
            <Button variant={current === null ? "contained" : "outlined"} onClick={onNext}>
              Next station<KeyCap>]</KeyCap>
            </Button>
            {trials.length > 0 && (
              <Button color="inherit" onClick={() => void undo()}>
                Undo the last<KeyCap>Z</KeyCap>
              </Button>
            )}
          </Box>
          <Announcer words={said} />
        </DeskPaper>
      }
    >
      <Card title={`${machine.name}, function by function`} grow>
        <FunctionsList all={all} current={current} trials={trials} onChoose={goTo} />
        {(machine.without ?? []).length > 0 && (
          <Box sx={{ mt: 1.5, color: "text.secondary" }}>
            It has none:
            <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", mt: 0.5 }}>
              {(machine.without ?? []).map((one) => (
                <PressButton key={one} chosen={false} onClick={() => void has(one)}>
                  {FUNCTIONS[one].name}: it has
                </PressButton>
              ))}
            </Box>
          </Box>
        )}
      </Card>
    </DeskColumns>
  );
}
