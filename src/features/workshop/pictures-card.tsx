"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import { useRef } from "react";
import { changeJobPictures } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { useBenchKeys } from "../bench/use-bench-keys";
import { KeptPictures } from "./kept-pictures";
import { PictureButton } from "./picture-button";
import { useAddPicture } from "./use-add-picture";

interface PicturesCardProps {
  jobId: string;
  of: Parameters<typeof changeJobPictures>[1];
  ids: readonly string[];
  title: string;
  /** The title while there is none. */
  none: string;
  /** What they show. */
  shows: string;
}

/** Pictures of a whole machine, as it came in or as it goes out again. */
export function PicturesCard({ jobId, of, ids, title, none, shows }: PicturesCardProps) {
  const picker = useRef<HTMLInputElement>(null);
  const { add, isWorking, trouble, clearTrouble } = useAddPicture(jobId);
  useBenchKeys({ c: () => picker.current?.click() });
  return (
    <Card title={ids.length > 0 ? title : none}>
      {trouble && (
        <Alert severity="error" onClose={clearTrouble} sx={{ mb: 1 }}>
          {trouble}
        </Alert>
      )}
      <KeptPictures
        pictureIds={ids}
        of={shows}
        height={84}
        onDrop={(id) => changeJobPictures(jobId, of, (all) => all.filter((one) => one !== id))}
      />
      <Box sx={{ mt: ids.length > 0 ? 1 : 0 }}>
        <PictureButton
          picker={picker}
          onFiles={(files) => void add(files, (id) => changeJobPictures(jobId, of, (all) => [...all, id]))}
        />
        {isWorking && <Box sx={{ color: "text.secondary", mt: 0.5 }}>It is being taken in…</Box>}
      </Box>
    </Card>
  );
}
