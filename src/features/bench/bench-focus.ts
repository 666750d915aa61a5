/** A button keeps its own Space and Enter while it has the focus. */
export function onControl(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return (
    event.key === " " && target?.closest("button, a, [role=slider], [role=combobox], [role=option]") !== null
  );
}

/** After a click the focus goes back to the page, so that Space logs and does not press the button again. */
export function releaseButton(event: React.PointerEvent): void {
  const button = (event.target as HTMLElement).closest?.("button");
  if (button) setTimeout(() => button.blur());
}
