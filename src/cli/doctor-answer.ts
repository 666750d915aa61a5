import { explainResponse } from "@/core/advice/response-doctor";
import { ImportError } from "@/core/formats/import-error";
import { readResponseCsv } from "@/core/formats/response-csv";
import { timeConstants } from "@/core/reference/reference-tape";
import { headRemedy } from "@/core/workshop/head-remedy";
import { textOfFile } from "./text-file";

interface CurveOptions {
  speedCmPerS: number;
  equalisation: string | undefined;
  inductanceMh: number | undefined;
}

/** What `measure doctor` prints of a response curve. @throws ImportError with a sentence for a file that cannot be used */
export async function doctorAnswer(file: string, { speedCmPerS, equalisation, inductanceMh }: CurveOptions) {
  const points = readResponseCsv(await textOfFile(file));
  const constants = timeConstants(equalisation, speedCmPerS);
  try {
    const findings = explainResponse(points, { speedCmPerS, equalisation: constants });
    const [first] = findings.explanations;
    const top = first.fittedDb.at(-1) ?? 0;
    return {
      speedCmPerS,
      equalisation: `${constants.t1Microseconds}/${constants.t2Microseconds}`,
      points: points.length,
      ...findings,
      ...(inductanceMh !== undefined && {
        inductanceMh,
        capacitor: headRemedy(
          inductanceMh / 1000,
          -top,
          points.map(({ frequencyHz }) => frequencyHz),
        ),
      }),
    };
  } catch (error) {
    if (error instanceof RangeError) throw new ImportError(`${file}: ${error.message}`);
    throw error;
  }
}
