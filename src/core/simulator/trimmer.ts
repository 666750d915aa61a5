/**
 * A trimmer with slack and stops. What the screwdriver does and what the spindle does differ by the backlash:
 * after a change of direction the first part of a turn moves nothing.
 */
export class Trimmer {
  /** Where the screwdriver slot points, in turns clockwise from the middle. */
  slotTurns = 0;
  /** Where the spindle that sets the speed is. */
  spindleTurns = 0;

  constructor(
    private readonly backlashTurns: number,
    private readonly rangeTurns: number,
  ) {}

  get atStop(): boolean {
    return Math.abs(this.spindleTurns) >= this.rangeTurns;
  }

  /** Turns the slot, clockwise positive, as far as the stops let it go; returns how far it went. */
  turn(turns: number): number {
    const before = this.slotTurns;
    const slack = this.backlashTurns / 2;
    const limit = this.rangeTurns + slack;
    this.slotTurns = Math.max(-limit, Math.min(limit, before + turns));
    this.spindleTurns = Math.max(this.slotTurns - slack, Math.min(this.slotTurns + slack, this.spindleTurns));
    return this.slotTurns - before;
  }
}
