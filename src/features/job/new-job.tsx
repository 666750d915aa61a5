"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useLiveQuery } from "dexie-react-hooks";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import * as z from "@/core/text/zod";
import type { Job } from "@/core/records/job";
import type { Machine } from "@/core/records/machine";
import { USUAL_WORK } from "@/core/records/usual-work";
import { TAPE_SPEEDS } from "@/core/standards/tape-speeds";
import { TOLERANCE_CLASSES, type ToleranceClass } from "@/core/standards/tolerance-classes";
import { tapesForSpeed } from "@/core/reference/speed-tone";
import { uncertaintyText } from "@/core/reference/reference-tape";
import { database } from "@/storage/database";
import { dropDraft, readDraft, saveDraft } from "@/storage/drafts";
import { createJob, newId, nextJobNumber } from "@/storage/jobs";
import { Card } from "@/ui/card";

const DRAFT = "new-job";
const ANOTHER = "another";

const formSchema = z
  .object({
    number: z.string().trim().min(1, "Give the job a number.").max(40, "At most 40 characters."),
    machineId: z.string().min(1, "Choose the machine."),
    machineName: z.string().trim().max(200),
    toleranceClass: z.enum(Object.keys(TOLERANCE_CLASSES) as [ToleranceClass, ...ToleranceClass[]]),
    adjusterName: z.string().trim().max(200),
    adjusterWhere: z.string().trim().max(2000),
    mono: z.boolean(),
    speedCmPerS: z.coerce.number<number>().min(1).max(100),
    tapeId: z.string().min(1, "Choose the reference tape."),
    /** Other speeds of the machine that are left out of the job. */
    leftOut: z.array(z.number()),
    complaint: z.string().max(20_000),
  })
  .refine(({ machineId, machineName }) => machineId !== ANOTHER || machineName !== "", {
    path: ["machineName"],
    message: "Give the machine a name.",
  });
type Form = z.infer<typeof formSchema>;

const EMPTY: Form = {
  number: "",
  machineId: "",
  machineName: "",
  toleranceClass: "hifi",
  adjusterName: "Speed trimmer",
  adjusterWhere: "",
  mono: false,
  speedCmPerS: 4.76,
  tapeId: "",
  leftOut: [],
  complaint: "",
};

function newMachine(form: Form): Machine {
  return {
    id: newId(),
    name: form.machineName,
    description: "",
    speedsCmPerS: [form.speedCmPerS],
    toleranceClass: form.toleranceClass,
    limits: {},
    flutterMeter: "peak",
    channels: form.mono ? 1 : 2,
    operatingLevel: null,
    parts: [],
    tracks: null,
    adjusters: [
      {
        id: "speed",
        name: form.adjusterName || "Speed trimmer",
        where: form.adjusterWhere,
        sets: "speed",
        kind: "turn",
      },
      { id: "azimuth", name: "Azimuth screw", where: "", sets: "azimuth", kind: "turn" },
      ...USUAL_WORK,
    ],
  };
}

