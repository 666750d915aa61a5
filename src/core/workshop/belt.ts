import * as z from "@/core/text/zod";

/** Sections grip differently even when their areas are equal. */
export const BELT_SECTIONS = ["square", "round", "flat"] as const;
export type BeltSection = (typeof BELT_SECTIONS)[number];

export interface BeltPath {
  /** Outside diameters of the two pulleys where the belt runs, and the distance of their centres, millimetres. */
  largePulleyMm: number;
  smallPulleyMm: number;
  centreDistanceMm: number;
}

/** Workable stretch of a new belt, percent of its length at rest, and what to aim at. */
export const STRETCH = { least: 3, most: 8, best: 5 };

/**
 * Length of an open belt over two pulleys: L = 2√(C² − ((D−d)/2)²) + π(D+d)/2 + (D−d)·asin((D−d)/2C).
 * @throws RangeError when the pulleys would overlap
 */
export function openBeltLength({
  largePulleyMm: D,
  smallPulleyMm: d,
  centreDistanceMm: C,
}: BeltPath): number {
  const half = (D - d) / 2;
  if (!(C > (D + d) / 2))
    throw new RangeError(
      `pulleys of ${D} and ${d} mm need their centres more than ${(D + d) / 2} mm apart, not ${C} mm`,
    );
  return 2 * Math.sqrt(C * C - half * half) + (Math.PI * (D + d)) / 2 + (D - d) * Math.asin(half / C);
}

/** Inside length of a new belt that is stretched by `stretchPercent` on a path. */
export const beltForPath = (pathMm: number, stretchPercent = STRETCH.best): number =>
  pathMm / (1 + stretchPercent / 100);

/**
 * Length that an old belt had when new, from its length at rest: less what it has set for good, with the error of the
 * gauge put right.
 * @param gaugeOffsetMm what the gauge reads too much
 */
export const lengthWhenNew = (measuredMm: number, gaugeOffsetMm: number, setPercent: number): number =>
  (measuredMm - gaugeOffsetMm) / (1 + setPercent / 100);

/** Stretch on a path, percent of the length at rest. */
export const stretchOn = (pathMm: number, restMm: number): number => 100 * (pathMm / restMm - 1);

/**
 * Change of speed by a belt of another thickness, percent: the belt runs on its neutral line, so the ratio is
 * (d + t)/(D + t) with d on the motor; about t·(1/d − 1/D).
 */
export function thicknessEffect(
  oldMm: number,
  newMm: number,
  motorPulleyMm: number,
  drivenPulleyMm: number,
): number {
  const ratio = (t: number) => (motorPulleyMm + t) / (drivenPulleyMm + t);
  return 100 * (ratio(newMm) / ratio(oldMm) - 1);
}

/** Share of the small pulley that the belt lies on, in degrees. */
export function wrapDegrees({ largePulleyMm: D, smallPulleyMm: d, centreDistanceMm: C }: BeltPath): number {
  return 180 - (2 * Math.asin((D - d) / 2 / C) * 180) / Math.PI;
}

/** Rubber on metal, clean; sections wedge or lie flat. */
const FRICTION: Record<BeltSection, number> = { square: 0.6, round: 0.5, flat: 0.65 };

/**
 * Pull that a belt can pass on at the small pulley before it slips, in newtons: T₁ − T₂ with T₁/T₂ = e^(µθ) and a
 * mean tension of modulus · area · stretch.
 * @param modulusMPa of the rubber, about 3 for the usual compound
 */
export function pullBeforeSlip(
  path: BeltPath,
  belt: { section: BeltSection; areaMm2: number; stretchPercent: number },
  modulusMPa = 3,
): number {
  const tension = (modulusMPa * belt.areaMm2 * Math.max(0, belt.stretchPercent)) / 100;
  const e = Math.exp((FRICTION[belt.section] * wrapDegrees(path) * Math.PI) / 180);
  return (2 * tension * (e - 1)) / (e + 1);
}

export const areaOf = (section: BeltSection, thicknessMm: number, widthMm = thicknessMm): number =>
  section === "round" ? (Math.PI * thicknessMm * thicknessMm) / 4 : thicknessMm * widthMm;

export const stockBeltSchema = z.object({
  name: z.string().trim().min(1, "every belt needs a name").max(80),
  section: z.enum(BELT_SECTIONS),
  insideMm: z.number().positive().max(5000),
  thicknessMm: z.number().positive().max(30),
  widthMm: z.number().positive().max(60).optional(),
  inStock: z.number().int().min(0).max(100_000).default(1),
});
export type StockBelt = z.infer<typeof stockBeltSchema>;

export interface BeltChoice {
  belt: StockBelt;
  stretchPercent: number;
  workable: boolean;
}

/** The belts of a section that are in stock, the best stretch first. */
export function chooseBelt(stock: StockBelt[], pathMm: number, section: BeltSection): BeltChoice[] {
  return stock
    .filter((belt) => belt.section === section && belt.inStock > 0)
    .map((belt) => {
      const stretchPercent = stretchOn(pathMm, belt.insideMm);
      return {
        belt,
        stretchPercent,
        workable: stretchPercent >= STRETCH.least && stretchPercent <= STRETCH.most,
      };
    })
    .sort((a, b) => Math.abs(a.stretchPercent - STRETCH.best) - Math.abs(b.stretchPercent - STRETCH.best));
}
