import { describe, expect, it } from "vitest";
import { fluxivityBy, fluxivityDb } from "./fluxivity";
import {
  azimuthLossDb,
  coatingLossDb,
  gapLossDb,
  gapNullMicrometres,
  spacingLossDb,
  wavelengthMicrometres,
} from "./tape-losses";

describe("short wavelengths", () => {
  const TEN_K = wavelengthMicrometres(4.76, 10_000);

  it("10 kHz at 4.76 cm/s is 4.76 µm long", () => expect(TEN_K).toBeCloseTo(4.76, 9));

  it.each<[string, number, number]>([
    ["1 µm of dirt at 10 kHz", spacingLossDb(1, TEN_K), -11.47],
    ["ten arc-minutes on 0.6 mm", azimuthLossDb(10, 0.6, TEN_K), -2.0],
    [
      "a gap of half the wavelength, effective",
      gapLossDb(TEN_K / 2 / 1.14, TEN_K),
      20 * Math.log10(2 / Math.PI),
    ],
    [
      "a coating as deep as the wavelength ÷ 2π",
      coatingLossDb(TEN_K / (2 * Math.PI), TEN_K),
      20 * Math.log10(1 - Math.exp(-1)),
    ],
    ["nothing at all", spacingLossDb(0, TEN_K) + gapLossDb(0, TEN_K) + coatingLossDb(0, TEN_K), 0],
  ])("%s", (_, loss, db) => expect(loss).toBeCloseTo(db, 1));

  it("a gap has its first null where it is 1.14 times as long", () => {
    expect(gapLossDb(1.2, gapNullMicrometres(1.2))).toBeLessThan(-50);
  });
});

describe("fluxivity", () => {
  it("DIN calls 218 what ANSI calls 200 or nearly", () => {
    expect(fluxivityBy("din", 200, "ansi")).toBeCloseTo(219.3, 1);
    expect(
      Math.abs(fluxivityDb({ nwbPerM: 218, method: "din" }, { nwbPerM: 200, method: "ansi" })),
    ).toBeLessThan(0.1);
  });

  it.each([
    [250, 200, 1.94],
    [185, 370, -6.02],
  ])("%d over %d nWb/m is %d dB", (one, other, db) => {
    const ansi = (nwbPerM: number) => ({ nwbPerM, method: "ansi" as const });
    expect(fluxivityDb(ansi(one), ansi(other))).toBeCloseTo(db, 2);
  });
});
