"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import { useEffect, useRef, useState } from "react";
import { inPlace, nameOf, nextToFit, openLines } from "@/core/workshop/strip-down";
import type { StripEntry, StripKind, Trouble } from "@/core/workshop/strip-entry";
import {
  addStripPicture,
  clearTrouble,
  logStripEntry,
  redoStripEntry,
  setApart,
  setFitted,
  setStripLine,
  setTrouble,
  undoStripEntry,
} from "@/storage/strip-down";
import { Announcer } from "@/ui/announcer";
import { KeyCap } from "@/ui/key-cap";
import { PressButton } from "@/ui/press-button";
import { useBenchKeys } from "../bench/use-bench-keys";
import type { JobView } from "../job/use-job-records";
import { KIND_KEYS, KindKeys } from "./kind-keys";
import { nowStored, unstored, unstoredKeys } from "../job/unstored-text";
import { LINE_KEY, OpenEntry } from "./open-entry";
import { PutTogether } from "./put-together";
import { Trays } from "./trays";
import { useAddPicture } from "./use-add-picture";

/** The strip-down log: what comes off, one key each; and the same list backwards when it goes together again. */
export function StripDown({ view, station }: { view: JobView; station: string }) {
  const jobId = view.job.id;
  const log = inPlace(view.stripDown ?? []);
  const open = openLines(log);
  const [together, setTogether] = useState(() => log.some(({ fittedAt, trouble }) => fittedAt ?? trouble));
  const [chosenId, setChosen] = useState<string | null>(null);
  const [undone, setUndone] = useState<StripEntry | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [said, say] = useState("");
  const [freshId, setFresh] = useState<string | null>(null);
  const picker = useRef<HTMLInputElement>(null);
  const pictures = useAddPicture(jobId);
  // lines whose page was gone before they were stored
  useEffect(() => {
    for (const key of unstoredKeys(LINE_KEY)) {
      const text = unstored(key);
      if (text !== null) void setStripLine(key.slice(LINE_KEY.length), text).then(() => nowStored(key, text));
    }
  }, []);
  /** What is only looked at again does not take the keys. */
  const choose = (id: string | null) => {
    setChosen(id);
    setFresh(null);
  };
  const chosen =
    log.find(({ id }) => id === chosenId) ?? (together ? nextToFit(log) : null) ?? log.at(-1) ?? null;

  const off = async (kind: StripKind) => {
    setUndone(null);
    setRefused(null);
    const { id, stored } = logStripEntry(jobId, kind);
    setChosen(id);
    setFresh(id);
    await stored;
    say(`${kind} logged`);
  };
  const undo = async () => {
    const entry = await undoStripEntry(jobId);
    setUndone(entry);
    choose(null);
    say(entry ? `${nameOf(entry)} undone` : "nothing to undo");
  };
  const fit = async (entry: StripEntry | null) => {
    if (!entry) return;
    setRefused(await setFitted(entry.id, entry.fittedAt === null));
    choose(null);
  };
  const trouble = async (entry: StripEntry | null, what: Trouble) => {
    if (!entry || entry.trouble) return;
    await setTrouble(entry.id, what, station);
    choose(null);
  };
  const switchTo = (to: boolean) => {
    setTogether(to);
    choose(null);
    setRefused(null);
  };

  useBenchKeys({
    ...(together
      ? {
          " ": () => void fit(chosen),
          x: () => void trouble(chosen, "missing"),
        }
      : {
          ...Object.fromEntries(KIND_KEYS.map(([key, kind]) => [key, () => void off(kind)])),
          u: () => void setApart(jobId),
          z: () => void undo(),
        }),
    c: () => chosen && picker.current?.click(),
    r: () => switchTo(!together),
  });

  const addPictures = (files: File[]) => {
    if (chosen) void pictures.add(files, (id) => addStripPicture(chosen.id, id));
  };
  const panel = {
    entry: chosen,
    log,
    freshId,
    picker,
    onPictures: addPictures,
    reducing: pictures.isWorking,
  };
  return (
    <Paper
      component="section"
      aria-label="Strip-down log"
      tabIndex={0}
      elevation={0}
      sx={{ border: 1, borderColor: "divider", px: 2, py: 1.25, minHeight: 0, overflowY: { md: "auto" } }}
    >
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap", mb: 1.25 }}>
        <PressButton chosen={!together} onClick={() => switchTo(false)}>
          Take apart
        </PressButton>
        <PressButton chosen={together} disabled={log.length === 0} onClick={() => switchTo(true)}>
          Put together<KeyCap>R</KeyCap>
        </PressButton>
        <Box sx={{ flex: 1 }} />
        <Box sx={{ fontSize: 17, fontWeight: 650 }}>
          {log.length === 0
            ? "nothing is off"
            : open.length === 0
              ? `all ${log.length} back in their places`
              : `${open.length} of ${log.length} to go back`}
        </Box>
      </Box>
      {pictures.trouble && (
        <Alert severity="error" onClose={pictures.clearTrouble} sx={{ mb: 1 }}>
          {pictures.trouble}
        </Alert>
      )}
      {refused && (
        <Alert severity="warning" onClose={() => setRefused(null)} sx={{ mb: 1 }}>
          {refused}
        </Alert>
      )}
      {undone && (
        <Alert
          severity="info"
          onClose={() => setUndone(null)}
          action={
            <Button
              color="inherit"
              onClick={() => {
                setUndone(null);
                void redoStripEntry(undone);
              }}
            >
              Put it back
            </Button>
          }
          sx={{ mb: 1 }}
        >
          Undone: {undone.place}, {nameOf(undone)}.
        </Alert>
      )}
      {together ? (
        <PutTogether
          {...panel}
          onFit={(entry) => void fit(entry)}
          onTrouble={(entry, what) => void trouble(entry, what)}
          onFound={(entry) => void clearTrouble(entry.id)}
        />
      ) : (
        <>
          <KindKeys log={log} onKind={(kind) => void off(kind)} onApart={() => void setApart(jobId)} />
          <OpenEntry
            {...panel}
            canUndo={chosen !== null && chosen.id === log.at(-1)?.id}
            onUndo={() => void undo()}
          />
        </>
      )}
      <Box sx={{ mt: 1.5 }}>
        <Trays log={log} chosenId={chosen?.id ?? null} onChoose={choose} />
      </Box>
      <Announcer words={said} />
    </Paper>
  );
}
