"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import type { Machine } from "@/core/records/machine";
import { newMachine } from "@/core/records/new-machine";
import { writeMachineJson } from "@/core/formats/machine-json";
import { database } from "@/storage/database";
import { newId } from "@/storage/jobs";
import { deleteMachine, importMachine, saveMachine } from "@/storage/machines";
import { ChoiceList } from "@/ui/choice-list";
import { FileButton } from "@/ui/file-button";
import { Notice, type Outcome } from "@/ui/notice";
import { download } from "../job/download";
import { useDiffering } from "../differing-offer";
import { PageFrame } from "../shell/page-frame";
import { Known } from "./known";
import { MachineEditor } from "./machine-editor";
import { UndersidePlan } from "./underside-plan";
import { RateRuler } from "./rate-ruler";

/** The machines that were met so far: speeds, limits, rotating parts. */
export function MachinesPage() {
  const machines = useLiveQuery(() => database.machines.orderBy("name").toArray(), []);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [editing, setEditing] = useState<Machine | null>(null);
  const { offer, offers } = useDiffering();
  const [message, setMessage] = useState<Outcome | null>(null);
  const chosen = machines?.find(({ id }) => id === chosenId) ?? machines?.[0];
  const attempt = async (work: () => Promise<void>, about = "") => {
    try {
      await work();
    } catch (error) {
      setMessage({ severity: "error", text: about + (error as Error).message });
    }
  };
  return (
    <PageFrame
      title="Machines"
      actions={
        <>
          <FileButton
            label="Machine file"
            accept=".json,application/json"
            onFile={(file) =>
              void attempt(async () => {
                const { machine, differing } = await importMachine(await file.text());
                setChosenId(machine.id);
                setEditing(null);
                offer(differing);
                if (differing.length === 0)
                  setMessage({ severity: "success", text: `Imported ${machine.name}.` });
              }, `${file.name}: `)
            }
          >
            Import
          </FileButton>
          <Button variant="contained" onClick={() => setEditing(newMachine(newId()))}>
            New machine
          </Button>
        </>
      }
    >
      <Notice outcome={message} onClose={() => setMessage(null)} />
      {offers}
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "240px minmax(0, 1fr)" }, gap: 3 }}>
        <ChoiceList
          label="Machines"
          choices={machines ?? []}
          chosenId={editing ? undefined : chosen?.id}
          onChoose={(id) => {
            setChosenId(id);
            setEditing(null);
          }}
        />
        {editing ? (
          <MachineEditor
            key={editing.id}
            machine={editing}
            onCancel={() => setEditing(null)}
            onSave={(machine) =>
              void attempt(async () => {
                await saveMachine(machine);
                setEditing(null);
                setChosenId(machine.id);
              })
            }
          />
        ) : chosen ? (
          <MachineView
            machine={chosen}
            onEdit={() => setEditing(chosen)}
            onDelete={() =>
              void attempt(async () => {
                await deleteMachine(chosen.id);
                setChosenId(null);
              })
            }
          />
        ) : (
          machines && <Typography>No machine yet: enter one, import one, or begin a job.</Typography>
        )}
      </Box>
    </PageFrame>
  );
}

function MachineView({ machine, onEdit, onDelete }: { machine: Machine; onEdit(): void; onDelete(): void }) {
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography component="h2" variant="h1" sx={{ overflowWrap: "anywhere" }}>
        {machine.name}
      </Typography>
      <Typography sx={{ color: "text.secondary", mb: 1.5 }}>
        {[machine.description, `${machine.speedsCmPerS.join(", ")} cm/s`, `class: ${machine.toleranceClass}`]
          .filter(Boolean)
          .join(" ")}
      </Typography>
      <UndersidePlan machine={machine} />
      <Known machine={machine} />
      {machine.parts.length === 0 ? (
        <Typography sx={{ mb: 2 }}>
          No rotating parts entered. With their diameters, or their turns counted, the flutter station names
          the part that a line belongs to.
        </Typography>
      ) : (
        machine.speedsCmPerS.map((speed) => (
          <Box key={speed} sx={{ mb: 2 }}>
            <Typography component="h3" variant="h3" sx={{ color: "text.secondary", mb: 0.5 }}>
              Turns per second at {speed} cm/s
            </Typography>
            <RateRuler parts={machine.parts} speedCmPerS={speed} firstSpeedCmPerS={machine.speedsCmPerS[0]} />
          </Box>
        ))
      )}
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="outlined" onClick={onEdit}>
          Change
        </Button>
        <Button
          color="inherit"
          onClick={() =>
            download(`${machine.id}.machine.json`, writeMachineJson(machine), "application/json")
          }
        >
          Export
        </Button>
        <Button color="inherit" onClick={onDelete}>
          Delete
        </Button>
      </Box>
    </Box>
  );
}
