import type { RefObject } from "react";

interface FilePickerProps {
  /** Name of the hidden file field. */
  label: string;
  accept: string;
  picker: RefObject<HTMLInputElement | null>;
  onFiles(files: File[]): void;
  multiple?: boolean;
  /** On a tablet the camera is asked first. */
  camera?: boolean;
}

/** The hidden field that asks for files; the same one can be chosen again. */
export const FilePicker = ({ label, accept, picker, onFiles, multiple, camera }: FilePickerProps) => (
  <input
    ref={picker}
    type="file"
    hidden
    multiple={multiple}
    accept={accept}
    capture={camera ? "environment" : undefined}
    aria-label={label}
    onChange={(event) => {
      onFiles([...(event.target.files ?? [])]);
      event.target.value = "";
    }}
  />
);
