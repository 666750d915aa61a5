import { expect, type Locator, type Page } from "@playwright/test";
import { choose, chooseKept } from "./choose";

export const REAL_TIME = "in real time";
export const FOUR_TIMES = "four times as fast";
type Pace = typeof REAL_TIME | typeof FOUR_TIMES;
/** Presses of an arrow key that turn a slot by an eighth of a turn. */
const COARSE_IN_AN_EIGHTH = 8;
const SLOW_DEGREES = 6;

/** A figure looked at in one moment: in the next it may be gone, where a busy machine loses sound. */
export const figureOf = (figure: Locator): Promise<{ settled: boolean; value: number; told: number }> =>
  figure.evaluate((meter) => ({
    settled: /(pass|close|fail)$/.test(meter.getAttribute("aria-valuetext") ?? ""),
    value: Number(meter.getAttribute("aria-valuenow")),
    told: Number(/±\s*([\d.]+)/.exec(meter.textContent ?? "")?.[1]),
  }));

/** Waits until a figure is settled, and gives what stood in that moment. */
export async function settledFigure(figure: Locator): ReturnType<typeof figureOf> {
  let seen = await figureOf(figure);
  await expect.poll(async () => (seen = await figureOf(figure)).settled).toBe(true);
  return seen;
}

/** What a technician's hands do on the bench. */
export class BenchHands {
  readonly speed: Locator;
  readonly slip: Locator;

  constructor(readonly page: Page) {
    this.speed = page.getByRole("meter", { name: "Speed error" });
    this.slip = page.getByRole("list", { name: "Readings" });
  }

  async open(jobId: string, station: string): Promise<void> {
    await this.page.goto(`/jobs/${jobId}/bench/${station}`);
    await expect(this.page.getByRole("button", { name: /Practice/ })).toBeVisible();
  }

  async choose(box: string, line: string | RegExp): Promise<void> {
    await choose(this.page.getByRole("combobox", { name: box, exact: true }), line);
  }

  /** Waits until this blank tape is the one that is recorded on. */
  async recordsOn(blank: RegExp): Promise<void> {
    const tapes = this.page.getByRole("group", { name: "Recording on" });
    await expect(tapes.getByRole("button", { name: blank })).toHaveAttribute("aria-pressed", "true");
  }

  async play(condition: string, pace: Pace | null = null): Promise<void> {
    await expect(this.page.getByRole("button", { name: /Practice/ })).toBeVisible();
    await this.page.keyboard.press("p");
    if (pace) await this.hurry(pace);
    await this.choose("It came in", condition);
    await this.page.getByRole("button", { name: "Play", exact: true }).click();
  }

  /** The tape of the practice machine runs faster from the next start on: what is measured of it is the same. */
  private async hurry(wanted: Pace): Promise<void> {
    await chooseKept(this.page.getByRole("combobox", { name: "Its tape runs" }), wanted);
  }

  /** Waits until the number is steady and gives it in percent. */
  async settled(): Promise<number> {
    await this.page.waitForTimeout(600); // a turn shows after a moment; before that the old number still stands
    await expect(this.speed).toHaveAttribute("aria-valuetext", /(pass|close|fail)$/);
    return Number(await this.speed.getAttribute("aria-valuenow"));
  }

  /** Opens the speed station of a job, plays a tape of a deck with nothing wrong, and logs its first number as found. */
  async speedAsFound(jobId: string): Promise<void> {
    await this.open(jobId, "speed");
    await this.play("nothing wrong");
    await this.settled();
    await this.page.keyboard.press("f");
    await expect(this.slip.getByRole("listitem")).toHaveCount(1);
  }

  /** Logs the number that stands, and waits until it is on the slip. */
  async log(): Promise<void> {
    const rows = this.slip.getByRole("listitem");
    const before = await rows.count();
    await this.page.keyboard.press(" ");
    await expect(rows).toHaveCount(before + 1);
  }

  /** Clicks what is offered now. @returns false when it was no longer offered by the time it could be clicked */
  async clicked(offer: Locator): Promise<boolean> {
    try {
      await offer.click({ timeout: 5000 });
      return true;
    } catch (error) {
      if (await offer.isVisible()) throw error;
      return false;
    }
  }

  /**
   * Turns a practice trimmer by whole degrees, clockwise positive, says so, and waits for what it did to be kept.
   * @param slowly so that whole cycles can be followed: no farther at a time than the deck has turned
   */
  async turn(degrees: number, trimmer = "", slowly = false): Promise<void> {
    const slot = this.page.getByRole("slider", { name: new RegExp(`${trimmer}.*practice trimmer`) });
    const before = Number(await slot.getAttribute("aria-valuenow"));
    await slot.focus();
    const key = degrees > 0 ? "ArrowRight" : "ArrowLeft";
    // the deck turns a little later than the keys: what is said to be turned has to be all of it
    const turned = (by: number) =>
      expect(slot).toHaveAttribute("aria-valuenow", String(before + Math.sign(degrees) * by));
    const eighths = slowly ? 0 : Math.floor(Math.abs(degrees) / 45);
    for (let i = 0; i < eighths * COARSE_IN_AN_EIGHTH; i++) await this.page.keyboard.press(key);
    for (let by = 45 * eighths + 1; by <= Math.abs(degrees); by++) {
      await this.page.keyboard.press(`Shift+${key}`);
      if (slowly && by % SLOW_DEGREES === 0) await turned(by);
    }
    await turned(Math.abs(degrees));
    await slot.blur();
    const rows = this.slip.getByRole("listitem");
    const known = await rows.count();
    await this.page.keyboard.press("t");
    // on a busy machine the number from before the turn may stand for a while; what is kept above the turn is not older
    await expect.poll(() => rows.count()).toBeGreaterThanOrEqual(known + 2);
    await expect(rows.first()).toContainText("working");
  }

  /** Waits until so much of the practice machine's tape has run, seconds, with its drawer shut before and after. */
  async tapeHasRun(seconds: number): Promise<void> {
    await this.page.keyboard.press("p");
    await this.tapeRuns(seconds);
    await this.page.keyboard.press("p");
  }

  /** The same with its drawer open. */
  async tapeRuns(seconds: number): Promise<void> {
    const position = this.page.getByRole("progressbar", { name: "Position on the tape" });
    const at = async () => {
      const [minutes, rest] = (await position.getAttribute("aria-valuetext"))!.split(":").map(Number);
      return 60 * minutes + rest;
    };
    // a tape that was turned over or wound back just now is shown where it was for a moment longer
    let from = Infinity;
    const run = async () => {
      const now = await at();
      from = Math.min(from, now);
      return now - from;
    };
    await expect.poll(run).toBeGreaterThanOrEqual(seconds);
  }

  /** What the turn card says: degrees with their sign, or null when there is nothing to turn. */
  async advice(): Promise<number | null> {
    const card = this.page.getByRole("region", { name: "Turn", exact: true });
    await expect(card).not.toContainText("let it settle");
    const words = await card.innerText();
    if (words.includes("leave it there")) return null;
    const degrees = Number(/(\d+)°/.exec(words)?.[1]);
    return words.includes("anticlockwise,") ? -degrees : degrees;
  }
}
