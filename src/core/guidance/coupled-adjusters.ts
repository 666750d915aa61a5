import { Matrix, pseudoInverse } from "ml-matrix";
import { actsAt } from "@/core/records/job-speeds";
import type { Adjustment } from "@/core/records/adjustment";
import { inForce } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import type { Adjuster } from "@/core/records/machine";
import { effectOf, learnedTurns, type LearnedTurn } from "./turn-guidance";

/** The speed error at one tape speed, as far as it is known. */
export interface Place {
  speedCmPerS: number;
  /** Percent, less what is aimed at; null before any reading. */
  error: number | null;
  /** Magnitude within which nothing more is to be gained. */
  goodEnough: number;
}

/** An adjuster with what its turns did at each tape speed. */
export interface TriedAdjuster {
  adjuster: Adjuster;
  turnsAt: ReadonlyMap<number, LearnedTurn[]>;
  /** What those turns taught, percent a turn: 0 where it is said not to act, null where that was not seen yet. */
  perTurnAt: ReadonlyMap<number, number | null>;
  /** Turns made since the last reading at each tape speed. */
  sinceAt: ReadonlyMap<number, number>;
}

export interface CoupledAdvice {
  /** What to turn at the present speed; null when nothing acts there. */
  adjuster: Adjuster | null;
  /** Error to aim at here, percent: not nought when another adjuster is to do the rest. */
  aimPercent: number;
  /** A reading to take elsewhere first, and what for. */
  read: { speedCmPerS: number; why: "as found" | "effect" | "turn there" | "confirm" } | null;
  /** What the turn is going to do at the other speeds, percent. */
  elsewhere: Array<{ speedCmPerS: number; from: number; to: number }>;
  /** These adjusters cannot bring every speed right; the aim is the best there is. */
  compromise: boolean;
}

/** An adjuster is turned where it acts at least this share as strongly as anywhere. */
const AT_HOME = 0.6;
/** Singular values below about this share of the largest are noise: the adjusters do the same there. */
const SAME_EFFECT = 0.02;

/**
 * Which of several adjusters to turn next, when turning one moves the speed at more than one tape speed. The effects
 * learned so far make a matrix (places × adjusters, percent a turn); the turns that bring all places nearest to right
 * are its least squares solution, of least length where adjusters do the same. Nothing is proposed on an effect that
 * was not seen: what is missing is asked for instead.
 * @param toldId the adjuster that was told to be turned: as long as there is something left for it, it stays that one
 */
export function adviseCoupled(
  adjusters: TriedAdjuster[],
  places: Place[],
  presentCmPerS: number,
  toldId: string | null = null,
): CoupledAdvice {
  const here = adjusters.filter(({ adjuster }) => actsAt(adjuster, presentCmPerS));
  const others = places.filter(({ speedCmPerS }) => speedCmPerS !== presentCmPerS);
  const present = places.find(({ speedCmPerS }) => speedCmPerS === presentCmPerS);
  const advice = (over: Partial<CoupledAdvice>): CoupledAdvice => ({
    adjuster: here[0]?.adjuster ?? null,
    aimPercent: 0,
    read: null,
    elsewhere: [],
    compromise: false,
    ...over,
  });
  const tried = adjusters.filter(({ turnsAt }) => [...turnsAt.values()].some(({ length }) => length > 0));
  const unread = others.find(({ error }) => error === null);
  if (unread && tried.length === 0)
    return advice({ read: { speedCmPerS: unread.speedCmPerS, why: "as found" } });

  const unseen = firstUnseen(here, others);
  if (unseen) return advice({ adjuster: unseen.adjuster, read: unseen.read });

  const plan = solve(tried, places);
  const wrong = plan.places.filter(({ now, place }) => Math.abs(now) > place.goodEnough);
  if (wrong.length === 0) {
    if (unread) return advice({ read: { speedCmPerS: unread.speedCmPerS, why: "as found" } });
    const doubtful = others.find(({ speedCmPerS }) =>
      adjusters.some(({ sinceAt, adjuster }) => actsAt(adjuster, speedCmPerS) && sinceAt.get(speedCmPerS)),
    );
    return advice({ read: doubtful ? { speedCmPerS: doubtful.speedCmPerS, why: "confirm" } : null });
  }

  const left = plan.places.some(({ then, place }) => Math.abs(then) > place.goodEnough);
  if (left) {
    // one that was not turned anywhere yet is the likelier to do what the others could not
    const newestFirst = adjusters.toSorted((a, b) => Number(tried.includes(a)) - Number(tried.includes(b)));
    const unknownAt = (place: Place) => newestFirst.find((one) => effectAt(one, place) === null);
    const presentlyWrong = wrong.find(({ place }) => place === present);
    const untried = presentlyWrong && unknownAt(presentlyWrong.place);
    if (untried) return advice({ adjuster: untried.adjuster });
    const there = wrong.find(({ place }) => unknownAt(place));
    if (there) return advice({ read: { speedCmPerS: there.place.speedCmPerS, why: "turn there" } });
  }

  const moves = tried
    .map((one, i) => ({ one, turns: plan.turns[i], most: strongest(one, places) }))
    .filter(({ one, turns }) =>
      places.some((place) => Math.abs((effectAt(one, place) ?? 0) * turns) > place.goodEnough),
    )
    .sort((a, b) => Math.abs(b.most.effect * b.turns) - Math.abs(a.most.effect * a.turns));
  const atHome = moves.filter(
    ({ one, most }) => Math.abs(effectAt(one, present) ?? 0) >= AT_HOME * Math.abs(most.effect),
  );
  const move = atHome.find(({ one }) => one.adjuster.id === toldId) ?? atHome.at(0);
  if (!move) {
    const there = moves.at(0)?.most.place ?? (tried.length === 0 ? wrong[0].place : null);
    const atPresent = plan.places.find(({ place }) => place === present);
    return advice({
      compromise: left && tried.length > 0,
      // what is left here is for another adjuster, or is too little to turn for
      aimPercent: (there ? atPresent?.now : atPresent?.then) ?? 0,
      read: there ? { speedCmPerS: there.speedCmPerS, why: "turn there" } : null,
    });
  }
  const after = (place: Place) => (place.error ?? 0) + (effectAt(move.one, place) ?? 0) * move.turns;
  return advice({
    adjuster: move.one.adjuster,
    aimPercent: present ? after(present) : 0,
    compromise: left,
    elsewhere: plan.places
      .filter(({ place }) => place !== present && effectAt(move.one, place) !== null)
      .map(({ place, now }) => ({
        speedCmPerS: place.speedCmPerS,
        from: now,
        to: now + effectAt(move.one, place)! * move.turns,
      })),
  });
}

