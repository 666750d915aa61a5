/** Hands a text to the browser as a file to save. */
export function download(name: string, text: string, type: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A file name without anything that a file system might object to. */
export const fileName = (...parts: string[]): string =>
  parts
    .join(" ")
    .replace(/[^\p{L}\p{N}. -]+/gu, " ")
    .trim()
    .replace(/\s+/g, "-");
