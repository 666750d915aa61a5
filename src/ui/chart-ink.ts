"use client";
import { useColorScheme, useTheme } from "@mui/material/styles";

/** Colours for a canvas, which does not know CSS variables; the component draws anew when the theme changes. */
export function useChartInk() {
  const { vars } = useTheme();
  useColorScheme();
  const { palette } = vars ?? {};
  return {
    ink: resolved(palette?.text.primary),
    soft: resolved(palette?.text.secondary),
    line: resolved(palette?.divider),
    left: resolved(palette?.tape.left),
    right: resolved(palette?.tape.right),
    oxide: resolved(palette?.tape.oxide),
    window: resolved(palette?.tape.window),
  };
}

/** What a variable stands for now. */
function resolved(value: string | undefined): string {
  const name = /var\((--[^,)]+)/.exec(value ?? "")?.[1];
  if (!name || typeof document === "undefined") return value ?? "";
  return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
}
