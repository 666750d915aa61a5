"use client";
import Box from "@mui/material/Box";
import { useMemo, useState, type PointerEvent } from "react";
import type { PictureMark } from "@/core/workshop/picture";
import type { KeptPicture } from "@/storage/database";
import { token } from "@/ui/theme";

/** Gives an image its blob, under an address that is let go with it. */
const shows = (blob: Blob) => (image: HTMLImageElement) => {
  const address = URL.createObjectURL(blob);
  image.src = address;
  return () => URL.revokeObjectURL(address);
};

interface MarkedPictureProps {
  picture: KeptPicture;
  says: string;
  /** What a drag over it draws; null where it is only looked at. */
  draws?: PictureMark["kind"] | null;
  onDrawn?(mark: PictureMark): void;
  height: number | string;
}

/** A picture with the arrows and rings that were drawn on it. */
export function MarkedPicture({ picture, says, draws = null, onDrawn, height }: MarkedPictureProps) {
  const { image } = picture;
  const show = useMemo(() => shows(image), [image]);
  const [drawn, setDrawn] = useState<PictureMark | null>(null);
  const at = ({ currentTarget, clientX, clientY }: PointerEvent<SVGSVGElement>) => {
    const box = currentTarget.getBoundingClientRect();
    const share = (value: number) => Math.min(1, Math.max(0, value));
    return { x: share((clientX - box.left) / box.width), y: share((clientY - box.top) / box.height) };
  };
  const marks = drawn ? [...picture.marks, drawn] : picture.marks;
  return (
    <Box
      sx={{
        position: "relative",
        height,
        maxWidth: "100%",
        aspectRatio: `${picture.width} / ${picture.height}`,
        bgcolor: "tape.leader",
      }}
    >
      {/* eslint-disable-next-line @next/next/no-img-element -- it lies in this browser: no server makes it smaller */}
      <img ref={show} alt={says} style={{ width: "100%", height: "100%", display: "block" }} />
      <svg
        aria-hidden={draws === null}
        viewBox={`0 0 ${picture.width} ${picture.height}`}
        style={{
          position: "absolute",
          inset: 0,
          width: "100%",
          height: "100%",
          cursor: draws ? "crosshair" : undefined,
          touchAction: draws ? "none" : undefined,
        }}
        onPointerDown={(event) => {
          if (!draws) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          const from = at(event);
          setDrawn({ kind: draws, from, to: from });
        }}
        onPointerMove={(event) => drawn && setDrawn({ ...drawn, to: at(event) })}
        onPointerUp={() => {
          if (drawn && Math.hypot(drawn.to.x - drawn.from.x, drawn.to.y - drawn.from.y) > SHORTEST)
            onDrawn?.(drawn);
          setDrawn(null);
        }}
        onPointerCancel={() => setDrawn(null)}
      >
        {marks.map((mark, i) => (
          <Mark key={i} mark={mark} width={picture.width} height={picture.height} />
        ))}
      </svg>
    </Box>
  );
}
/** A shorter drag is a slip of the hand. */
const SHORTEST = 0.02;

function Mark({
  mark: { kind, from, to },
  width,
  height,
}: {
  mark: PictureMark;
  width: number;
  height: number;
}) {
  const [x1, y1, x2, y2] = [from.x * width, from.y * height, to.x * width, to.y * height];
  const stroke = Math.max(width, height) / 110;
  const shape = () => {
    switch (kind) {
      case "ring":
        return (
          <ellipse
            cx={(x1 + x2) / 2}
            cy={(y1 + y2) / 2}
            rx={Math.abs(x2 - x1) / 2}
            ry={Math.abs(y2 - y1) / 2}
          />
        );
      case "arrow": {
        const angle = Math.atan2(y2 - y1, x2 - x1);
        const barb = (turn: number) =>
          `${x2 - 5 * stroke * Math.cos(angle + turn)},${y2 - 5 * stroke * Math.sin(angle + turn)}`;
        return <path d={`M${x1},${y1} L${x2},${y2} M${barb(0.5)} L${x2},${y2} L${barb(-0.5)}`} />;
      }
    }
  };
  // light around dark: it is seen on chrome and on rubber
  return (
    <g fill="none" strokeLinecap="round" strokeLinejoin="round">
      <g stroke={token("leader")} strokeWidth={2.2 * stroke}>
        {shape()}
      </g>
      <g stroke={token("fail")} strokeWidth={stroke}>
        {shape()}
      </g>
    </g>
  );
}
