"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import { writeSparesCsv } from "@/core/formats/spare-csv";
import { sparesFor, SPARE_KINDS, type Spare } from "@/core/workshop/spare";
import { database } from "@/storage/database";
import { countSpare, importSpares } from "@/storage/spares";
import { FileButton } from "@/ui/file-button";
import { Notice, type Outcome } from "@/ui/notice";
import { download } from "../job/download";
import { PageFrame } from "../shell/page-frame";
import { Drawer } from "./drawer";
import { SpareForm } from "./spare-form";

/** The spare-parts box as a cabinet of drawers, one for each thing that lies in it. */
export function SparesPage() {
  const spares = useLiveQuery(() => database.spares.orderBy("name").toArray(), []);
  const [words, setWords] = useState("");
  const [openId, open] = useState<string | null>(null);
  const [message, setMessage] = useState<Outcome | null>(null);
  const shown = sparesFor(spares ?? [], words);
  const chosen = spares?.find(({ id }) => id === openId) ?? null;

  const importFile = async (file: File) => {
    try {
      const { added, changed } = await importSpares(await file.text());
      setMessage({ severity: "success", text: `Imported: ${added} new drawers, ${changed} counted anew.` });
    } catch (error) {
      setMessage({ severity: "error", text: `${file.name}: ${(error as Error).message}` });
    }
  };
  return (
    <PageFrame
      title="Spares"
      actions={
        <>
          <FileButton
            label="Spare parts file"
            accept=".csv,text/csv"
            onFile={(file) => void importFile(file)}
          >
            Import CSV
          </FileButton>
          <Button
            color="inherit"
            disabled={!spares?.length}
            onClick={() => download("spare-parts.csv", writeSparesCsv(spares ?? []), "text/csv")}
          >
            Export CSV
          </Button>
        </>
      }
    >
      <Notice outcome={message} onClose={() => setMessage(null)} />
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { md: "minmax(0, 1fr) 320px" },
          gap: 2,
          alignItems: "start",
        }}
      >
        <Box component="section" aria-label="Cabinet" sx={{ minWidth: 0 }}>
          <TextField
            fullWidth
            label="What is looked for"
            value={words}
            onChange={({ target }) => setWords(target.value)}
            sx={{ mb: 1.5 }}
          />
          {spares?.length === 0 && (
            <Box sx={{ fontSize: 22, fontWeight: 650, lineHeight: 1.35 }}>
              Nothing lies in the box yet. Write down a drawer on the right, or import a list: its first row
              is name,kind,count,place.
            </Box>
          )}
          {spares !== undefined && spares.length > 0 && shown.length === 0 && (
            <Box sx={{ fontSize: 22, fontWeight: 650 }}>No drawer has &quot;{words}&quot;.</Box>
          )}
          <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2.5 }}>
            {SPARE_KINDS.map((kind) => {
              const drawers = shown.filter((spare) => spare.kind === kind);
              return drawers.length > 0 ? (
                <Row key={kind} kind={kind} drawers={drawers} openId={openId} onOpen={open} />
              ) : null;
            })}
          </Box>
        </Box>
        <SpareForm key={chosen?.id ?? "new"} spare={chosen} onDone={() => open(null)} />
      </Box>
    </PageFrame>
  );
}

const MOST_IN_A_ROW = 5;

interface RowProps {
  kind: string;
  drawers: Spare[];
  openId: string | null;
  onOpen(id: string): void;
}

const Row = ({ kind, drawers, openId, onOpen }: RowProps) => (
  <Box component="section" aria-label={kind} sx={{ mb: 1.5 }}>
    <Box
      sx={{
        fontWeight: 700,
        color: "text.secondary",
        mb: 0.5,
        "&::first-letter": { textTransform: "uppercase" },
      }}
    >
      {kind}
    </Box>
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: {
          xs: "repeat(2, 164px)",
          md: `repeat(${Math.min(MOST_IN_A_ROW, drawers.length)}, 164px)`,
        },
        gap: 0.75,
      }}
    >
      {drawers.map((spare) => (
        <Drawer
          key={spare.id}
          spare={spare}
          isOpen={spare.id === openId}
          onOpen={() => onOpen(spare.id)}
          onCount={(by) => void countSpare(spare.id, by)}
        />
      ))}
    </Box>
  </Box>
);
