"use client";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import type { ReactNode } from "react";
import { ThemeSwitch } from "./theme-switch";

const PAGES = [
  ["Floor", "/"],
  ["Listen", "/listen"],
  ["Signals", "/signals"],
  ["Tapes", "/tapes"],
  ["Machines", "/machines"],
  ["Spares", "/spares"],
  ["Rules", "/rules"],
  ["Sound card", "/settings"],
  ["Backup", "/backup"],
] as const;

interface PageFrameProps {
  title: (typeof PAGES)[number][0];
  actions?: ReactNode;
  children: ReactNode;
}

/** A page that belongs to no job: the way to the other pages on top, what can be done here at the right. */
export function PageFrame({ title, actions, children }: PageFrameProps) {
  return (
    <Box sx={{ maxWidth: 1320, mx: "auto", px: { xs: 2, md: 3.5 }, pb: 6 }}>
      <Box
        component="header"
        sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", gap: 1, minHeight: 68, mb: 0.5 }}
      >
        <Typography component="span" sx={{ fontSize: 24, fontWeight: 780, letterSpacing: "-0.02em", mr: 1 }}>
          Unzel
        </Typography>
        <Box component="nav" aria-label="Pages" sx={{ display: "flex", flexWrap: "wrap" }}>
          {PAGES.map(([name, href]) => (
            <Box
              key={href}
              component={Link}
              href={href}
              aria-current={name === title ? "page" : undefined}
              sx={{
                display: "flex",
                alignItems: "center",
                minHeight: 44,
                px: 1.25,
                color: name === title ? "text.primary" : "text.secondary",
                fontWeight: name === title ? 700 : 500,
                textDecoration: "none",
                borderBottom: 3,
                borderColor: name === title ? "primary.main" : "transparent",
                "&:hover": { color: "text.primary" },
              }}
            >
              {name === title ? <h1 style={{ font: "inherit", margin: 0 }}>{name}</h1> : name}
            </Box>
          ))}
        </Box>
        <Box sx={{ flex: 1 }} />
        <ThemeSwitch />
        {actions}
      </Box>
      <main>{children}</main>
    </Box>
  );
}
