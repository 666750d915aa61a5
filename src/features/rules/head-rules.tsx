"use client";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { monoSumDb, tiltOf } from "@/core/measure/azimuth";
import { capacitanceForLift, loadDb, resonanceHz } from "@/core/workshop/head-load";
import { nearestPreferred, parallel, parallelFor } from "@/core/workshop/preferred-values";
import {
  azimuthLossDb,
  coatingLossDb,
  gapLossDb,
  spacingLossDb,
  wavelengthMicrometres,
} from "@/core/workshop/tape-losses";
import { Card } from "@/ui/card";
import { ResponseChart } from "@/ui/response-chart";
import { useKeptForm } from "../use-kept-form";
import { AnswerLine } from "./answer-line";
import { FREQUENCIES } from "./frequencies";
import { typedNumbers } from "@/core/text/typed-number";
import { NumberRow } from "./number-row";

const LOSSES = { speed: "4.76", frequency: "10000", spacing: "0.5", gap: "1.2", coating: "4" };

/** Wavelength, and what spacing, gap and coating cost there. */
export function LossRule() {
  const { form, change } = useKeptForm("rule-losses", () => LOSSES);
  const { speed, frequency: hz, spacing, gap, coating } = typedNumbers(form);
  const valid = speed > 0 && hz > 0 && [spacing, gap, coating].every((one) => one >= 0);
  const at = (frequencyHz: number) => {
    const wavelength = wavelengthMicrometres(speed, frequencyHz);
    return {
      wavelength,
      spacing: spacingLossDb(spacing, wavelength),
      gap: gapLossDb(gap, wavelength),
      coating: coatingLossDb(coating, wavelength),
    };
  };
  const here = at(hz);
  const line = (label: string, of: (losses: ReturnType<typeof at>) => number, look: "model" | "plain") => ({
    label,
    look,
    points: FREQUENCIES.map((frequencyHz) => ({ frequencyHz, db: of(at(frequencyHz)) })),
  });
  const db = (value: number) => `${fixed(value, 1)}${THIN_SPACE}dB`;
  return (
    <Card title="Wavelength and losses">
      <NumberRow
        fields={[
          ["speed", "Speed, cm/s"],
          ["frequency", "Frequency, Hz"],
          ["spacing", "Spacing, µm"],
          ["gap", "Gap, µm"],
          ["coating", "Coating, µm"],
        ]}
        values={form}
        change={change}
      />
      {valid && (
        <>
          <AnswerLine
            value={`${fixed(here.wavelength, 2)}${THIN_SPACE}µm`}
            says={`long on the tape; spacing ${db(here.spacing)}, gap ${db(here.gap)}; the coating ${db(here.coating)} in recording`}
          />
          <ResponseChart
            label="Loss by spacing and gap"
            height={180}
            lines={[
              line("spacing and gap", ({ spacing: s, gap: g }) => Math.max(-40, s + g), "plain"),
              line("spacing alone", ({ spacing: s }) => Math.max(-40, s), "model"),
            ]}
          />
        </>
      )}
    </Card>
  );
}

const AZIMUTH = { phase: "30", frequency: "10000", spacing: "0.9", width: "0.6", speed: "4.76" };

/** What a phase between the channels means in time, tilt and loss. */
export function AzimuthRule() {
  const { form, change } = useKeptForm("rule-azimuth", () => AZIMUTH);
  const { phase, frequency: hz, spacing: spacingMm, width: widthMm, speed: speedCmPerS } = typedNumbers(form);
  const valid = Number.isFinite(phase) && [hz, spacingMm, widthMm, speedCmPerS].every((one) => one > 0);
  const delay = phase / 360 / hz;
  const tilt = tiltOf(delay, { spacingMm, speedCmPerS });
  return (
    <Card title="Azimuth">
      <NumberRow
        fields={[
          ["phase", "Phase, °"],
          ["frequency", "at, Hz"],
          ["spacing", "Track spacing, mm"],
          ["width", "Track width, mm"],
          ["speed", "Speed, cm/s"],
        ]}
        values={form}
        change={change}
      />
      {valid && (
        <AnswerLine
          value={`${fixed(tilt, 2, true)}′`}
          says={`of tilt, ${fixed(1e6 * delay, 1, true)} µs; mono sum ${fixed(monoSumDb(delay, hz), 1)} dB, each track ${fixed(azimuthLossDb(tilt, widthMm, wavelengthMicrometres(speedCmPerS, hz)), 1)} dB`}
        />
      )}
    </Card>
  );
}

