import { readFile, stat } from "node:fs/promises";
import { ImportError, MOST_TEXT_BYTES } from "@/core/formats/import-error";
import { fileTrouble, isMissing } from "./file-trouble";

/** The text of a file. @throws ImportError in a sentence where it cannot be read, or is far too large to be text */
export async function textOfFile(path: string): Promise<string> {
  try {
    const { size } = await stat(path);
    if (size > MOST_TEXT_BYTES)
      throw new ImportError(`${path} is larger than any file of this kind. Choose another file.`);
    return await readFile(path, "utf8");
  } catch (error) {
    if (error instanceof ImportError) throw error;
    throw new ImportError(
      isMissing(error) ? `There is no file ${path}.` : `${path} cannot be read: ${fileTrouble(error)}`,
    );
  }
}
