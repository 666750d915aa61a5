import type { RateLine } from "@/core/measure/rate-lines";

/** A part that turns at a fixed rate while the tape runs evenly. */
export interface FixedRate {
  name: string;
  rateHz: number;
  /** Standard deviation of that rate as a fraction: what the geometry leaves open. */
  sigma: number;
  poles?: number;
}

/** The lines of one part: order of the harmonic, place in the list of lines, and the power that is its own. */
export interface Comb {
  rateHz: number;
  members: Array<{ order: number; line: number; power: number }>;
  certainty: number;
  /** Parts that could as well be the one. */
  alternatives: string[];
}

/** Farther from the expected rate than so many standard deviations a line is not the part's. */
const FARTHEST = 2.6;
/** A comb ends after so many orders without a line. */
const MISSING_ORDERS = 2;
const HIGHEST_ORDER = 120;
/** So many lines in a row are a comb that no chance makes. */
const PLAIN_COMB = 4;
/** A line so many times as strong as its neighbours in the comb has something else in it. */
const STICKS_OUT = 3;
const ALIKE = 0.25;
const UNMATCHED_COST = FARTHEST ** 2;

/**
 * Which line belongs to which part. Combs that stand out come first, since their lines explain themselves; then
 * the lines that are left are matched to the parts that are left, in order of rate, as closely as the geometry
 * allows; then each part takes its harmonics. A part without a line of its own is not in the answer.
 */
export function matchLines(lines: RateLine[], parts: FixedRate[], resolutionHz: number): Map<string, Comb> {
  const found = new Map<string, Comb>();
  const taken = new Set<number>();
  const near = 0.6 * resolutionHz;
  const z = (part: FixedRate, rateHz: number) => (rateHz / part.rateHz - 1) / part.sigma;

  const combFrom = (part: FixedRate, start: number): Comb["members"] => {
    const members = [{ order: 1, line: start, power: lines[start].power }];
    let rate = lines[start].rateHz;
    for (let order = 2, last = 1; order <= HIGHEST_ORDER; order++) {
      const ripple = part.poles !== undefined && order % part.poles === 0 && order <= 3 * part.poles;
      if (order - last > MISSING_ORDERS + 1 && !ripple) {
        if (part.poles === undefined || order > 3 * part.poles) break;
        continue;
      }
      const at = closest(lines, order * rate);
      if (at === null || taken.has(at) || Math.abs(lines[at].rateHz - order * rate) > near) continue;
      members.push({ order, line: at, power: lines[at].power });
      if (!ripple) last = order;
      rate = fittedRate(members, lines);
    }
    return members;
  };
  const settle = (part: FixedRate, members: Comb["members"]) => {
    found.set(part.name, { rateHz: fittedRate(members, lines), members, certainty: 1, alternatives: [] });
    for (const { line } of members) taken.add(line);
  };

  // combs that stand out, longest first
  const plain = parts
    .flatMap((part) =>
      lines.flatMap((line, k) => {
        const away = z(part, line.rateHz);
        if (Math.abs(away) > FARTHEST) return [];
        const members = combFrom(part, k);
        return members.length >= PLAIN_COMB ? [{ part, members, away: Math.abs(away) }] : [];
      }),
    )
    .sort((a, b) => b.members.length - a.members.length || a.away - b.away);
  for (const { part, members } of plain) {
    if (found.has(part.name) || members.some(({ line }) => taken.has(line))) continue;
    // a comb whose lines are every second one of a comb with a part of its own is that other part's
    const nearest = parts
      .filter(
        (other) => !found.has(other.name) && Math.abs(z(other, lines[members[0].line].rateHz)) <= FARTHEST,
      )
      .reduce((a, b) =>
        Math.abs(z(b, lines[members[0].line].rateHz)) < Math.abs(z(a, lines[members[0].line].rateHz)) ? b : a,
      );
    settle(nearest, members);
  }
  // what sticks out of a comb is another part's, with the rest of the line left to the comb
  const shared = new Map<number, number>();
  for (const comb of found.values())
    for (const member of comb.members) {
      const beside = comb.members.filter(
        (m) => m !== member && Math.abs(m.order - member.order) <= 2 && m.order !== 0,
      );
      if (member.order === 1 || beside.length < 2) continue;
      const usual = geometricMean(beside.map((m) => m.power));
      if (member.power < STICKS_OUT * usual) continue;
      shared.set(member.line, member.power - usual);
      member.power = usual;
      taken.delete(member.line);
    }

  const left = parts.filter(({ name }) => !found.has(name)).sort((a, b) => a.rateHz - b.rateHz);
  const free = lines.map((_, k) => k).filter((k) => !taken.has(k));
  for (const [part, line] of inOrder(left, free, (p, k) => z(p, lines[k].rateHz) ** 2)) {
    found.set(part.name, {
      rateHz: lines[line].rateHz,
      members: [{ order: 1, line, power: shared.get(line) ?? lines[line].power }],
      certainty: 1,
      alternatives: [],
    });
    taken.add(line);
  }
  // harmonics of what has one line so far, the parts with the strongest line first
  for (const [name, comb] of [...found].sort((a, b) => b[1].members[0].power - a[1].members[0].power)) {
    const part = parts.find((p) => p.name === name) as FixedRate;
    if (comb.members.length > 1) continue;
    const [first] = comb.members;
    const more = combFrom(part, first.line).slice(1);
    comb.members.push(...more);
    comb.rateHz = fittedRate(comb.members, lines);
    for (const { line } of more) taken.add(line);
  }

  for (const [name, comb] of found) {
    const part = parts.find((p) => p.name === name) as FixedRate;
    const likelihood = (p: FixedRate) => Math.exp(-0.5 * z(p, comb.rateHz) ** 2);
    const rivals = parts.filter(
      (p) => p !== part && !found.has(p.name) && Math.abs(z(p, comb.rateHz)) <= FARTHEST,
    );
    const own = likelihood(part);
    const chance = Math.exp(-0.5 * FARTHEST ** 2);
    comb.certainty = own / (own + chance + rivals.reduce((sum, p) => sum + likelihood(p), 0));
    comb.alternatives = rivals.filter((p) => likelihood(p) > ALIKE * own).map((p) => p.name);
  }
  return found;
}

