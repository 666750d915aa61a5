import { playOn } from "./play-on";
import { guideSound, REFERENCE_HZ } from "@/core/guidance/guide-tone";

const LOUDNESS = 0.06;
const GLIDE_SECONDS = 0.08;

/** Two quiet tones in the headphones: a steady reference and one that moves with the reading. */
export class GuideTone {
  private readonly context = new AudioContext();
  private readonly moving = this.context.createOscillator();
  private readonly reference = this.context.createOscillator();
  private readonly loudness = this.context.createGain();
  private readonly side = this.context.createStereoPanner();

  /** @param outputId the device to play on; null for the default one */
  constructor(outputId: string | null) {
    const { context, moving, reference, loudness, side } = this;
    const quiet = context.createGain();
    quiet.gain.value = LOUDNESS / 3;
    reference.frequency.value = REFERENCE_HZ;
    reference.connect(quiet).connect(context.destination);
    loudness.gain.value = 0;
    moving.connect(loudness).connect(side).connect(context.destination);
    void this.start(outputId);
  }

  /** Nothing sounds before it is on the output that was chosen; one that is gone plays nothing. */
  private async start(outputId: string | null): Promise<void> {
    const { context, moving, reference } = this;
    try {
      await playOn(context, outputId);
      if (context.state === "closed") return;
      moving.start();
      reference.start();
      await context.resume();
    } catch {
      this.stop();
    }
  }

  /** Null while there is no reading: only the reference sounds. */
  follow(distance: number | null, window: number): void {
    const now = this.context.currentTime;
    if (distance === null) {
      this.loudness.gain.setTargetAtTime(0, now, GLIDE_SECONDS);
      return;
    }
    const { frequencyHz, beatHz, pan } = guideSound(distance, window);
    // beside the reference, a tone that is off by the beat makes the beat by itself
    this.moving.frequency.setTargetAtTime(frequencyHz + beatHz, now, GLIDE_SECONDS);
    this.side.pan.setTargetAtTime(pan, now, GLIDE_SECONDS);
    this.loudness.gain.setTargetAtTime(LOUDNESS, now, GLIDE_SECONDS);
  }

  stop(): void {
    if (this.context.state !== "closed") void this.context.close();
  }
}
