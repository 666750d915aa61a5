import type { ChecklistStation } from "./station";
import { MAINS } from "./cautions";

export const service: ChecklistStation<"service"> = {
  id: "service",
  kind: "checklist",
  takesApart: true,
  name: "Service",
  group: "workshop",
  upsets: ["speed", "flutter", "azimuth"],
  setUp: ["Mechanics first: an alignment on worn rubber does not last."],
  checks: [
    "Belts, idlers and pinch roller cleaned or replaced",
    "Bearings free and lubricated",
    "Switches, contacts and battery terminals clean",
  ],
  caution: MAINS,
};