const LOAD = { inductance: "100", capacitance: "470", resistance: "47", lift: "", at: "12500" };

/** Resonance of a head with what is across it, and the capacitor for a wanted lift. */
export function HeadLoadRule() {
  const { form, change } = useKeptForm("rule-head-load", () => LOAD);
  const { inductance: mh, capacitance: pf, resistance: kilohms, lift, at } = typedNumbers(form);
  const inductanceHenries = mh / 1000;
  const load = {
    inductanceHenries,
    capacitanceFarads: pf * 1e-12,
    resistanceOhms: form.resistance.trim() === "" ? Infinity : 1000 * kilohms,
  };
  const valid = mh > 0 && pf > 0 && load.resistanceOhms > 0;
  const wanted = mh > 0 && lift > 0 && at > 0 ? capacitanceForLift(inductanceHenries, at, lift) : null;
  const curve = (capacitanceFarads: number) =>
    FREQUENCIES.map((frequencyHz) => ({
      frequencyHz,
      db: loadDb({ ...load, capacitanceFarads }, frequencyHz),
    }));
  return (
    <Card title="Head and its load">
      <NumberRow
        fields={[
          ["inductance", "Head, mH"],
          ["capacitance", "Capacitance, pF"],
          ["resistance", "Resistor, kΩ"],
          ["lift", "Wanted lift, dB"],
          ["at", "at, Hz"],
        ]}
        values={form}
        change={change}
      />
      {valid && (
        <AnswerLine
          value={`${fixed(resonanceHz(inductanceHenries, load.capacitanceFarads) / 1000, 1)}${THIN_SPACE}kHz`}
          says={`resonance; Q ${fixed(load.resistanceOhms * Math.sqrt(load.capacitanceFarads / inductanceHenries), 1)}, ${fixed(loadDb(load, at), 1, true)} dB at ${at} Hz`}
        />
      )}
      {wanted !== null && (
        <AnswerLine
          value={`${fixed(nearestPreferred(wanted * 1e12), 0)}${THIN_SPACE}pF`}
          says={`in all, cable and head included, lifts ${at} Hz by ${lift} dB (exactly ${fixed(wanted * 1e12, 0)} pF, without a resistor)`}
        />
      )}
      {valid && (
        <ResponseChart
          label="Response of the head with its load"
          height={180}
          lines={[
            { label: "as it is", look: "plain", points: curve(load.capacitanceFarads) },
            ...(wanted === null
              ? []
              : [
                  {
                    label: `with ${fixed(nearestPreferred(wanted * 1e12), 0)} pF`,
                    look: "model" as const,
                    points: curve(nearestPreferred(wanted * 1e12) * 1e-12),
                  },
                ]),
          ]}
        />
      )}
    </Card>
  );
}

const PARTS = { present: "12", wanted: "10" };

/** What goes in parallel with a part that is there, to make the one that is wanted. */
export function PartsRule() {
  const { form, change } = useKeptForm("rule-parts", () => PARTS);
  const { present, wanted } = typedNumbers(form);
  const possible = wanted > 0 && present > wanted;
  const exact = possible ? parallelFor(present, wanted) : NaN;
  const nearest = possible ? nearestPreferred(exact, "E24") : NaN;
  return (
    <Card title="Parts in parallel and in series">
      <NumberRow
        fields={[
          ["present", "It is"],
          ["wanted", "It should be"],
        ]}
        values={form}
        change={change}
      />
      {possible ? (
        <AnswerLine
          value={String(nearest)}
          says={`in parallel with the resistor, or in series with the capacitor, makes ${fixed(parallel(present, nearest), 3)} (exactly ${fixed(exact, 2)})`}
        />
      ) : (
        present > 0 &&
        wanted > present && (
          <AnswerLine
            value={String(nearestPreferred(wanted - present, "E24"))}
            says={`in series with the resistor, or in parallel with the capacitor (exactly ${fixed(wanted - present, 3)})`}
          />
        )
      )}
    </Card>
  );
}
