import { describe, expect, it } from "vitest";
import { backupAge, backupReminder } from "./backup-age";

const NOW = new Date("2026-11-22T08:00:00.000Z");
const ago = (days: number, since: boolean) => ({
  at: new Date(NOW.getTime() - days * 86_400_000 - 1000).toISOString(),
  since,
});

describe("the age of the last backup", () => {
  it.each([
    [null, "Nothing was backed up yet."],
    [ago(0, false), "Last backup today; nothing was logged since."],
    [ago(1, true), "Last backup yesterday; something was logged since."],
    [ago(16, true), "Last backup 16 days ago; something was logged since."],
    // a clock that was set back
    [ago(-3, true), "Last backup today; something was logged since."],
  ])("%j", (last, words) => {
    expect(backupAge(last, NOW)).toBe(words);
  });

  it("is said on the floor when it is old and something was logged since", () => {
    expect(backupReminder(ago(13, true), 3, NOW)).toBeNull();
    expect(backupReminder(ago(14, true), 3, NOW)).toMatch(/14 days old/);
    expect(backupReminder(ago(90, false), 3, NOW)).toBeNull();
    expect(backupReminder(null, 3, NOW)).toMatch(/in this browser only/);
    expect(backupReminder(null, 0, NOW)).toBeNull();
  });
});
