import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { apartBeside, nameOf, openAssembly } from "@/core/workshop/strip-down";
import { STRIP_KINDS, type StripEntry, type StripKind } from "@/core/workshop/strip-entry";
import { KeyCap } from "@/ui/key-cap";
import { KindGlyph } from "./kind-glyph";

/** Each kind with its key: 1 to 9, then 0. */
export const KIND_KEYS: ReadonlyArray<[key: string, kind: StripKind]> = STRIP_KINDS.map((kind, i) => [
  String((i + 1) % 10),
  kind,
]);

interface KindKeysProps {
  log: readonly StripEntry[];
  onKind(kind: StripKind): void;
  onApart(): void;
}

/** One large button for each kind of thing that comes off, and from where it is taken. */
export function KindKeys({ log, onKind, onApart }: KindKeysProps) {
  const open = openAssembly(log);
  const beside = open ? apartBeside(log, open) : [];
  return (
    <>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap", mb: 0.75 }}>
        <Box sx={{ fontSize: 21, fontWeight: 700 }}>
          What comes off {open ? nameOf(open) : "the machine"} next?
        </Box>
        {open && (
          <Button size="small" color="inherit" variant="outlined" onClick={onApart}>
            All of it is off<KeyCap>U</KeyCap>
          </Button>
        )}
      </Box>
      {beside.length > 0 && (
        <Box role="status" sx={{ color: "warning.main", fontWeight: 650, mb: 0.75 }}>
          {nameOf(beside[0])} lies apart as well, with its own parts: close it first, or give each its own
          tray.
        </Box>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(5, minmax(0, 1fr))", gap: 0.75 }}>
        {KIND_KEYS.map(([key, kind]) => (
          <Box
            component="button"
            type="button"
            key={kind}
            onClick={() => onKind(kind)}
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 0.75,
              minHeight: 54,
              px: 0.75,
              font: "inherit",
              fontSize: 15,
              lineHeight: 1.1,
              fontWeight: 650,
              textAlign: "left",
              color: "text.primary",
              cursor: "pointer",
              bgcolor: "tape.leader",
              border: 1,
              borderColor: "divider",
              borderRadius: 1,
              "&:hover": { borderColor: "primary.main" },
            }}
          >
            <KindGlyph kind={kind} size={24} />
            <Box sx={{ flex: 1, minWidth: 0, "&::first-letter": { textTransform: "uppercase" } }}>{kind}</Box>
            <Box sx={{ "& kbd": { ml: 0, px: 0.5 } }}>
              <KeyCap>{key}</KeyCap>
            </Box>
          </Box>
        ))}
      </Box>
    </>
  );
}