/** Rate from all orders together: the high ones know it best. */
function fittedRate(members: Comb["members"], lines: RateLine[]): number {
  let top = 0;
  let bottom = 0;
  for (const { order, line } of members) {
    const weight = Math.min(lines[line].aboveFloor, 1e4);
    top += weight * order * lines[line].rateHz;
    bottom += weight * order * order;
  }
  return top / bottom;
}

function closest(lines: RateLine[], rateHz: number): number | null {
  let best: number | null = null;
  lines.forEach((line, k) => {
    if (best === null || Math.abs(line.rateHz - rateHz) < Math.abs(lines[best].rateHz - rateHz)) best = k;
  });
  return best;
}

const geometricMean = (values: number[]): number =>
  Math.exp(values.reduce((sum, v) => sum + Math.log(Math.max(v, 1e-30)), 0) / values.length);

/**
 * Pairs two sorted lists without crossing, so that the sum of costs is least; what costs more than leaving a part
 * alone stays alone.
 */
function inOrder<A, B>(parts: A[], lines: B[], cost: (a: A, b: B) => number): Array<[A, B]> {
  const rows = parts.length + 1;
  const columns = lines.length + 1;
  const best = new Float64Array(rows * columns);
  const step = new Uint8Array(rows * columns);
  for (let i = 1; i < rows; i++) {
    best[i * columns] = i * UNMATCHED_COST;
    step[i * columns] = 1;
  }
  for (let j = 1; j < columns; j++) step[j] = 2;
  for (let i = 1; i < rows; i++)
    for (let j = 1; j < columns; j++) {
      const price = cost(parts[i - 1], lines[j - 1]);
      const options = [
        price <= UNMATCHED_COST ? best[(i - 1) * columns + j - 1] + price : Infinity,
        best[(i - 1) * columns + j] + UNMATCHED_COST,
        best[i * columns + j - 1],
      ];
      const least = Math.min(...options);
      best[i * columns + j] = least;
      step[i * columns + j] = options.indexOf(least);
    }
  const pairs: Array<[A, B]> = [];
  for (let i = rows - 1, j = columns - 1; i > 0 || j > 0;) {
    const way = step[i * columns + j];
    if (way === 0) pairs.push([parts[--i], lines[--j]]);
    else if (way === 1) i--;
    else j--;
  }
  return pairs;
}
