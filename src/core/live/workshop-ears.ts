import type { Samples } from "@/core/dsp/signal";
import { ControlWatch, type ControlTest } from "@/core/measure/control-watch";
import { SquealWatch, type Squeal } from "@/core/measure/squeal-watch";
import { WindWatch, type WindHeard } from "@/core/measure/wind-watch";
import { TickFinder, type TickFinding } from "@/core/measure/tick-finder";
import { Every } from "./every";

/** What is listened for beside the tape: a control that is worked, a tick of the mechanism, a tape that suffers. */
export interface EarsHear {
  /** Since the test was begun; null while none is. */
  controls: ControlTest | null;
  /** Null while no tick is listened for. */
  ticks: TickFinding | null;
  /** Null while there is nothing to fear, or it is not listened for. */
  squeal: Squeal | null;
  /** How long the mechanism ran, and the how manyeth time that it is timed; null while it is not. */
  wind: (WindHeard & { run: number }) | null;
}

export interface EarsWanted {
  controls: boolean;
  ticks: boolean;
  squeal: boolean;
  wind: boolean;
}

const EVERY_SECONDS = 0.45;

/** Listens for what is wanted of these, as long as it is. Push blocks of one array a channel. */
export class WorkshopEars {
  private control: ControlWatch | null = null;
  private tick: TickFinder | null = null;
  private squeal: SquealWatch | null = null;
  private wind: WindWatch | null = null;
  private runs = 0;
  private seconds = 0;
  private readonly every = new Every(EVERY_SECONDS);
  private ticks: TickFinding | null = null;

  constructor(
    private readonly sampleRateHz: number,
    private readonly channelCount: number,
  ) {}

  want({ controls, ticks, squeal, wind }: EarsWanted): void {
    if (!controls) this.control = null;
    if (ticks) this.tick ??= new TickFinder(this.sampleRateHz);
    else [this.tick, this.ticks] = [null, null];
    if (squeal) this.squeal ??= new SquealWatch(this.sampleRateHz);
    else this.squeal = null;
    if (!wind) this.wind = null;
  }

  /** A control is worked from now on. */
  beginControls(): void {
    this.control = new ControlWatch(this.sampleRateHz, this.channelCount);
  }

  /** The mechanism is timed from now on, once it is quiet. Returns the how manyeth time that is. */
  beginWind(): number {
    this.wind = new WindWatch(this.sampleRateHz);
    return ++this.runs;
  }

  /** The steady tone that plays, null for none, and how far off its speed is now. */
  plays(hz: number | null, speedPercent: number | null): void {
    this.squeal?.plays(hz, speedPercent);
  }

  push(block: readonly Samples[]): void {
    this.control?.push(block);
    this.tick?.push(block[0]);
    this.squeal?.push(block[0]);
    this.wind?.push(block[0]);
    this.seconds += block[0].length / this.sampleRateHz;
  }

  get hear(): EarsHear {
    const due = this.every.takes(this.seconds);
    if (due) this.ticks = this.tick?.result ?? null;
    return {
      controls: (due && this.control?.result) || null,
      ticks: this.ticks,
      squeal: this.squeal?.result ?? null,
      wind: this.wind && { ...this.wind.result, run: this.runs },
    };
  }
}
