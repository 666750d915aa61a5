import { SeededRandom } from "./seeded-random";
import type { TransportParameters } from "./transport-parameters";
import { Trimmer } from "./trimmer";

/** The parts are looked at this often; between looks the speed runs straight. */
const LOOKS_PER_SECOND = 6000;
const WANDER_CORNER_HZ = 0.15;
/** A seam or flat passes within this share of a turn. */
const PULSE_SHARE = 0.06;
const SCRAPE_Q = 6;

/**
 * The time base of a practice machine: how fast the tape moves at every sample, from the geometry and the
 * faults of its parts. Every part turns by the length of tape that has really passed, so its rate follows
 * the speed.
 */
export class Transport {
  readonly trimmer: Trimmer;
  /** Tape that has passed since the start, in millimetres. */
  tapeMm = 0;
  private seconds = 0;
  private readonly random: SeededRandom;
  private readonly phases: number[];
  private wander = 0;
  private scrape = [0, 0];
  private lookValue = 0;
  private samplesToLook = 0;
  private slope = 0;

  constructor(
    readonly parameters: TransportParameters,
    private readonly sampleRateHz: number,
    seed: number,
  ) {
    this.random = new SeededRandom(seed);
    this.phases = Array.from({ length: 8 }, () => this.random.uniform());
    this.trimmer = new Trimmer(parameters["trimmer.backlashTurns"], parameters["trimmer.rangeTurns"]);
    this.lookValue = this.look(0);
  }

  /** Tape speed relative to nominal for the next sample; 1 is right. */
  next(): number {
    const perLook = Math.max(1, Math.round(this.sampleRateHz / LOOKS_PER_SECOND));
    if (this.samplesToLook === 0) {
      const ahead = this.look(perLook / this.sampleRateHz);
      this.slope = (ahead - this.lookValue) / perLook;
      this.samplesToLook = perLook;
    }
    this.samplesToLook--;
    this.lookValue += this.slope;
    let speed = this.lookValue;
    if (this.parameters["scrape.percent"] > 0) speed *= 1 + this.nextScrape();
    this.tapeMm += (10 * this.parameters.speedCmPerS * speed) / this.sampleRateHz;
    this.seconds += 1 / this.sampleRateHz;
    return speed;
  }

  /** Sets the machine running from standstill, as when play is pressed. */
  start(): void {
    this.seconds = 0;
  }

  /** Relative speed `ahead` seconds from now. */
  private look(ahead: number): number {
    const p = this.parameters;
    const v = 10 * p.speedCmPerS; // mm/s
    const mm = this.tapeMm + v * this.lookValue * ahead;
    const turn = (partMm: number, k: number) => {
      const t = mm / partMm + this.phases[k];
      return t - Math.floor(t);
    };
    const sine = (percent: number, partMm: number, k: number) =>
      percent === 0 ? 0 : (percent / 100) * Math.sin(2 * Math.PI * turn(partMm, k));

    const capstanMm = Math.PI * p["capstan.diameterMm"];
    const rollerMm = Math.PI * p["pinchRoller.diameterMm"];
    // tape that passes while the belt goes round once: belt length over pulley circumference, in capstan turns
    const beltMm = (p["belt.lengthMm"] / (Math.PI * p["belt.pulleyDiameterMm"])) * capstanMm;
    const parts =
      sine(p["capstan.eccentricityPercent"], capstanMm, 0) +
      sine(p["pinchRoller.eccentricityPercent"], rollerMm, 1) -
      pulse(p["pinchRoller.flatPercent"], turn(rollerMm, 2)) +
      pulse(p["belt.lumpPercent"], turn(beltMm, 3)) +
      sine(p["motor.cogPercent"], capstanMm / p["motor.perCapstanTurn"], 4) +
      this.reels(mm);

    const corner = (2 * Math.PI * WANDER_CORNER_HZ) / LOOKS_PER_SECOND;
    this.wander += -corner * this.wander + Math.sqrt(2 * corner) * this.random.normal();
    const minutes = p["warmUp.minutesSincePowerOn"] + (this.seconds + ahead) / 60;
    const cold = (p["warmUp.percent"] / 100) * Math.exp(-minutes / p["warmUp.minutes"]);
    const startUp =
      p["startUp.seconds"] > 0 ? 1 - Math.exp(-(this.seconds + ahead) / p["startUp.seconds"]) : 1;
    const set =
      1 + (p["speed.errorPercent"] + p["trimmer.percentPerTurn"] * this.trimmer.spindleTurns) / 100;
    return startUp * set * (1 + cold + (p["wander.percent"] / 100) * this.wander + parts);
  }

  private reels(mm: number): number {
    const p = this.parameters;
    const percent = p["reel.eccentricityPercent"];
    if (percent === 0) return 0;
    const hub = p["reel.hubRadiusMm"];
    const full = p["reel.fullRadiusMm"];
    const thickness = p["tape.thicknessMicrometres"] / 1000;
    const area = (thickness * mm) / Math.PI; // side area of the tape that has moved, over π
    // turns since the start of a pack whose area changes with the tape: ∫ dx / (2πr(x))
    const takeUp = (Math.sqrt(hub * hub + area) - hub) / thickness;
    const supply = (full - Math.sqrt(Math.max(hub * hub, full * full - area))) / thickness;
    return (
      (percent / 100) *
      (Math.sin(2 * Math.PI * (takeUp + this.phases[5])) + Math.sin(2 * Math.PI * (supply + this.phases[6])))
    );
  }

  /** Noise through a resonance, scaled to the RMS that was asked for. */
  private nextScrape(): number {
    const p = this.parameters;
    const w = (2 * Math.PI * p["scrape.rateHz"]) / this.sampleRateHz;
    const r = Math.exp(-w / (2 * SCRAPE_Q));
    const gain = Math.sqrt((1 - r * r) * (1 - 2 * r * r * Math.cos(2 * w) + r ** 4) / (1 + r * r));
    const y = gain * this.random.normal() + 2 * r * Math.cos(w) * this.scrape[0] - r * r * this.scrape[1];
    this.scrape = [y, this.scrape[0]];
    return (p["scrape.percent"] / 100) * y;
  }
}

/** A raised-cosine bump of the given peak, once a turn. */
function pulse(percent: number, turn: number): number {
  if (percent === 0 || turn >= PULSE_SHARE) return 0;
  return (percent / 200) * (1 - Math.cos((2 * Math.PI * turn) / PULSE_SHARE));
}
