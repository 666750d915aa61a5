"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { startComparison, type WorkerOf } from "@/workers/start-worker";
import type { ComparisonApi } from "@/workers/comparison.worker";
import { Card } from "@/ui/card";
import { FileButton } from "@/ui/file-button";
import { WatchChart } from "@/ui/watch-chart";
import { typedNumber } from "@/core/text/typed-number";
import { NumberField } from "@/ui/number-field";
import { SpeedAnswer } from "./speed-answer";

const SOUND = ".wav,.flac,audio/wav,audio/x-wav,audio/flac";

/** Runs one comparison at a time in a worker; cancelling ends the worker. */
function useComparison<T>() {
  const worker = useRef<WorkerOf<ComparisonApi> | null>(null);
  const [state, setState] = useState<{ busy: boolean; result: T | null; trouble: string | null }>({
    busy: false,
    result: null,
    trouble: null,
  });
  const end = () => {
    worker.current?.end();
    worker.current = null;
  };
  useEffect(() => end, []);
  const run = async (work: (api: WorkerOf<ComparisonApi>["api"]) => Promise<T>) => {
    end();
    const mine = startComparison();
    worker.current = mine;
    setState({ busy: true, result: null, trouble: null });
    try {
      const result = await work(mine.api);
      if (worker.current === mine) setState({ busy: false, result, trouble: null });
    } catch (error) {
      if (worker.current === mine) setState({ busy: false, result: null, trouble: (error as Error).message });
    }
  };
  const cancel = () => {
    end();
    setState({ busy: false, result: null, trouble: null });
  };
  return { ...state, run, cancel };
}

interface AnswerProps {
  comparison: { busy: boolean; trouble: string | null; cancel(): void };
  /** Null while nothing was compared; without a speed when there is none to be had. */
  result: { speedErrorPercent: number | null; uncertaintyPercent: number | null } | null;
  method: string;
  fileName: string;
  seconds?: number;
  /** Said before anything is compared, and when no speed could be told. */
  hint: string;
  refusal: string;
  /** Said beside a speed. */
  children: ReactNode;
}

/** The work while it is done, then a speed with what belongs to it, or the reason why there is none. */
function Answer({ comparison, result, method, fileName, seconds = 0, hint, refusal, children }: AnswerProps) {
  const { busy, trouble, cancel } = comparison;
  if (busy)
    return (
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", mt: 1 }}>
        <LinearProgress sx={{ flex: 1 }} aria-label="Comparing" />
        <Button onClick={cancel}>Cancel</Button>
      </Box>
    );
  if (trouble) return <Alert severity="error">{trouble}</Alert>;
  if (!result) return <Typography sx={{ color: "text.secondary", mt: 1 }}>{hint}</Typography>;
  if (result.speedErrorPercent === null || result.uncertaintyPercent === null)
    return <Alert severity="warning">{refusal}</Alert>;
  return (
    <>
      <SpeedAnswer
        errorPercent={result.speedErrorPercent}
        uncertaintyPercent={result.uncertaintyPercent}
        method={method}
        source={{ kind: "file", name: fileName }}
        seconds={seconds}
      />
      {children}
    </>
  );
}

