"use client";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState, type ReactNode } from "react";

interface CorrectionMenuProps<T> {
  /** What was logged, which is pressed to correct it. */
  children: ReactNode;
  choices: Array<{ value: T; words: string }>;
  onCorrect(value: T): void;
}

/** A logged word or amount that can be corrected by choosing another. */
export function CorrectionMenu<T>({ children, choices, onCorrect }: CorrectionMenuProps<T>) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        size="small"
        color="inherit"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{
          minHeight: 28,
          py: 0,
          px: 0.5,
          flex: 1,
          justifyContent: "flex-start",
          textAlign: "left",
          fontSize: 14.5,
          fontWeight: 500,
        }}
      >
        {children}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {choices.map(({ value, words }) => (
          <MenuItem
            key={words}
            onClick={() => {
              setAnchor(null);
              onCorrect(value);
            }}
          >
            {words}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
