import { PlaybackFilter } from "./playback-filter";
import type { Stereo } from "./stereo";
import type { Tape } from "./tape";
import type { TransportParameters } from "./transport-parameters";

/** The parameters of a channel with its screws and trimmers as they stand. */
export type SettingsOf = (channel: 0 | 1) => TransportParameters;

/** What a filter is designed anew for. */
const RETUNED = [
  "head.azimuthArcMinutes",
  "playback.t2Microseconds",
  "head.spacingMicrometres",
  "head.gapMicrometres",
  "head.resonanceHz",
] as const;

const keyOf = (settings: TransportParameters): string =>
  RETUNED.map((name) => settings[name].toFixed(2)).join(" ");

/** Head and equaliser of both channels for the tape that is in the machine; they follow what is turned. */
export class PlaybackFilters {
  private readonly filters: readonly [PlaybackFilter, PlaybackFilter];
  /** What each filter was made for. */
  private readonly tuned: [string, string];

  constructor(
    private readonly settingsOf: SettingsOf,
    tape: Tape,
    sampleRateHz: number,
  ) {
    const settings = [settingsOf(0), settingsOf(1)] as const;
    this.tuned = [keyOf(settings[0]), keyOf(settings[1])];
    const make = (c: 0 | 1) => new PlaybackFilter(settings[c], tape, sampleRateHz);
    this.filters = [make(0), make(1)];
    this.matchDelays();
  }

  /** Filters a block by what stands now. */
  push([left, right]: Stereo): Stereo {
    this.retune();
    return [this.filters[0].push(left), this.filters[1].push(right)];
  }

  /** Gives the filters what was turned since the last block. */
  private retune(): void {
    this.filters.forEach((filter, c) => {
      const settings = this.settingsOf(c as 0 | 1);
      if (keyOf(settings) === this.tuned[c]) return;
      this.tuned[c] = keyOf(settings);
      filter.retune(settings);
    });
    this.matchDelays();
  }

  /** A filter in one channel alone would make that channel later than the other. */
  private matchDelays(): void {
    const { filters } = this;
    if (filters[0].delays === filters[1].delays) return;
    filters.forEach((filter, c) => {
      if (!filter.delays) filter.retune(this.settingsOf(c as 0 | 1), true);
    });
  }
}
