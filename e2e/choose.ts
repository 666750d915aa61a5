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

/** The same where the choice is kept: it is shown once it is stored, and a page left before that has chosen nothing. */
export async function chooseKept(box: Locator, line: string): Promise<void> {
  await choose(box, line);
  await expect(box).toHaveText(line);
}
