import { recordsTape } from "@/core/records/machine";
import { adviseBias } from "./bias-advice";
import { BIAS_QUANTITIES, biasReadings, type BiasQuantity } from "./bias-figures";
import { biasLimitOf } from "./bias-school";
import { BIAS_SCREWS, BIAS_SEQUENCE, BIAS_TONES, biasScrews } from "./bias-sides";
import { MAINS } from "./cautions";
import type { MeasuringStation } from "./station";

export const bias: MeasuringStation<"bias", BiasQuantity> = {
  id: BIAS_SCREWS.id,
  kind: "measure",
  name: "Bias",
  group: "record",
  quantities: BIAS_QUANTITIES,
  onRoute: recordsTape,
  deciding: () => ["bias.error"],
  limitOf: (machine, quantity) => (quantity === "bias.error" ? biasLimitOf(machine) : null),
  ownLimits: [{ key: "biasDb", label: "Own bias limit ±, dB", most: 10 }],
  corridorOf: () => null,
  apartBy: BIAS_SCREWS.apartBy,
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "turn", says: "turned, sets bias", actsOn: ["channel", "tapeType"] }],
  hears: {
    what: "sequence",
    flutter: false,
    role: null,
    sequence: BIAS_SEQUENCE.id,
    follows: [315, 10_000],
    steady: BIAS_TONES.id,
  },
  tapeLacks: () => null,
  upsets: ["bias", "record-level", "record-response", "distortion", "reduction", "settings"],
  readings: biasReadings,
  advise: adviseBias,
  seeksPeak: () => false,
  learns: biasScrews,
  nothingToTurn: "This machine has no bias trimmer written down.",
  setUp: [
    "Set record-head azimuth first; leave the record equaliser alone.",
    "Send the bias sequence and record it on the tape that will be used.",
    "Three heads: monitor the source for one pass, then the tape; or watch both tones off the tape while you turn. Two heads: record, rewind, play.",
  ],
  checks: [],
  caution: MAINS,
};
