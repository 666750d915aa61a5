import { SeededRandom } from "@/core/dsp/seeded-random";
import { pulse, sine } from "./turning";
import type { TransportParameters } from "./transport-parameters";

const ROUGH_FROM_HZ = 2;
const ROUGH_TO_HZ = 18;
/** A tug of the take-up lasts this share of a turn. */
const TUG_SHARE = 0.12;

/** Which way the tape runs, for what differs by side and direction. */
export interface Way {
  /** The second side plays, turned over or in reverse. */
  sideB: boolean;
  /** The tape runs backwards, past that direction's own roller and guides. */
  reverse: boolean;
}

/**
 * What a transport suffers from besides its plain rotating parts: a worn idler, a tugging clutch, dry bearings, slips,
 * load that changes from one end of the reel to the other, and differences between sides. With all parameters at
 * nought it does nothing and draws no random number.
 */
export class TransportFaults {
  private readonly random: SeededRandom;
  private readonly phases: number[];
  private fast = 0;
  private slow = 0;
  private slipLeft = 0;

  constructor(
    private readonly parameters: TransportParameters,
    seed: number,
    private readonly looksPerSecond: number,
  ) {
    this.random = new SeededRandom(seed + 0xfa17);
    this.phases = Array.from({ length: 4 }, () => this.random.uniform());
  }

  /**
   * Speed variation as a fraction, one look later each time.
   * @param mm tape passed since the start of the side, @param takeUpTurns turns of the take-up reel
   */
  look(mm: number, takeUpTurns: number, way: Way): number {
    const p = this.parameters;
    const capstanTurns = mm / (Math.PI * p["capstan.diameterMm"]);
    const idlerTurns = capstanTurns * p["idler.perCapstanTurn"];
    const reverseTurns = mm / (Math.PI * p["pinchRoller.diameterMm"]) + this.phases[1];
    return (
      sine(p["idler.eccentricityPercent"], idlerTurns + this.phases[0]) -
      pulse(p["idler.flatPercent"], idlerTurns + this.phases[3]) -
      (way.reverse ? pulse(p["reverse.rollerFlatPercent"], reverseTurns) : 0) -
      pulse(p["takeUp.tugPercent"], takeUpTurns + this.phases[2], TUG_SHARE) +
      (way.sideB ? p["sideB.errorPercent"] / 100 : 0) +
      (p["reel.loadPercent"] / 100) * this.wound(mm) +
      this.roughness() -
      this.slip()
    );
  }

  /** Share of the tape that has gone to the take-up reel. */
  private wound(mm: number): number {
    const p = this.parameters;
    if (p["reel.loadPercent"] === 0) return 0;
    const area = Math.PI * (p["reel.fullRadiusMm"] ** 2 - p["reel.hubRadiusMm"] ** 2);
    return Math.min(1, mm / (area / (p["tape.thicknessMicrometres"] / 1000)));
  }

  /** Band-limited noise of the RMS that was asked for: white noise between two one-pole corners. */
  private roughness(): number {
    const percent = this.parameters["bearing.roughPercent"];
    if (percent === 0) return 0;
    const pole = (hz: number) => 1 - Math.exp((-2 * Math.PI * hz) / this.looksPerSecond);
    const noise = this.random.normal();
    const [a, b] = [pole(ROUGH_TO_HZ), pole(ROUGH_FROM_HZ)];
    this.fast += a * (noise - this.fast);
    this.slow += b * (noise - this.slow);
    // variance of the difference of two one-pole low-passes of one noise
    const variance = a / (2 - a) + b / (2 - b) - (2 * a * b) / (a + b - a * b);
    return ((percent / 100) * (this.fast - this.slow)) / Math.sqrt(variance);
  }

  private slip(): number {
    const p = this.parameters;
    if (p["slip.perMinute"] === 0) return 0;
    const length = p["slip.seconds"] * this.looksPerSecond;
    if (this.slipLeft <= 0 && this.random.uniform() < p["slip.perMinute"] / 60 / this.looksPerSecond)
      this.slipLeft = length;
    if (this.slipLeft <= 0) return 0;
    this.slipLeft--;
    return (p["slip.percent"] / 200) * (1 - Math.cos((2 * Math.PI * this.slipLeft) / length));
  }
}