/** A place where the last turn of an adjuster may have done something that nobody has read yet. */
function firstUnseen(here: TriedAdjuster[], others: Place[]) {
  for (const one of here)
    for (const place of others) {
      const { speedCmPerS } = place;
      if (!actsAt(one.adjuster, speedCmPerS) || effectAt(one, place) !== null || place.error === null)
        continue;
      if (one.sinceAt.get(speedCmPerS)) return { ...one, read: { speedCmPerS, why: "effect" as const } };
    }
  return null;
}

/** Where an adjuster acts the most, and how: percent a turn. */
function strongest(one: TriedAdjuster, places: Place[]): { place: Place; effect: number } {
  const acts = places.map((place) => ({ place, effect: effectAt(one, place) ?? 0 }));
  return acts.reduce((best, next) => (Math.abs(next.effect) > Math.abs(best.effect) ? next : best));
}

const effectAt = ({ perTurnAt }: TriedAdjuster, place: Place | undefined): number | null =>
  (place && perTurnAt.get(place.speedCmPerS)) ?? null;

/** The turns of each adjuster that bring the places nearest to right, in units of what is good enough at each. */
function solve(tried: TriedAdjuster[], places: Place[]) {
  const read = places.filter(({ error }) => error !== null);
  const now = read.map(
    (place) =>
      place.error! +
      tried.reduce(
        (sum, one) => sum + (effectAt(one, place) ?? 0) * (one.sinceAt.get(place.speedCmPerS) ?? 0),
        0,
      ),
  );
  if (tried.length === 0 || read.length === 0)
    return { turns: [], places: read.map((place, j) => ({ place, now: now[j], then: now[j] })) };
  const effects = new Matrix(
    read.map((place) => tried.map((one) => (effectAt(one, place) ?? 0) / place.goodEnough)),
  );
  const wanted = Matrix.columnVector(read.map((place, j) => -now[j] / place.goodEnough));
  const turns = pseudoInverse(effects, SAME_EFFECT).mmul(wanted).to1DArray();
  const then = (place: Place, j: number) =>
    now[j] + tried.reduce((sum, one, i) => sum + (effectAt(one, place) ?? 0) * turns[i], 0);
  return { turns, places: read.map((place, j) => ({ place, now: now[j], then: then(place, j) })) };
}

/** What was read and turned at one tape speed. */
export interface AtSpeed {
  speedCmPerS: number;
  /** Of the speed error, oldest first. */
  readings: readonly Reading[];
  adjustments: readonly Adjustment[];
}

/** What the records of a job tell of an adjuster at each of its tape speeds. */
export function triedAdjuster(
  adjuster: Adjuster,
  atSpeeds: readonly AtSpeed[],
  before: ReadonlyMap<number, LearnedTurn[]> = new Map(),
): TriedAdjuster {
  const turnsAt = new Map<number, LearnedTurn[]>();
  const perTurnAt = new Map<number, number | null>();
  const sinceAt = new Map<number, number>();
  for (const { speedCmPerS, readings, adjustments } of atSpeeds) {
    const learned = learnedTurns(readings, adjustments, adjuster.id);
    const turned = [...(before.get(speedCmPerS) ?? []), ...learned];
    turnsAt.set(speedCmPerS, turned);
    const seen = turned.length === 0 ? null : (effectOf(turned)?.perTurn ?? 0);
    perTurnAt.set(speedCmPerS, actsAt(adjuster, speedCmPerS) ? seen : 0);
    const last = readings.at(-1)?.at ?? "";
    const since = inForce(adjustments).filter((a) => a.adjusterId === adjuster.id && a.at > last);
    sinceAt.set(
      speedCmPerS,
      since.reduce((sum, { turns }) => sum + (turns ?? 0), 0),
    );
  }
  return { adjuster, turnsAt, perTurnAt, sinceAt };
}
