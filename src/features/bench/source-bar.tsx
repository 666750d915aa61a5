"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { LiveChannel } from "@/core/measure/live-transport";
import { memo, useState, type RefObject } from "react";
import { FileButton } from "@/ui/file-button";
import { KeyCap } from "@/ui/key-cap";
import { READING_FONT, token } from "@/ui/theme";
import { SignalCheckDialog } from "./signal-check-dialog";
import type { ListenerState } from "./listening/use-listener";

interface SourceBarProps {
  listener: ListenerState;
  firstButton: RefObject<HTMLButtonElement | null>;
  guideOn: boolean;
  /** The tone is compared with itself, before and after the tape: it need not be one of the reference tape. */
  anyTone: boolean;
  onGuide(): void;
  onPractice(): void;
}

const NAMES = { practice: "Practice machine", file: "File", "sound card": "Sound card" };

/** What Unzel listens to, how loud it is, and whether it is sound. */
export function SourceBar({ listener, firstButton, guideOn, anyTone, onGuide, onPractice }: SourceBarProps) {
  const { kind, live, heard, progress, check, stop, startSoundCard, measureFile } = listener;
  const [checking, setChecking] = useState(false);
  const problem = problemOf(listener, anyTone);
  return (
    <Box
      component="footer"
      aria-label="Source"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1,
        px: 2.5,
        py: 0.75,
        "& .MuiButton-root": { px: 1, minWidth: 0, flexShrink: 0 },
        minHeight: 58,
        borderTop: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
        flexWrap: { xs: "wrap", lg: "nowrap" },
      }}
    >
      <Box sx={{ fontWeight: 700 }}>{kind ? NAMES[kind] : "No source"}</Box>
      {kind === "file" && heard && <Box sx={{ color: "text.secondary" }}>{heard.source.name}</Box>}
      {progress !== null && (
        <>
          <Box sx={{ width: 180 }}>
            <LinearProgress variant="determinate" value={100 * progress} aria-label="Measuring the file" />
          </Box>
          <Button size="small" onClick={() => void stop()}>
            Cancel
          </Button>
        </>
      )}
      {live && <Levels channels={live.channels} />}
      {live?.band && (
        <Box
          sx={{
            color: "text.secondary",
            whiteSpace: "nowrap",
            minWidth: 0,
            overflow: "hidden",
            textOverflow: "ellipsis",
          }}
        >
          {live.band.sequence ? `${live.band.sequence}, part` : "band"} {live.band.index + 1}:{" "}
          <b>{live.band.name}</b>
        </Box>
      )}
      <Box
        role="status"
        sx={{
          flex: 1,
          minWidth: 90,
          color: problem ? "warning.main" : "success.main",
          fontWeight: 600,
          lineHeight: 1.25,
          // two lines here, all of it under Check
          display: "-webkit-box",
          WebkitLineClamp: 2,
          WebkitBoxOrient: "vertical",
          overflow: "hidden",
        }}
      >
        {problem ?? (heard ? "signal sound" : "")}
      </Box>
      {check && (
        <Button color="inherit" onClick={() => setChecking(true)}>
          Check
        </Button>
      )}
      {checking && (
        <SignalCheckDialog listener={listener} report={check} open onClose={() => setChecking(false)} />
      )}
      <SourceButtons
        stoppable={kind !== null && progress === null}
        firstButton={firstButton}
        onStop={stop}
        onSoundCard={startSoundCard}
        onFile={measureFile}
        guideOn={guideOn}
        onGuide={onGuide}
        onPractice={onPractice}
      />
    </Box>
  );
}

/** What is wrong: first nothing to hear, then no tone, then a doubtful tape, then what the check noticed. */
function problemOf({ heard, check, live }: ListenerState, anyTone: boolean): string | undefined {
  const faults = check?.findings.filter(({ state }) => state === "fault") ?? [];
  const silent = faults.find(({ check: name }) => name === "arrives");
  if (silent) return `${silent.says}: ${silent.advice}`;
  const [fault] = faults;
  if (anyTone && (heard?.comparison?.hears || heard?.returned || heard?.recording || live?.sequencePlays))
    return fault && `${fault.says}. ${fault.advice}`;
  // a band of the tape plays, if not the one for speed
  if (live?.band && !live.sequencePlays && (heard?.playback?.playing || live.band.kind !== "tone"))
    return undefined;
  return heard?.problems[0] ?? live?.tapeDoubt ?? (fault && `${fault.says}. ${fault.advice}`) ?? undefined;
}

interface SourceButtonsProps {
  stoppable: boolean;
  firstButton: RefObject<HTMLButtonElement | null>;
  guideOn: boolean;
  onGuide(): void;
  onStop(): void;
  onSoundCard(): void;
  onFile(file: File): void;
  onPractice(): void;
}

const SourceButtons = memo(function SourceButtons({
  stoppable,
  firstButton,
  guideOn,
  onGuide,
  onStop,
  onSoundCard,
  onFile,
  onPractice,
}: SourceButtonsProps) {
  return (
    <>
      {stoppable && (
        <>
          <Button
            color="inherit"
            variant={guideOn ? "outlined" : "text"}
            aria-pressed={guideOn}
            onClick={onGuide}
          >
            Guide tone<KeyCap>G</KeyCap>
          </Button>
          <Button color="inherit" onClick={onStop}>
            Stop
          </Button>
        </>
      )}
      <Button ref={firstButton} color="inherit" onClick={onSoundCard}>
        Sound card
      </Button>
      <FileButton label="Sound file" accept=".wav,.flac,audio/wav,audio/x-wav,audio/flac" onFile={onFile}>
        File…
      </FileButton>
      <Button color="inherit" onClick={onPractice}>
        Practice<KeyCap>P</KeyCap>
      </Button>
    </>
  );
});

const FLOOR_DB = -60;

function Levels({ channels }: { channels: LiveChannel[] }) {
  return (
    <Box sx={{ display: "grid", gap: 0.25 }}>
      {channels.slice(0, 2).map(({ channel, peakDbfs }, i) => (
        <Box
          key={channel}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 1,
            color: token(i === 0 ? "left" : "right"),
            fontSize: 13,
            lineHeight: 1,
          }}
        >
          <svg width={10} height={10} aria-hidden>
            {i === 0 ? (
              <circle cx={5} cy={5} r={5} fill="currentColor" />
            ) : (
              <rect width={10} height={10} fill="currentColor" />
            )}
          </svg>
          <Box sx={{ width: 36 }}>{channel}</Box>
          <Box sx={{ width: { xs: 80, md: 110 }, height: 9, border: 1, borderColor: "divider" }}>
            <Box
              sx={{ height: "100%", bgcolor: "currentColor" }}
              style={{ width: `${Math.max(0, Math.min(100, 100 * (1 - peakDbfs / FLOOR_DB)))}%` }}
            />
          </Box>
          <Box
            role="meter"
            aria-label={`Level ${channel}`}
            aria-valuenow={Number(peakDbfs.toFixed(1))}
            aria-valuemin={-200}
            aria-valuemax={0}
            aria-valuetext={`${fixed(peakDbfs, 1)} dBFS`}
            sx={{ fontFamily: READING_FONT, minWidth: 82, color: "text.secondary" }}
          >
            {fixed(peakDbfs, 1)}
            {THIN_SPACE}dBFS
          </Box>
        </Box>
      ))}
    </Box>
  );
}
