"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useLiveQuery } from "dexie-react-hooks";
import TextField from "@mui/material/TextField";
import { useCallback, useState } from "react";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { CLIP_KINDS, clipsOf, keepClip, type ClipKind } from "@/storage/clips";
import type { Recording } from "@/storage/database";
import { changeJob } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { DeskPaper } from "@/ui/desk-paper";
import { useKeptText } from "../job/use-kept-text";
import { KeyCap } from "@/ui/key-cap";
import { PressButton } from "@/ui/press-button";
import type { ChecklistProps } from "../bench/checklist";
import { useBenchKeys } from "../bench/use-bench-keys";
import { EvidenceButton } from "../sound/evidence-button";
import { BlindTrial } from "./blind-trial";
import { DeskColumns } from "./desk-columns";
import { PicturesCard } from "./pictures-card";
import { TicksCard } from "./ticks-card";
import { useHeardPair } from "./use-heard-pair";

const CLIP_SECONDS = 30;
/** Less of a passage is not compared. */
const LEAST_SECONDS = 5;
const PAIRS: ReadonlyArray<readonly [ClipKind, ClipKind]> = [
  ["as found", "as left"],
  ["source", "tape"],
];

/** The same half-minute as found and as left, or of the source and off the tape: compared by ear, equally loud. */
export const ListeningDesk = (props: ChecklistProps) => (
  <DeskColumns middle={<Compared {...props} />} asideName="Final checks">
    <TicksCard {...props} />
    <PicturesCard
      jobId={props.view.job.id}
      of="picturesAfter"
      ids={props.view.job.picturesAfter ?? []}
      title="As it goes out"
      none="No picture of it as it goes out"
      shows="the machine as it goes out"
    />
    <ForOwner view={props.view} />
  </DeskColumns>
);

/** What stands on the first page of the sheet beside what Unzel knows. */
function ForOwner({ view: { job } }: Pick<ChecklistProps, "view">) {
  const words = useKeptText(
    `owner-words-${job.id}`,
    job.ownerWords ?? "",
    useCallback((text: string) => changeJob(job.id, { ownerWords: text.slice(0, 3000) }), [job.id]),
  );
  return (
    <Card title="For the owner, on the sheet's first page">
      <TextField
        fullWidth
        multiline
        size="small"
        margin="dense"
        label="To be minded"
        {...words}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <TextField
        fullWidth
        size="small"
        margin="dense"
        type="date"
        label="To be looked at again by"
        value={job.nextCheck ?? ""}
        onChange={({ target }) => void changeJob(job.id, { nextCheck: target.value || null })}
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </Card>
  );
}

function Compared({ view: { job }, listener }: ChecklistProps) {
  const clips = useLiveQuery(() => clipsOf(job.id), [job.id]) ?? {};
  const [pairAt, setPair] = useState(0);
  const [blind, setBlind] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const ear = useHeardPair();
  const pair = PAIRS[pairAt];
  const [a, b] = pair.map((kind) => clips[kind]);
  const keep = async (kind: ClipKind) => {
    setTrouble(null);
    const clip = await listener.clip(CLIP_SECONDS);
    if (!clip || clip.seconds < LEAST_SECONDS)
      return setTrouble(
        "Less than five seconds were heard: start a source below and let it play for half a minute.",
      );
    try {
      await keepClip(job.id, kind, clip);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  const play = (first: 0 | 1) => a && b && void ear.play([a, b], first);
  const swap = () => (ear.heard === null ? play(0) : ear.hear(ear.heard === 0 ? 1 : 0));
  useBenchKeys({ " ": () => !blind && swap(), x: ear.stop });
  return (
    <DeskPaper label="Compared by ear">
      <Box role="group" aria-label="What is compared" sx={{ display: "flex", gap: 0.75, flexWrap: "wrap" }}>
        {PAIRS.map(([first, second], i) => (
          <PressButton
            key={first}
            chosen={i === pairAt}
            onClick={() => {
              ear.stop();
              setPair(i);
            }}
          >
            {first} and {second}
          </PressButton>
        ))}
        <Box sx={{ flex: 1 }} />
        <PressButton
          chosen={blind}
          disabled={!a || !b}
          onClick={() => {
            ear.stop();
            setBlind(!blind);
          }}
        >
          blind
        </PressButton>
      </Box>
      {(trouble ?? ear.trouble) && <Alert severity="error">{trouble ?? ear.trouble}</Alert>}
      {blind && a && b ? (
        <BlindTrial key={pairAt} pair={[a, b]} names={pair} ear={ear} />
      ) : (
        <>
          <Box sx={{ display: "grid", gridTemplateColumns: { sm: "1fr 1fr" }, gap: 1.5 }}>
            {pair.map((kind, i) => (
              <Clip
                key={kind}
                kind={kind}
                clip={clips[kind] ?? null}
                isHeard={ear.heard === i}
                canPlay={a !== undefined && b !== undefined}
                onHear={() => (ear.heard === null ? play(i as 0 | 1) : ear.hear(i as 0 | 1))}
                onKeep={() => void keep(kind)}
              />
            ))}
          </Box>
          <Box role="status" sx={{ fontSize: 19, fontWeight: 600, lineHeight: 1.35 }}>
            {ear.heard === null
              ? a && b
                ? "Space plays them; Space again changes over, without a gap."
                : `Play the passage below, and keep its last half-minute under “${!a ? pair[0] : pair[1]}” when it has gone by.`
              : `${pair[ear.heard]} is heard. ${ear.says ?? ""}`}
          </Box>
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button variant="contained" size="large" disabled={!a || !b} onClick={swap}>
              {ear.heard === null ? "Play both" : "The other"}
              <KeyCap>Space</KeyCap>
            </Button>
            <Button color="inherit" disabled={ear.heard === null} onClick={ear.stop}>
              Stop<KeyCap>X</KeyCap>
            </Button>
          </Box>
        </>
      )}
      <Box sx={{ mt: "auto", color: "text.secondary" }}>
        Kept: {CLIP_KINDS.filter((kind) => clips[kind]).join(", ") || "nothing yet"}. They go with the job
        into its archive.
      </Box>
    </DeskPaper>
  );
}

interface ClipProps {
  kind: ClipKind;
  clip: Recording | null;
  isHeard: boolean;
  canPlay: boolean;
  onHear(): void;
  onKeep(): void;
}

function Clip({ kind, clip, isHeard, canPlay, onHear, onKeep }: ClipProps) {
  return (
    <Box
      component="article"
      aria-label={kind}
      sx={{
        border: 2,
        borderColor: isHeard ? "primary.main" : "divider",
        borderRadius: 1,
        p: 1.5,
        display: "flex",
        flexDirection: "column",
        gap: 1,
        minHeight: 190,
      }}
    >
      <Box sx={{ fontSize: 30, fontWeight: 750, lineHeight: 1.1 }}>
        {kind}
        {isHeard && ": heard"}
      </Box>
      <Box sx={{ flex: 1, lineHeight: 1.4 }}>
        {clip ? (
          <>
            {fixed(clip.seconds, 0)}
            {THIN_SPACE}s, kept{" "}
            {new Date(clip.at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
            <EvidenceButton recordingId={clip.id} />
          </>
        ) : (
          "Not kept yet."
        )}
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        {canPlay && (
          <Button variant={isHeard ? "contained" : "outlined"} onClick={onHear}>
            Hear this
          </Button>
        )}
        <Button variant={clip ? "text" : "contained"} color={clip ? "inherit" : "primary"} onClick={onKeep}>
          {clip ? "Keep anew" : "Keep the last half-minute"}
        </Button>
      </Box>
    </Box>
  );
}
