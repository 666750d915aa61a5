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
import { Link } from "@/ui/link";
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
import { intake } from "@/core/stations/intake";
import { MEANINGS, SYMPTOMS, type Symptom } from "@/core/workshop/symptoms";
import { Card } from "@/ui/card";
import { PressButton } from "@/ui/press-button";
import { EarlierJobs, useEarlierJobs } from "./earlier-jobs";
import { stationHref } from "./job-tape-line";

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
    symptoms: z.array(z.enum(SYMPTOMS)),
    contact: z.string().trim().max(500),
    cameWith: z.string().trim().max(2000),
    wantedBy: z
      .string()
      .refine((day) => day === "" || z.iso.date().safeParse(day).success, "Give a day, or none."),
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
  symptoms: [],
  contact: "",
  cameWith: "",
  wantedBy: "",
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

/** What is written down of a machine that was here before. */
function KnownMachine({ machine }: { machine: Machine }) {
  const { description, toleranceClass, adjusters, parts } = machine;
  const turned = adjusters.filter(({ kind }) => kind === "turn");
  return (
    <Box sx={{ my: 1, lineHeight: 1.45 }}>
      {description && <Box sx={{ fontSize: 18 }}>{description}</Box>}
      <Box>Held to {TOLERANCE_CLASSES[toleranceClass].name.toLowerCase()}.</Box>
      <Box>
        {turned.length === 0
          ? "Nothing that is turned is written down."
          : `Turned: ${turned.map(({ name }) => name).join(", ")}.`}
      </Box>
      <Box>
        {parts.length === 0
          ? "No rotating parts are written down: flutter cannot be named."
          : `Turning parts: ${parts.map(({ name }) => name).join(", ")}.`}
      </Box>
    </Box>
  );
}

/** Intake of a machine. What is typed is kept as a draft until the job is made. */
export function NewJob() {
  const router = useRouter();
  const machines = useLiveQuery(() => database.machines.orderBy("name").toArray(), []);
  const tapes = useLiveQuery(() => database.tapes.orderBy("name").toArray(), []);
  const [ready, setReady] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { register, handleSubmit, control, reset, setValue, getValues, formState } = useForm<Form>({
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

  const knownId = values.machineId && values.machineId !== ANOTHER ? values.machineId : null;
  const before = useEarlierJobs(knownId, values.contact);
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
      ...(form.symptoms.length > 0 && { symptoms: form.symptoms }),
      ...(form.contact && { contact: form.contact }),
      ...(form.cameWith && { cameWith: form.cameWith }),
      ...(form.wantedBy && { wantedBy: form.wantedBy }),
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
      router.push(stationHref(job.id, intake));
    } catch (error) {
      setTrouble(`The job could not be stored: ${(error as Error).message} What you typed is kept here.`);
    }
  });

  const toggle = (one: Symptom) => {
    const symptoms = getValues("symptoms");
    setValue(
      "symptoms",
      symptoms.includes(one) ? symptoms.filter((other) => other !== one) : [...symptoms, one],
      { shouldDirty: true },
    );
  };
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
    <Box component="main" sx={{ px: 2.5, pb: 3 }}>
      <Box sx={{ display: "flex", alignItems: "center", height: 60, gap: 2 }}>
        <Typography variant="h1">New job</Typography>
        <TextField
          label="Job number"
          size="small"
          sx={{ width: 150 }}
          {...register("number")}
          {...error("number")}
        />
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
        sx={{
          display: "grid",
          gap: 1.5,
          gridTemplateColumns: { md: "minmax(0, 1.25fr) minmax(0, 1fr) minmax(0, 1.1fr)" },
          alignItems: "stretch",
        }}
      >
        <Card title="What is wrong">
          <TextField
            label="Complaint, in the owner's words"
            multiline
            minRows={4}
            fullWidth
            margin="dense"
            slotProps={{
              input: { sx: { fontSize: 20, lineHeight: 1.35 } },
              inputLabel: { shrink: true },
            }}
            {...register("complaint")}
            {...error("complaint")}
          />
          <Box
            role="group"
            aria-label="What it means"
            sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, my: 1 }}
          >
            {SYMPTOMS.map((one) => (
              <PressButton key={one} chosen={values.symptoms.includes(one)} onClick={() => toggle(one)}>
                {MEANINGS[one].says}
              </PressButton>
            ))}
          </Box>
          <TextField
            label="Who to call"
            fullWidth
            margin="dense"
            {...register("contact")}
            error={formState.errors.contact !== undefined}
            helperText={
              formState.errors.contact?.message ?? "It stays in this browser, and in files that it exports."
            }
          />
          <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 170px", gap: 1 }}>
            <TextField
              label="What came with it"
              fullWidth
              margin="dense"
              {...register("cameWith")}
              {...error("cameWith")}
            />
            <TextField
              type="date"
              label="Wanted by"
              margin="dense"
              slotProps={{ inputLabel: { shrink: true } }}
              {...register("wantedBy")}
              {...error("wantedBy")}
            />
          </Box>
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
          {machine && <KnownMachine machine={machine} />}
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
        <EarlierJobs found={before} asked={knownId !== null || values.contact.trim() !== ""} />
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
