"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import { PRESETS } from "@/core/signals/presets";
import type { Sequence } from "@/core/signals/sequence";
import { timelineOf } from "@/core/signals/timeline";
import { database } from "@/storage/database";
import { newId } from "@/storage/jobs";
import { deleteSequence, importSequence, saveSequence } from "@/storage/sequences";
import { ChoiceList } from "@/ui/choice-list";
import { FileButton } from "@/ui/file-button";
import { Notice, type Outcome } from "@/ui/notice";
import { PageFrame } from "../shell/page-frame";
import { SequenceBuilder } from "./sequence-builder";
import { SequenceView } from "./sequence-view";
import { usePlayer } from "./use-player";

/** Test signals: presets for each record station, and sequences of one's own. */
export function SignalsPage() {
  const own = useLiveQuery(() => database.sequences.orderBy("name").toArray(), []);
  const [chosenId, setChosenId] = useState("record-response");
  const [editing, setEditing] = useState<Sequence | null>(null);
  const [message, setMessage] = useState<Outcome | null>(null);
  const player = usePlayer();
  const sequences = [...PRESETS, ...(own ?? [])];
  const chosen = sequences.find(({ id }) => id === chosenId) ?? PRESETS[0];
  const isOwn = own?.some(({ id }) => id === chosen.id) ?? false;

  const save = async (sequence: Sequence) => {
    await saveSequence(sequence);
    setEditing(null);
    setChosenId(sequence.id);
  };
  const importFile = async (file: File) => {
    try {
      const { id, name } = await importSequence(await file.text());
      setChosenId(id);
      setMessage({ severity: "success", text: `Imported ${name}.` });
    } catch (error) {
      setMessage({ severity: "error", text: `${file.name}: ${(error as Error).message}` });
    }
  };
  const startNew = () =>
    setEditing({
      ...PRESETS[0],
      id: newId(),
      name: "",
      description: "",
      segments: [{ kind: "sine", channels: "both", frequencyHz: 1000, levelDb: -12, seconds: 10 }],
    });

  return (
    <PageFrame
      title="Signals"
      actions={
        <>
          <FileButton
            label="Sequence file"
            accept=".json,application/json"
            onFile={(file) => void importFile(file)}
          >
            Import
          </FileButton>
          <Button variant="contained" onClick={startNew}>
            New sequence
          </Button>
        </>
      }
    >
      <Notice outcome={message} onClose={() => setMessage(null)} />
      {player.trouble && (
        <Alert severity="warning" sx={{ mb: 2 }}>
          {player.trouble}
        </Alert>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "290px minmax(0, 1fr)" }, gap: 3 }}>
        <ChoiceList
          label="Sequences"
          choices={sequences.map((sequence) => ({
            id: sequence.id,
            name: sequence.name,
            detail: minutes(timelineOf(sequence).seconds),
          }))}
          chosenId={chosen.id}
          onChoose={(id) => {
            setChosenId(id);
            setEditing(null);
          }}
        />
        {editing ? (
          <SequenceBuilder
            key={editing.id}
            sequence={editing}
            onSave={(sequence) => void save(sequence)}
            onCancel={() => setEditing(null)}
          />
        ) : (
          <SequenceView
            sequence={chosen}
            player={player}
            onEdit={() =>
              setEditing(isOwn ? chosen : { ...chosen, id: newId(), name: `${chosen.name}, my own` })
            }
            editWord={isOwn ? "Change" : "Make my own from it"}
            onDelete={
              isOwn
                ? () => {
                    void deleteSequence(chosen.id);
                    setChosenId(PRESETS[0].id);
                  }
                : null
            }
          />
        )}
      </Box>
    </PageFrame>
  );
}

const minutes = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, "0")}`;
