import { expect, type Locator } from "@playwright/test";

/**
 * Chooses a line of the list that a box opens, by keys alone: the mouse could come down on one line and up on another,
 * while the list still grows, and would choose nothing.
 */
export async function choose(box: Locator, line: string | RegExp): Promise<void> {
  const list = box.page().getByRole("listbox");
  await box.press("Enter");
  await list.getByRole("option", { name: line }).first().press("Enter");
  await expect(list).toHaveCount(0);
}
