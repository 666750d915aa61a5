"use client";
import Box from "@mui/material/Box";
import { createContext, useContext } from "react";
import { Missing } from "./missing";

/** Whether the storage stands as it will: on a first visit the demo workshop is still being put there. */
export const StorageReady = createContext(false);

/** In the place of a job that is not in this browser, once that can be known. */
export function MissingJob() {
  if (!useContext(StorageReady))
    return <Box sx={{ p: 6, color: "text.secondary" }}>Looking for the job…</Box>;
  return <Missing what="This job is not in this browser." />;
}
