import type { SheetStation } from "./station";

export const sheet: SheetStation<"sheet"> = {
  id: "sheet",
  kind: "sheet",
  name: "Sheet",
  group: "finish",
  upsets: [],
  setUp: [],
  checks: [],
  caution: null,
};
