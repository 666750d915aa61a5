"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState, type ReactNode } from "react";
import type * as z from "@/core/text/zod";
import { firstIssue } from "@/core/formats/import-error";
import type { OldDraft } from "./use-kept-form";

interface EditorFormProps<T> {
  /** What is edited, as on its button: "Save tape". */
  what: string;
  /** What was typed so far, checked by its schema. */
  parsed: z.ZodSafeParseResult<T>;
  /** A draft from before the record was changed; null for none. */
  oldDraft: OldDraft | null;
  /** Forgets what was kept of the typing. */
  leave(): void;
  onSave(value: T): void;
  onCancel(): void;
  /** `asked`: saving was tried, so what is wrong is worth showing. */
  children(asked: boolean): ReactNode;
}

/** A form that saves when what was typed is valid, and otherwise says what is wrong with it. */
export function EditorForm<T>({
  what,
  parsed,
  oldDraft,
  leave,
  onSave,
  onCancel,
  children,
}: EditorFormProps<T>) {
  const [asked, setAsked] = useState(false);
  const dropAnd = (then: () => void) => {
    leave();
    then();
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setAsked(true);
        if (parsed.success) dropAnd(() => onSave(parsed.data));
      }}
      sx={{ display: "flex", flexDirection: "column", gap: 2, minWidth: 0 }}
    >
      {oldDraft && (
        <Alert
          severity="info"
          action={
            <>
              <Button color="inherit" onClick={oldDraft.discard}>
                Discard draft
              </Button>
              <Button color="inherit" variant="outlined" onClick={oldDraft.use}>
                Use draft
              </Button>
            </>
          }
        >
          There is an unsaved draft of this {what}, begun before it was last changed. Shown is what is saved.
        </Alert>
      )}
      {children(asked)}
      {asked && !parsed.success && <Alert severity="error">{firstIssue(parsed.error)}</Alert>}
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button type="submit" variant="contained">
          Save {what}
        </Button>
        <Button color="inherit" onClick={() => dropAnd(onCancel)}>
          Throw away
        </Button>
      </Box>
    </Box>
  );
}
