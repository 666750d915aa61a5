"use client";
import Button from "@mui/material/Button";
import { useRef, type ReactNode } from "react";
import { FilePicker } from "./file-picker";

interface FileButtonProps {
  /** Name of the hidden file field. */
  label: string;
  accept: string;
  onFile(file: File): void;
  variant?: "text" | "outlined";
  children: ReactNode;
}

/** A button that asks for one file; the same file can be chosen again. */
export function FileButton({ label, accept, onFile, variant = "text", children }: FileButtonProps) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button color="inherit" variant={variant} onClick={() => picker.current?.click()}>
        {children}
      </Button>
      <FilePicker label={label} accept={accept} picker={picker} onFiles={([file]) => file && onFile(file)} />
    </>
  );
}