/** Intake of a machine. What is typed is kept as a draft until the job is made. */
export function NewJob() {
  const router = useRouter();
  const machines = useLiveQuery(() => database.machines.orderBy("name").toArray(), []);
  const tapes = useLiveQuery(() => database.tapes.orderBy("name").toArray(), []);
  const [ready, setReady] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { register, handleSubmit, control, reset, setValue, formState } = useForm<Form>({
    resolver: zodResolver(formSchema),
    defaultValues: EMPTY,
  });
  const values = useWatch({ control }) as Form;

  useEffect(() => {
    let gone = false;
    void (async () => {
      const draft = (await readDraft(DRAFT)) as Partial<Form> | undefined;
      const number = await nextJobNumber();
      if (gone) return;
      reset({ ...EMPTY, number, ...draft });
      setReady(true);
    })();
    return () => {
      gone = true;
    };
  }, [reset]);

  useEffect(() => {
    if (ready && formState.isDirty) void saveDraft(DRAFT, values);
  }, [ready, values, formState.isDirty]);

  const machine = machines?.find(({ id }) => id === values.machineId);
  const speeds = machine?.speedsCmPerS ?? TAPE_SPEEDS.map(({ cmPerS }) => cmPerS);
  const fitting = tapesForSpeed(tapes ?? [], Number(values.speedCmPerS));

  const others = speeds
    .filter((speed) => machine && speed !== Number(values.speedCmPerS))
    .flatMap((speedCmPerS) =>
      tapesForSpeed(tapes ?? [], speedCmPerS)
        .slice(0, 1)
        .map((tape) => ({ speedCmPerS, tape })),
    );

  const chooseMachine = (id: string) => {
    const speed = machines?.find((m) => m.id === id)?.speedsCmPerS[0];
    setValue("machineId", id, { shouldDirty: true });
    chooseSpeed(speed ?? Number(values.speedCmPerS));
  };
  const chooseSpeed = (speed: number) => {
    setValue("speedCmPerS", speed, { shouldDirty: true });
    const tape = (tapes ?? []).find((t) => t.id === values.tapeId);
    if (tape?.speedCmPerS !== speed)
      setValue("tapeId", tapesForSpeed(tapes ?? [], speed).at(0)?.id ?? "", { shouldDirty: true });
  };

  const save = handleSubmit(async (form) => {
    const added = form.machineId === ANOTHER ? newMachine(form) : null;
    const now = new Date().toISOString();
    const job: Job = {
      id: newId(),
      number: form.number,
      machineId: added?.id ?? form.machineId,
      tapeId: form.tapeId,
      speedCmPerS: form.speedCmPerS,
      otherSpeeds: others
        .filter(({ speedCmPerS }) => !form.leftOut.includes(speedCmPerS))
        .map(({ speedCmPerS, tape }) => ({ speedCmPerS, tapeId: tape.id })),
      complaint: form.complaint,
      notes: "",
      done: {},
      waiting: null,
      finishedAt: null,
      createdAt: now,
      updatedAt: now,
    };
    try {
      await createJob(job, added);
      await dropDraft(DRAFT);
      router.push(`/jobs/${job.id}/bench/speed`);
    } catch (error) {
      setTrouble(`The job could not be stored: ${(error as Error).message} What you typed is kept here.`);
    }
  });

  const startAgain = async () => {
    await dropDraft(DRAFT);
    reset({ ...EMPTY, number: await nextJobNumber() });
  };
  const error = (name: keyof Form) => ({
    error: formState.errors[name] !== undefined,
    helperText: formState.errors[name]?.message,
  });

  if (!ready || !machines || !tapes) return <Box sx={{ p: 6, color: "text.secondary" }}>Opening…</Box>;
  return (
    <Box component="main" sx={{ maxWidth: 980, mx: "auto", px: 3, pb: 6 }}>
      <Box sx={{ display: "flex", alignItems: "center", height: 68, gap: 2 }}>
        <Typography variant="h1">New job</Typography>
        <Box sx={{ flex: 1 }} />
        <Button component={Link} href="/" color="inherit">
          Floor
        </Button>
      </Box>
      {trouble && <Alert severity="error">{trouble}</Alert>}
      <Box
        component="form"
        onSubmit={save}
        noValidate
        sx={{ display: "grid", gap: 2, gridTemplateColumns: { md: "1fr 1fr" }, alignItems: "start" }}
      >
        <Card title="What is wrong">
          <TextField
            label="Complaint, in the owner's words"
            multiline
            minRows={6}
            fullWidth
            margin="dense"
            {...register("complaint")}
            {...error("complaint")}
          />
          <TextField
            label="Job number"
            margin="dense"
            fullWidth
            {...register("number")}
            {...error("number")}
          />
        </Card>
        <Card title="Machine and tape">
          <TextField
            select
            label="Machine"
            fullWidth
            margin="dense"
            value={values.machineId}
            onChange={(event) => chooseMachine(event.target.value)}
            {...error("machineId")}
          >
            {machines.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
            <MenuItem value={ANOTHER}>Another machine…</MenuItem>
          </TextField>
          {values.machineId === ANOTHER && (
            <Box sx={{ borderLeft: 3, borderColor: "primary.main", pl: 2, my: 1 }}>
              <TextField
                label="Name of the machine"
                fullWidth
                margin="dense"
                {...register("machineName")}
                {...error("machineName")}
              />
              <TextField
                select
                label="Held to"
                fullWidth
                margin="dense"
                value={values.toleranceClass}
                onChange={(event) =>
                  setValue("toleranceClass", event.target.value as ToleranceClass, { shouldDirty: true })
                }
              >
                {Object.entries(TOLERANCE_CLASSES).map(([id, c]) => (
                  <MenuItem key={id} value={id}>
                    {c.name}: speed ±{c.speedErrorPercent} %, flutter {c.weightedPeakFlutterPercent} %
                  </MenuItem>
                ))}
              </TextField>
              <TextField label="What sets the speed" fullWidth margin="dense" {...register("adjusterName")} />
              <TextField label="Where it sits" fullWidth margin="dense" {...register("adjusterWhere")} />
              <FormControlLabel
                label="Mono: azimuth by the loudest point"
                control={
                  <Checkbox
                    checked={values.mono ?? false}
                    onChange={({ target }) => setValue("mono", target.checked, { shouldDirty: true })}
                  />
                }
              />
            </Box>
          )}
          <TextField
            select
            label="Tape speed"
            fullWidth
            margin="dense"
            value={values.speedCmPerS}
            onChange={(event) => chooseSpeed(Number(event.target.value))}
          >
            {speeds.map((speed) => (
              <MenuItem key={speed} value={speed}>
                {speed} cm/s ({TAPE_SPEEDS.find(({ cmPerS }) => cmPerS === speed)?.inchesPerS ?? "?"} in/s)
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="Reference tape"
            fullWidth
            margin="dense"
            value={fitting.some(({ id }) => id === values.tapeId) ? values.tapeId : ""}
            onChange={(event) => setValue("tapeId", event.target.value, { shouldDirty: true })}
            {...error("tapeId")}
            helperText={
              formState.errors.tapeId?.message ??
              (fitting.length === 0
                ? "There is no tape for this speed yet; choose another speed."
                : undefined)
            }
          >
            {fitting.map((tape) => (
              <MenuItem key={tape.id} value={tape.id}>
                {tape.name}, ±{uncertaintyText(tape)} %
              </MenuItem>
            ))}
          </TextField>
          {others.map(({ speedCmPerS, tape }) => (
            <FormControlLabel
              key={speedCmPerS}
              label={`Also at ${speedCmPerS} cm/s, with ${tape.name}`}
              control={
                <Checkbox
                  checked={!values.leftOut.includes(speedCmPerS)}
                  onChange={(_, checked) =>
                    setValue(
                      "leftOut",
                      checked
                        ? values.leftOut.filter((speed) => speed !== speedCmPerS)
                        : [...values.leftOut, speedCmPerS],
                      { shouldDirty: true },
                    )
                  }
                />
              }
            />
          ))}
        </Card>
        <Box sx={{ gridColumn: "1 / -1", display: "flex", gap: 2 }}>
          <Button type="submit" variant="contained" size="large">
            Start the job
          </Button>
          <Button color="inherit" onClick={() => void startAgain()}>
            Clear
          </Button>
          <Box sx={{ alignSelf: "center", color: "text.secondary" }}>
            Kept as you type, until you start it or clear it.
          </Box>
        </Box>
      </Box>
    </Box>
  );
}
