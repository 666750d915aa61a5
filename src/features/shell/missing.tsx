"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";

/** A page for what is not there or could not be shown, with the way back. */
export function Missing({ what }: { what: string }) {
  return (
    <Box component="main" sx={{ maxWidth: 620, mx: "auto", py: 12, px: 3 }}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        {what}
      </Typography>
      <Button variant="contained" component={Link} href="/">
        Back to the floor
      </Button>
    </Box>
  );
}
