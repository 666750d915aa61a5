"use client";
import Button from "@mui/material/Button";
import { useColorScheme } from "@mui/material/styles";
import useMediaQuery from "@mui/material/useMediaQuery";

/** Day and dim workshop. */
export function ThemeSwitch() {
  const { mode, setMode } = useColorScheme();
  const systemDark = useMediaQuery("(prefers-color-scheme: dark)");
  if (!mode) return null;
  const dark = mode === "dark" || (mode === "system" && systemDark);
  return (
    <Button color="inherit" onClick={() => setMode(dark ? "light" : "dark")}>
      {dark ? "Paper" : "Lamp"}
    </Button>
  );
}
