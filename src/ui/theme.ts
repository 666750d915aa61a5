"use client";
import { createTheme } from "@mui/material/styles";

/** The colours of one theme. Left and right are the two channels, everywhere. */
interface Tokens {
  oxide: string;
  onOxide: string;
  leader: string;
  line: string;
  window: string;
  left: string;
  right: string;
  settled: string;
  close: string;
  fail: string;
  stale: string;
}

declare module "@mui/material/styles" {
  interface Palette {
    tape: Tokens;
  }
  interface PaletteOptions {
    tape?: Tokens;
  }
  interface CssThemeVariables {
    enabled: true;
  }
}

const paper: Tokens = {
  oxide: "#7c3f22",
  onOxide: "#fffdf8",
  leader: "#fbf8f1",
  line: "#d3c9b8",
  window: "#d9e8cd",
  left: "#0f6b66",
  right: "#7a2a68",
  settled: "#35692d",
  close: "#7f5200",
  fail: "#b02a1c",
  stale: "#666b73",
};

const lamp: Tokens = {
  oxide: "#dc9a6c",
  onOxide: "#1b1411",
  leader: "#2a2e33",
  line: "#43494f",
  window: "#30452a",
  left: "#5cc7bf",
  right: "#d58cc4",
  settled: "#8cc57d",
  close: "#e0ad4f",
  fail: "#f08a78",
  stale: "#a3a9b0",
};

// the second of each has the prime, micro, ohm and Greek letters that the first one lacks
export const TEXT_FONT = '"Atkinson Hyperlegible Next Variable", "Noto Sans Variable", sans-serif';
export const READING_FONT = '"Atkinson Hyperlegible Mono Variable", "Noto Sans Mono Variable", monospace';

export const theme = createTheme({
  cssVariables: { cssVarPrefix: "unzel", colorSchemeSelector: "data-theme" },
  defaultColorScheme: "light",
  colorSchemes: {
    light: {
      palette: {
        tape: paper,
        primary: { main: paper.oxide, contrastText: paper.onOxide },
        error: { main: paper.fail },
        warning: { main: paper.close },
        success: { main: paper.settled },
        background: { default: "#f3eee4", paper: "#fffdf8" },
        text: { primary: "#20262e", secondary: "#535b66" },
        divider: paper.line,
      },
    },
    dark: {
      palette: {
        tape: lamp,
        primary: { main: lamp.oxide, contrastText: lamp.onOxide },
        error: { main: lamp.fail },
        warning: { main: lamp.close },
        success: { main: lamp.settled },
        background: { default: "#15171a", paper: "#1f2226" },
        text: { primary: "#f0e9dc", secondary: "#b0afa8" },
        divider: lamp.line,
      },
    },
  },
  typography: {
    fontFamily: TEXT_FONT,
    h1: { fontSize: "1.4rem", fontWeight: 750 },
    h2: { fontSize: "1.1rem", fontWeight: 700 },
    h3: { fontSize: "0.85rem", fontWeight: 600 },
    button: { textTransform: "none", fontWeight: 650 },
  },
  shape: { borderRadius: 8 },
  components: {
    MuiButton: { defaultProps: { disableElevation: true }, styleOverrides: { root: { minHeight: 44 } } },
    MuiIconButton: { styleOverrides: { root: { minWidth: 44, minHeight: 44 } } },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiPaper: { styleOverrides: { root: { backgroundImage: "none" } } },
    MuiCssBaseline: {
      styleOverrides: {
        "@media (prefers-reduced-motion: reduce)": {
          "*": { transition: "none !important", animation: "none !important" },
        },
        body: { fontVariantNumeric: "tabular-nums" },
      },
    },
  },
});

/** A token as a CSS variable, for drawings. */
export const token = (name: keyof Tokens): string => `var(--unzel-palette-tape-${name})`;
export const INK = "var(--unzel-palette-text-primary)";
export const SOFT = "var(--unzel-palette-text-secondary)";
export const GROUND = "var(--unzel-palette-background-default)";