/** Music on the tape against another copy of the same recording. */
export function MatchRule() {
  const [mine, setMine] = useState<File | null>(null);
  const [other, setOther] = useState<File | null>(null);
  const comparison = useComparison<Awaited<ReturnType<ComparisonApi["match"]>>>();
  const { result, run } = comparison;
  return (
    <Card title="Music against another copy of the same recording">
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        <FileButton variant="outlined" label="Recording of the tape" accept={SOUND} onFile={setMine}>
          {mine?.name ?? "From the tape…"}
        </FileButton>
        <FileButton variant="outlined" label="The other copy" accept={SOUND} onFile={setOther}>
          {other?.name ?? "The other copy…"}
        </FileButton>
        <Button
          variant="contained"
          disabled={!mine || !other || comparison.busy}
          onClick={() => mine && other && void run((api) => api.match(mine, other))}
        >
          Compare
        </Button>
      </Box>
      <Answer
        comparison={comparison}
        result={result}
        method="music against another copy"
        fileName={mine?.name ?? ""}
        seconds={2 * (result?.wander.length ?? 0)}
        hint="Half a minute or more of both; levels, tone and where they begin may differ."
        refusal={result?.warnings.join(" ") ?? ""}
      >
        {result && result.wander.length > 2 && (
          <WatchChart
            label="wander of the speed, %"
            stepSeconds={2}
            values={result.wander.map(({ percent }) => percent)}
            window={null}
            marks={[]}
            height={90}
          />
        )}
        <Note>The other copy’s own speed is not in the uncertainty. {result?.warnings.join(" ")}</Note>
      </Answer>
    </Card>
  );
}

/** Mains hum that was recorded with the programme. */
export function HumRule() {
  const [mains, setMains] = useState<50 | 60>(50);
  const comparison = useComparison<Awaited<ReturnType<ComparisonApi["hum"]>>>();
  const { result, run } = comparison;
  const [name, setName] = useState("");
  return (
    <Card title="Mains hum recorded on the tape">
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        <ToggleButtonGroup
          exclusive
          aria-label="Mains where it was recorded"
          value={mains}
          onChange={(_, chosen: 50 | 60 | null) => chosen && setMains(chosen)}
        >
          {([50, 60] as const).map((hz) => (
            <ToggleButton key={hz} value={hz} sx={{ minHeight: 44, textTransform: "none" }}>
              {hz} Hz
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <FileButton
          variant="outlined"
          label="Recording with hum"
          accept={SOUND}
          onFile={(file) => {
            setName(file.name);
            void run((api) => api.hum(file, mains));
          }}
        >
          Recording…
        </FileButton>
        <span>{name}</span>
      </Box>
      <Answer
        comparison={comparison}
        result={result}
        method="mains hum on the tape"
        fileName={name}
        hint="A quiet passage of a minute. Hum of the player itself is passed over."
        refusal="No hum of the recording’s own is heard within 9 % of the mains; the player’s own hum does not count."
      >
        <Note>Read at {result?.lineHz?.toFixed(3)} Hz. Mains wander by about a fifth of a per cent.</Note>
      </Answer>
    </Card>
  );
}

/** Sustained notes against concert pitch. */
export function TuningRule() {
  const [pitch, setPitch] = useState("440");
  const [name, setName] = useState("");
  const comparison = useComparison<Awaited<ReturnType<ComparisonApi["tuning"]>>>();
  const { result, run } = comparison;
  const concertHz = typedNumber(pitch);
  return (
    <Card title="Concert pitch of sustained notes">
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        <NumberField label="A is, Hz" value={pitch} onChange={setPitch} width={100} />
        <FileButton
          variant="outlined"
          label="Recording of music"
          accept={SOUND}
          onFile={(file) => {
            setName(file.name);
            void run((api) => api.tuning(file, concertHz > 380 && concertHz < 500 ? concertHz : 440));
          }}
        >
          Recording…
        </FileButton>
        <span>{name}</span>
      </Box>
      <Answer
        comparison={comparison}
        result={result}
        method="concert pitch of sustained notes"
        fileName={name}
        hint="The last resort: known only within a semitone, and as well as the players tuned."
        refusal={`The notes do not stand on one scale (${result?.notes ?? 0} sustained notes heard): choose a passage of piano, organ or strings without much vibrato.`}
      >
        <Note>
          Or whole semitones, 6 % each, away from it. Rests on the players having tuned to {concertHz} Hz.
        </Note>
      </Answer>
    </Card>
  );
}

const Note = ({ children }: { children: ReactNode }) => (
  <Typography sx={{ color: "text.secondary" }}>{children}</Typography>
);
