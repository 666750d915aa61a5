import type { TransportParameters } from "./transport-parameters";

/** A clean erase head with all of its current. */
const SOUND_ERASE_DB = 66;
export const SOUND_MULTIPLEX_HZ = 16_800;
const SOUND_CROSSTALK_DB = -56;

/** What of a machine is right again after work of the names of `usual-work`. */
export function repaired(work: string, parameters: TransportParameters): Partial<TransportParameters> {
  switch (work) {
    case "clean-head":
      return { "head.spacingMicrometres": 0 };
    case "new-head":
      return { "head.gapMicrometres": parameters["head.builtForGapMicrometres"] };
    case "head-capacitor":
      return { "head.resonanceHz": parameters["head.builtForResonanceHz"] };
    case "demagnetise":
      return { "head.magnetised": 0 };
    case "record-capacitors":
      return { "record.amplifierThirdPercent": 0 };
    case "erase-head":
      return { "erase.depthDb": SOUND_ERASE_DB, "erase.reverseWeakerDb": 0 };
    case "oscillator":
      return { "oscillator.amplitudeDb": 0, "oscillator.diesAfterSeconds": 0 };
    case "reduction":
      return { "reduction.leftErrorDb": 0, "reduction.rightErrorDb": 0 };
    case "multiplex-filter":
      return { "multiplex.cornerHz": SOUND_MULTIPLEX_HZ };
    case "head-height":
      return { "head.otherSideDb": -120 };
    case "separation":
      return { "head.crosstalkDb": SOUND_CROSSTALK_DB };
    case "contact":
      return { "contact.jumpDb": 0 };
    default:
      return {};
  }
}
