/** A button keeps its own Space and Enter while it has the focus. */
export function onControl(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return (
    event.key === " " && target?.closest("button, a, [role=slider], [role=combobox], [role=option]") !== null
  );
}

/**
 * After a click on a button or a tick the focus goes back to the page, so that Space logs and does not press it again,
 * and the other keys are the bench's.
 */
export function releaseButton(event: React.PointerEvent): void {
  if (!(event.target as HTMLElement).closest?.("button, label, input[type=checkbox]")) return;
  setTimeout(() => {
    const held = document.activeElement;
    if (held instanceof HTMLElement && held.matches("button, input[type=checkbox]")) held.blur();
  });
}
