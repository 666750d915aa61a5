"use client";
import Button from "@mui/material/Button";
import type { RefObject } from "react";
import { FilePicker } from "@/ui/file-picker";
import { KeyCap } from "@/ui/key-cap";

interface PictureButtonProps {
  onFiles(files: File[]): void;
  /** Opened by a key as well. */
  picker: RefObject<HTMLInputElement | null>;
}

/** Asks the camera of a tablet, or for files. */
export function PictureButton({ onFiles, picker }: PictureButtonProps) {
  return (
    <>
      <Button variant="outlined" color="inherit" onClick={() => picker.current?.click()}>
        Picture<KeyCap>C</KeyCap>
      </Button>
      <FilePicker label="Pictures" accept="image/*,.heic,.heif" {...{ picker, onFiles }} multiple camera />
    </>
  );
}
