"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import type { PictureMark } from "@/core/workshop/picture";
import { database } from "@/storage/database";
import { deletePicture, markPicture } from "@/storage/pictures";
import { PressButton } from "@/ui/press-button";
import { MarkedPicture } from "./marked-picture";

interface KeptPicturesProps {
  pictureIds: readonly string[];
  /** What they show. */
  of: string;
  height: number;
  /** Takes one out of where it is named; its image goes after that. */
  onDrop(pictureId: string): Promise<void>;
}

/** Pictures that were kept; one that is opened can be drawn on. */
export function KeptPictures({ pictureIds, of, height, onDrop }: KeptPicturesProps) {
  const ids = pictureIds.join();
  const pictures = useLiveQuery(() => database.pictures.bulkGet(ids === "" ? [] : ids.split(",")), [ids]);
  const [openId, setOpenId] = useState<string | null>(null);
  const [draws, setDraws] = useState<PictureMark["kind"]>("arrow");
  if (!pictures || pictures.length === 0) return null;
  const open = pictures.find((one) => one?.id === openId);
  const lost = pictures.filter((one) => one === undefined).length;
  const says = `Picture of ${of}`;
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
      {pictures.map(
        (picture) =>
          picture && (
            <Box
              key={picture.id}
              component="button"
              type="button"
              aria-label={`Open: ${says}`}
              onClick={() => setOpenId(picture.id)}
              sx={{
                p: 0,
                border: 1,
                borderColor: "divider",
                cursor: "pointer",
                bgcolor: "transparent",
                maxWidth: "100%",
              }}
            >
              <MarkedPicture picture={picture} says={says} height={height} />
            </Box>
          ),
      )}
      {lost > 0 && (
        <Box sx={{ color: "text.secondary" }}>
          {lost === 1 ? "One picture is" : `${lost} pictures are`} not in this browser: a job file carries
          none, a backup does.
        </Box>
      )}
      <Dialog open={open !== undefined} onClose={() => setOpenId(null)} maxWidth="lg">
        <DialogTitle>{of}: drag to draw</DialogTitle>
        <DialogContent>
          {open && (
            <MarkedPicture
              picture={open}
              says={says}
              height="min(62vh, 640px)"
              draws={draws}
              onDrawn={(mark) => void markPicture(open.id, [...open.marks, mark])}
            />
          )}
        </DialogContent>
        <DialogActions sx={{ flexWrap: "wrap" }}>
          <PressButton chosen={draws === "arrow"} onClick={() => setDraws("arrow")}>
            Arrow
          </PressButton>
          <PressButton chosen={draws === "ring"} onClick={() => setDraws("ring")}>
            Ring
          </PressButton>
          <Button
            color="inherit"
            disabled={!open || open.marks.length === 0}
            onClick={() => open && void markPicture(open.id, open.marks.slice(0, -1))}
          >
            Take the last off
          </Button>
          <Box sx={{ flex: 1 }} />
          <Button
            color="error"
            onClick={() => {
              if (!open) return;
              setOpenId(null);
              void onDrop(open.id).then(() => deletePicture(open.id));
            }}
          >
            Delete picture
          </Button>
          <Button variant="contained" onClick={() => setOpenId(null)}>
            Done
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  );
}
