import { SeededRandom } from "@/core/dsp/seeded-random";
import type { TransportParameters } from "./transport-parameters";
import { Trimmer } from "./trimmer";

const WEAVE_CORNER_HZ = 0.3;

/**
 * What can be turned and what wanders on the playback side: an azimuth screw per direction, a level and an equaliser
 * trimmer per channel, weave of the tape at the head, a contact that will not hold still.
 */
export class PlaybackSide {
  /** Forwards and reverse. */
  readonly azimuthScrews: readonly [Trimmer, Trimmer];
  /** Left and right. */
  readonly levelTrimmers: readonly [Trimmer, Trimmer];
  readonly equaliserTrimmers: readonly [Trimmer, Trimmer];
  private readonly random: SeededRandom;
  private weave = 0;
  private jumped = false;

  constructor(
    private readonly parameters: TransportParameters,
    seed: number,
  ) {
    const pair = () => {
      const trimmer = () =>
        new Trimmer(parameters["trimmer.backlashTurns"], parameters["trimmer.rangeTurns"]);
      return [trimmer(), trimmer()] as const;
    };
    this.azimuthScrews = pair();
    this.levelTrimmers = pair();
    this.equaliserTrimmers = pair();
    this.random = new SeededRandom(seed + 0xa21);
  }

  /** Lets `seconds` pass for what wanders and jumps by itself. */
  pass(seconds: number): void {
    const p = this.parameters;
    if (p["head.weaveArcMinutes"] > 0) {
      const share = Math.min(1, 2 * Math.PI * WEAVE_CORNER_HZ * seconds);
      this.weave += -share * this.weave + Math.sqrt(2 * share) * this.random.normal();
    }
    if (
      p["contact.jumpsPerMinute"] > 0 &&
      this.random.uniform() < (p["contact.jumpsPerMinute"] / 60) * seconds
    )
      this.jumped = !this.jumped;
  }

  /** Tilt of the gap against the tape without weave, arc-minutes. */
  tiltArcMinutes(reverse: boolean): number {
    const p = this.parameters;
    const set = p[reverse ? "head.reverseAzimuthArcMinutes" : "head.azimuthArcMinutes"];
    return set + p["azimuth.arcMinutesPerTurn"] * this.azimuthScrews[reverse ? 1 : 0].spindleTurns;
  }

  /** The same with the weave of this moment. */
  wovenArcMinutes(reverse: boolean): number {
    return this.tiltArcMinutes(reverse) + this.parameters["head.weaveArcMinutes"] * this.weave;
  }

  /** Second time constant of a channel's equaliser, µs. */
  t2Microseconds(channel: 0 | 1): number {
    const p = this.parameters;
    const off = p[channel === 0 ? "playback.leftT2ErrorPercent" : "playback.rightT2ErrorPercent"];
    const turned = p["playback.t2PercentPerTurn"] * this.equaliserTrimmers[channel].spindleTurns;
    return p["playback.t2Microseconds"] * Math.max(0.1, 1 + (off + turned) / 100);
  }

  /** Gain of a channel beside its output level, dB. */
  gainDb(channel: 0 | 1): number {
    const p = this.parameters;
    // a mono machine has one amplifier
    const trimmer = this.levelTrimmers[p["head.trackSpacingMm"] === 0 ? 0 : channel];
    const jump = channel === 1 && this.jumped ? p["contact.jumpDb"] : 0;
    return p["playback.levelDbPerTurn"] * trimmer.spindleTurns - jump;
  }
}
