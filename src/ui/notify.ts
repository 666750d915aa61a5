/** What a page is to show once, wherever it comes from. */
const EVENT = "unzel-notice";

export const notify = (text: string): void => {
  window.dispatchEvent(new CustomEvent(EVENT, { detail: text }));
};

/** @returns ends it */
export function onNotice(show: (text: string) => void): () => void {
  const heard = (event: Event) => show(String((event as CustomEvent<unknown>).detail));
  window.addEventListener(EVENT, heard);
  return () => window.removeEventListener(EVENT, heard);
}
