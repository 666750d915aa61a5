import { SeededRandom } from "@/core/dsp/seeded-random";
import type { TransportParameters } from "./transport-parameters";
import { TransportFaults, type Way } from "./transport-faults";
import { Trimmer } from "./trimmer";
import { pulse, sine } from "./turning";

/** The parts are looked at this often; between looks the speed runs straight. */
const LOOKS_PER_SECOND = 6000;
const WANDER_CORNER_HZ = 0.15;
const SCRAPE_Q = 6;

/**
 * The time base of a practice machine: how fast the tape moves at every sample, from the geometry and the
 * faults of its parts. Every part turns by the length of tape that has really passed, so its rate follows
 * the speed.
 */
export class Transport {
  /** What sets the speed: one trimmer, and on some machines a second. */
  readonly trimmers: readonly [Trimmer, Trimmer];
  /** Tape that has passed since the start, in millimetres. */
  tapeMm = 0;
  /** Which side plays, and which way. */
  way: Way = { sideB: false, reverse: false };
  private readonly faults: TransportFaults;
  private secondsOn = 0;
  private secondsRunning = 0;
  private readonly random: SeededRandom;
  private readonly phases: number[];
  private wander = 0;
  private scrape1 = 0;
  private scrape2 = 0;
  private readonly scrapeGain: number;
  private readonly scrapeFeedback: [number, number];
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
    const trimmer = () => new Trimmer(parameters["trimmer.backlashTurns"], parameters["trimmer.rangeTurns"]);
    this.trimmers = [trimmer(), trimmer()];
    this.faults = new TransportFaults(parameters, seed, LOOKS_PER_SECOND);
    this.lookValue = this.look(0);

    // a resonance whose output for white noise of RMS 1 has the RMS that was asked for
    const w = (2 * Math.PI * parameters["scrape.rateHz"]) / sampleRateHz;
    const r = Math.exp(-w / (2 * SCRAPE_Q));
    const unit = Math.sqrt(((1 - r * r) * (1 - 2 * r * r * Math.cos(2 * w) + r ** 4)) / (1 + r * r));
    this.scrapeGain = (parameters["scrape.percent"] / 100) * unit;
    this.scrapeFeedback = [2 * r * Math.cos(w), -r * r];
  }

  /** Tape speed relative to nominal for the next samples, as many as there is room for; 1 is right. */
  run(speeds: Float64Array): void {
    const mmPerSample = (10 * this.parameters.speedCmPerS) / this.sampleRateHz;
    const scrapes = this.parameters["scrape.percent"] > 0;
    for (let at = 0; at < speeds.length;) {
      if (this.samplesToLook === 0) this.lookAhead();
      const count = Math.min(this.samplesToLook, speeds.length - at);
      let lookValue = this.lookValue;
      let tapeMm = this.tapeMm;
      for (const end = at + count; at < end; at++) {
        lookValue += this.slope;
        const speed = scrapes ? lookValue * (1 + this.nextScrape()) : lookValue;
        tapeMm += mmPerSample * speed;
        speeds[at] = speed;
      }
      this.lookValue = lookValue;
      this.tapeMm = tapeMm;
      this.samplesToLook -= count;
      this.secondsOn += count / this.sampleRateHz;
      this.secondsRunning += count / this.sampleRateHz;
    }
  }

  /** Between looks the speed runs straight to what the next one will find. */
  private lookAhead(): void {
    const perLook = Math.max(1, Math.round(this.sampleRateHz / LOOKS_PER_SECOND));
    this.slope = (this.look(perLook / this.sampleRateHz) - this.lookValue) / perLook;
    this.samplesToLook = perLook;
  }

  /** Sets the machine running from standstill, as when play is pressed. */
  start(): void {
    this.secondsRunning = 0;
    this.lookValue = this.look(0);
    this.samplesToLook = 0;
  }

  /** The machine is on but its tape stands still or is wound. */
  rest(seconds: number): void {
    this.secondsOn += seconds;
  }

  /** Relative speed `ahead` seconds from now. */
  private look(ahead: number): number {
    const p = this.parameters;
    const v = 10 * p.speedCmPerS; // mm/s
    const mm = this.tapeMm + v * this.lookValue * ahead;
    const capstanMm = Math.PI * p["capstan.diameterMm"];
    const rollerMm = Math.PI * p["pinchRoller.diameterMm"];
    // tape that passes while the belt goes round once: belt length over pulley circumference, in capstan turns
    const beltMm = (p["belt.lengthMm"] / (Math.PI * p["belt.pulleyDiameterMm"])) * capstanMm;
    const [capstan, roller, flat, lump, motor] = this.phases;
    const parts =
      sine(p["capstan.eccentricityPercent"], mm / capstanMm + capstan) +
      sine(p["pinchRoller.eccentricityPercent"], mm / rollerMm + roller) -
      (this.way.reverse ? 0 : pulse(p["pinchRoller.flatPercent"], mm / rollerMm + flat)) +
      pulse(p["belt.lumpPercent"], mm / beltMm + lump) +
      sine(p["motor.cogPercent"], (mm * p["motor.perCapstanTurn"]) / capstanMm + motor) +
      this.reels(mm) +
      this.faults.look(mm, this.takeUpTurns(mm), this.way);

    const corner = (2 * Math.PI * WANDER_CORNER_HZ) / LOOKS_PER_SECOND;
    this.wander += -corner * this.wander + Math.sqrt(2 * corner) * this.random.normal();
    const minutes = p["warmUp.minutesSincePowerOn"] + (this.secondsOn + ahead) / 60;
    const cold = (p["warmUp.percent"] / 100) * Math.exp(-minutes / p["warmUp.minutes"]);
    const startUp =
      p["startUp.seconds"] > 0 ? 1 - Math.exp(-(this.secondsRunning + ahead) / p["startUp.seconds"]) : 1;
    const [first, second] = this.trimmers;
    const trimmed =
      p["trimmer.percentPerTurn"] * first.spindleTurns +
      p["trimmer.secondPercentPerTurn"] * second.spindleTurns;
    const set = 1 + (p["speed.errorPercent"] + trimmed) / 100;
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
    const takeUp = this.takeUpTurns(mm);
    const supply = (full - Math.sqrt(Math.max(hub * hub, full * full - area))) / thickness;
    return sine(percent, takeUp + this.phases[5]) + sine(percent, supply + this.phases[6]);
  }

  private takeUpTurns(mm: number): number {
    const hub = this.parameters["reel.hubRadiusMm"];
    const thickness = this.parameters["tape.thicknessMicrometres"] / 1000;
    return (Math.sqrt(hub * hub + (thickness * mm) / Math.PI) - hub) / thickness;
  }

  private nextScrape(): number {
    const [near, far] = this.scrapeFeedback;
    const y = this.scrapeGain * this.random.normal() + near * this.scrape1 + far * this.scrape2;
    this.scrape2 = this.scrape1;
    this.scrape1 = y;
    return y;
  }
}
