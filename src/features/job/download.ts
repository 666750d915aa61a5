/** Hands a text to the browser as a file to save. */
export const download = (name: string, text: string, type: string): void =>
  downloadBlob(name, new Blob([text], { type }));

/** Hands bytes to the browser as a file to save. */
export function downloadBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  downloadUrl(name, url);
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Hands what lies behind a URL, a picture's data for one, to the browser as a file to save. */
export function downloadUrl(name: string, url: string): void {
  const link = document.createElement("a");
  link.href = url;
  link.download = fileName(name);
  link.click();
}

/** A file name without anything that a file system might object to. */
export const fileName = (...parts: string[]): string =>
  parts
    .join(" ")
    .replace(/[^\p{L}\p{N}. -]+/gu, " ")
    .trim()
    .replace(/\s+/g, "-");
