"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useLiveQuery } from "dexie-react-hooks";
import { Link } from "@/ui/link";
import { useState } from "react";
import { blankNamed, typeWords, type BlankTape } from "@/core/records/blank-tape";
import { deleteBlank, importBlank, saveBlank } from "@/storage/blanks";
import { database } from "@/storage/database";
import { newId } from "@/storage/jobs";
import { ChoiceList } from "@/ui/choice-list";
import { FileButton } from "@/ui/file-button";
import { Notice, type Outcome } from "@/ui/notice";
import { useDiffering } from "../differing-offer";
import { PageFrame } from "../shell/page-frame";
import { BlankEditor } from "./blank-editor";
import { BlankView } from "./blank-view";

/** The library of tapes to record on. */
export function BlanksPage() {
  const blanks = useLiveQuery(() => database.blanks.orderBy("name").toArray(), []);
  const jobs = useLiveQuery(() => database.jobs.toArray(), []) ?? [];
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [editing, setEditing] = useState<BlankTape | null>(null);
  const { offer, offers } = useDiffering();
  const [message, setMessage] = useState<Outcome | null>(null);
  const chosen = blanks?.find(({ id }) => id === chosenId) ?? blanks?.[0];
  const fail = (error: unknown) => setMessage({ severity: "error", text: (error as Error).message });

  const importFile = async (file: File) => {
    try {
      const { blank, differing } = await importBlank(await file.text());
      setChosenId(blank.id);
      setEditing(null);
      offer(differing);
      if (differing.length === 0) setMessage({ severity: "success", text: `Imported ${blank.name}.` });
    } catch (error) {
      fail(new Error(`${file.name}: ${(error as Error).message}`));
    }
  };
  const save = async (blank: BlankTape) => {
    try {
      await saveBlank(blank);
      setEditing(null);
      setChosenId(blank.id);
    } catch (error) {
      fail(error);
    }
  };
  const startNew = () => setEditing({ ...blankNamed(newId(), "new"), name: "", type: "I" });
  return (
    <PageFrame
      title="Tapes"
      actions={
        <>
          <Button color="inherit" component={Link} href="/tapes">
            Reference tapes
          </Button>
          <FileButton
            label="Blank tape file"
            accept=".json,application/json"
            onFile={(file) => void importFile(file)}
          >
            Import
          </FileButton>
          <Button variant="contained" onClick={startNew}>
            New blank tape
          </Button>
        </>
      }
    >
      <Notice outcome={message} onClose={() => setMessage(null)} />
      {offers}
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "330px minmax(0, 1fr)" }, gap: 3 }}>
        <ChoiceList
          label="Blank tapes"
          choices={(blanks ?? []).map((blank) => ({ ...blank, detail: typeWords(blank) }))}
          chosenId={chosen?.id}
          onChoose={(id) => {
            setChosenId(id);
            setEditing(null);
          }}
        />
        {editing ? (
          <BlankEditor
            key={editing.id}
            blank={editing}
            onSave={(blank) => void save(blank)}
            onCancel={() => setEditing(null)}
          />
        ) : chosen ? (
          <BlankView
            blank={chosen}
            jobs={jobs
              .filter(({ blankTapes }) => blankTapes?.some(({ id }) => id === chosen.id))
              .map(({ number }) => number)}
            onEdit={() => setEditing(chosen)}
            onDelete={() =>
              void deleteBlank(chosen.id)
                .then(() => setChosenId(null))
                .catch(fail)
            }
          />
        ) : (
          blanks && (
            <Box sx={{ color: "text.secondary", lineHeight: 1.5 }}>
              No blank tape is written down yet. Enter the two or three that the machines you set are used
              with: a recorder is set for a tape, not for itself.
            </Box>
          )
        )}
      </Box>
    </PageFrame>
  );
}
