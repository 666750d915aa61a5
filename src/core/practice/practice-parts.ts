import type { TransportParameters } from "@/core/simulator/transport-parameters";
import type { MachinePart } from "@/core/workshop/machine-part";

/** The rotating parts of a practice machine, as one would measure them with a calliper. */
export function practiceParts(p: TransportParameters): MachinePart[] {
  const tolerancePercent = 2;
  const reel = (name: string, which: "supply" | "take-up"): MachinePart => ({
    name,
    tolerancePercent,
    reel: which,
    hubRadiusMm: p["reel.hubRadiusMm"],
    fullRadiusMm: p["reel.fullRadiusMm"],
    tapeThicknessMicrometres: p["tape.thicknessMicrometres"],
  });
  return [
    { name: "capstan", tolerancePercent, tapeDiameterMm: p["capstan.diameterMm"] },
    { name: "pinch roller", tolerancePercent, tapeDiameterMm: p["pinchRoller.diameterMm"] },
    {
      name: "belt",
      tolerancePercent,
      beltLengthMm: p["belt.lengthMm"],
      pulleyPart: "capstan",
      pulleyDiameterMm: p["belt.pulleyDiameterMm"],
    },
    { name: "motor", tolerancePercent, ratioTo: "capstan", ratio: p["motor.perCapstanTurn"] },
    { name: "idler", tolerancePercent, ratioTo: "capstan", ratio: p["idler.perCapstanTurn"] },
    reel("supply reel", "supply"),
    reel("take-up reel", "take-up"),
  ];
}
