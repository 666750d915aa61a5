"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useLiveQuery } from "dexie-react-hooks";
import { Link } from "@/ui/link";
import { useState } from "react";
import { writeTapesCsv } from "@/core/formats/tape-csv";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { database } from "@/storage/database";
import { newId } from "@/storage/jobs";
import { deleteTape, importTapes, saveTape } from "@/storage/tapes";
import { ChoiceList } from "@/ui/choice-list";
import { FileButton } from "@/ui/file-button";
import { Notice, type Outcome } from "@/ui/notice";
import { download } from "../job/download";
import { useDiffering } from "../differing-offer";
import { PageFrame } from "../shell/page-frame";
import { TapeEditor } from "./tape-editor";
import { TapeView } from "./tape-view";

const isBuiltIn = (id: string) => BUILT_IN_TAPES.some((tape) => tape.id === id);

/** The library of reference tapes: one's own first, then the layouts that come with Unzel. */
export function TapesPage() {
  const stored = useLiveQuery(() => database.tapes.orderBy("name").toArray(), []);
  const tapes = stored?.toSorted((a, b) => Number(isBuiltIn(a.id)) - Number(isBuiltIn(b.id)));
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [editing, setEditing] = useState<ReferenceTape | null>(null);
  const { offer, offers } = useDiffering();
  const [message, setMessage] = useState<Outcome | null>(null);
  const chosen = tapes?.find(({ id }) => id === chosenId) ?? tapes?.[0];
  const builtIn = chosen !== undefined && isBuiltIn(chosen.id);

  const fail = (error: unknown) => setMessage({ severity: "error", text: (error as Error).message });
  const importFile = async (file: File) => {
    try {
      const { tapes: imported, differing } = await importTapes(file.name, await file.text());
      setChosenId(imported[0].id);
      setEditing(null);
      offer(differing);
      const added = imported.filter(({ id }) => !differing.some(({ record }) => record.id === id));
      if (added.length > 0)
        setMessage({ severity: "success", text: `Imported ${added.map(({ name }) => name).join(", ")}.` });
    } catch (error) {
      fail(new Error(`${file.name}: ${(error as Error).message}`));
    }
  };
  const save = async (tape: ReferenceTape) => {
    try {
      await saveTape(tape);
      setEditing(null);
      setChosenId(tape.id);
    } catch (error) {
      fail(error);
    }
  };
  const startNew = () =>
    setEditing({
      format: "unzel-reference-tape",
      version: 1,
      id: newId(),
      name: "",
      speedCmPerS: 4.76,
      equalisation: "3180/120",
      frequencyUncertaintyPercent: 0.3,
      bands: [{ kind: "tone", role: "speed", frequencyHz: 3150, levelDb: 0, seconds: 60 }],
    });

  return (
    <PageFrame
      title="Tapes"
      actions={
        <>
          <Button color="inherit" component={Link} href="/tapes/blank">
            Blank tapes
          </Button>
          <FileButton
            label="Tape file"
            accept=".json,.csv,application/json,text/csv"
            onFile={(f) => void importFile(f)}
          >
            Import
          </FileButton>
          <Button
            color="inherit"
            disabled={!tapes}
            onClick={() => download("reference-tapes.csv", writeTapesCsv(tapes ?? []), "text/csv")}
          >
            All as CSV
          </Button>
          <Button variant="contained" onClick={startNew}>
            New tape
          </Button>
        </>
      }
    >
      <Notice outcome={message} onClose={() => setMessage(null)} />
      {offers}
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "290px minmax(0, 1fr)" }, gap: 3 }}>
        <ChoiceList
          label="Reference tapes"
          choices={tapes ?? []}
          chosenId={chosen?.id}
          onChoose={(id) => {
            setChosenId(id);
            setEditing(null);
          }}
        />
        {editing ? (
          <TapeEditor
            key={editing.id}
            tape={editing}
            onSave={(tape) => void save(tape)}
            onCancel={() => setEditing(null)}
          />
        ) : (
          chosen && (
            <TapeView
              tape={chosen}
              builtIn={builtIn}
              onEdit={() =>
                setEditing(builtIn ? { ...chosen, id: newId(), name: `${chosen.name}, copy` } : chosen)
              }
              onDelete={() =>
                void deleteTape(chosen.id)
                  .then(() => setChosenId(null))
                  .catch(fail)
              }
            />
          )
        )}
      </Box>
    </PageFrame>
  );
}
