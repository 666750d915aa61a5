import Paper from "@mui/material/Paper";
import Typography from "@mui/material/Typography";
import { useId, type ReactNode } from "react";

interface CardProps {
  title: string;
  tone?: "plain" | "oxide" | "warning";
  grow?: boolean;
  children: ReactNode;
}

const BORDER = { plain: "divider", oxide: "primary.main", warning: "warning.main" };
const TITLE = { plain: "text.secondary", oxide: "primary.main", warning: "warning.main" };

/** A titled piece of the bench or of a page. */
export function Card({ title, tone = "plain", grow = false, children }: CardProps) {
  const id = useId();
  return (
    <Paper
      component="section"
      aria-labelledby={id}
      elevation={0}
      sx={{
        border: tone === "oxide" ? 2 : 1,
        borderColor: BORDER[tone],
        p: 1.75,
        flex: grow ? "1 1 auto" : "none",
        minWidth: 0,
      }}
    >
      <Typography id={id} component="h2" variant="h3" sx={{ color: TITLE[tone], mb: 0.75 }}>
        {title}
      </Typography>
      {children}
    </Paper>
  );
}
