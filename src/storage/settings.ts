import * as z from "@/core/text/zod";
import { database } from "./database";
import { writes } from "./kept-writes";

const settingsSchema = z.object({
  inputId: z.string().nullable().default(null),
  outputId: z.string().nullable().default(null),
  /** Of sound kept with each logged reading; 0 keeps none. */
  evidenceSeconds: z.number().min(0).max(300).default(30),
  /** How many seconds of tape the practice machine plays in a second. */
  practicePace: z.union([z.literal(1), z.literal(2), z.literal(4)]).default(1),
});
export type Settings = z.infer<typeof settingsSchema>;

export const DEFAULT_SETTINGS: Settings = settingsSchema.parse({});

/** What this browser was set to; anything unreadable falls back to how it comes. */
export async function readSettings(): Promise<Settings> {
  const kept = await database.settings.get("settings");
  return settingsSchema.safeParse(kept?.value).data ?? DEFAULT_SETTINGS;
}

export async function changeSettings(changes: Partial<Settings>): Promise<void> {
  await writes.write("a setting", () =>
    database.transaction("rw", database.settings, async () => {
      const value = settingsSchema.parse({ ...(await readSettings()), ...changes });
      await database.settings.put({ id: "settings", value });
    }),
  );
}
