"use client";
import { useColorScheme, useTheme } from "@mui/material/styles";

/**
 * Colours for a canvas, which does not know CSS variables: those of the theme that was chosen, not what the page shows
 * while it changes to it.
 */
export function useChartInk() {
  const { colorSchemes } = useTheme();
  const { colorScheme = "light" } = useColorScheme();
  const { text, divider, tape } = colorSchemes[colorScheme]!.palette;
  return {
    ink: text.primary,
    soft: text.secondary,
    line: divider,
    left: tape.left,
    right: tape.right,
    oxide: tape.oxide,
    window: tape.window,
  };
}
