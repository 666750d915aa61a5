"use client";
import Button from "@mui/material/Button";
import type { RefObject } from "react";
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
      <input
        ref={picker}
        type="file"
        hidden
        multiple
        accept="image/*,.heic,.heif"
        capture="environment"
        aria-label="Pictures"
        onChange={(event) => {
          onFiles([...(event.target.files ?? [])]);
          event.target.value = "";
        }}
      />
    </>
  );
}
