import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { recordedHere } from "@/core/stations/recorded";
import { PRESETS } from "@/core/signals/presets";
import { Send } from "./send";
import { SetZero } from "./set-zero";
import type { PictureProps } from "../stations/picture";

interface RecordStepsProps extends Pick<PictureProps, "bench" | "listener" | "station" | "view"> {
  /** Why nothing can be said yet, where that is not the sequence's alone to say. */
  lacks?: string | null;
  /** The station is about what is switched on. */
  anySwitch?: boolean;
  /** Another preset that is recorded beforehand, by its id. */
  before?: string | null;
  /** What else is chosen beside what is sent. */
  children?: ReactNode;
}

type Step = "record" | "rewind" | "play";
const STEPS: ReadonlyArray<[Step, string]> = [
  ["record", "Record"],
  ["rewind", "Rewind"],
  ["play", "Play"],
];

/** Record, rewind, play: what to press now, and what was heard so far, as large as a number. */
export function RecordSteps({
  bench,
  listener,
  station,
  view,
  children,
  anySwitch,
  before,
  ...props
}: RecordStepsProps) {
  const sequence = PRESETS.find(({ id }) => id === station.hears.sequence);
  const { lacks: missing, recorded } = recordedHere(bench, anySwitch);
  const lacks = props.lacks ?? missing;
  const now = stepNow(bench);
  if (!sequence) return null;
  return (
    <Box sx={{ display: "grid", gap: 0.75 }}>
      {/* what is heard off the tape at once needs no steps */}
      <Box
        role="group"
        aria-label="Steps"
        sx={{ display: view.machine.monitorsTape ? "none" : "flex", gap: 0.75 }}
      >
        {STEPS.map(([step, words], i) => (
          <Box
            key={step}
            aria-current={step === now ? "step" : undefined}
            sx={{
              flex: 1,
              border: 2,
              borderColor: step === now ? "primary.main" : "divider",
              color: step === now ? "text.primary" : "text.secondary",
              borderRadius: 1,
              px: 1.25,
              py: 0.5,
              fontSize: 18,
              fontWeight: step === now ? 750 : 500,
            }}
          >
            {i + 1} {words}
          </Box>
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <Box
          role="status"
          aria-label="Recording"
          sx={{ flex: 1, lineHeight: 1.35, fontWeight: 600, fontSize: 17 }}
        >
          {lacks ?? `Pass ${recorded.at(-1)?.pass.pass} came back whole; nothing was turned since.`}
          {lacks === null && !recorded.at(-1)?.source && (
            <Box component="span" sx={{ fontWeight: 400 }}>
              {" "}
              Re what was sent: monitor the source for one pass to take away what the way there does.
            </Box>
          )}
        </Box>
        <SetZero {...{ listener, view }} />
      </Box>
      <Box sx={{ display: "flex", columnGap: 2, rowGap: 0.75, flexWrap: "wrap", alignItems: "center" }}>
        <Send {...{ listener, station, view, bench, before }} rewindNext={now === "rewind"} />
        {children}
      </Box>
    </Box>
  );
}

/** A recording that is rewound before its end comes back cut. */
function stepNow({ heard }: OnTheBench): Step {
  const last = heard?.returned?.passes.at(-1);
  if (last?.hears === "tape") return "play";
  return last?.hears === "source" && last.whole ? "rewind" : "record";
}
