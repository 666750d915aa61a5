import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import Box from "@mui/material/Box";
import { useRef } from "react";
import type { Adjuster, Machine } from "@/core/records/machine";
import { changeMachine } from "@/storage/machines";

const HEIGHT = 300;
const CHIP = 132;
const ROW = 54;
const IN_A_ROW = 6;
const TO_DRAG_PIXELS = 4;

type Place = { x: number; y: number };

/** Where those sit that nobody put anywhere yet: in rows, as they are written down. */
const firstPlace = (index: number): Place => ({
  x: 0.06 + (0.88 * (index % IN_A_ROW)) / (IN_A_ROW - 1),
  y: Math.min(1, (ROW * (0.25 + Math.floor(index / IN_A_ROW))) / (HEIGHT - ROW)),
});

/** The underside of a machine, with what is turned where it sits: dragged there by hand, or moved by the arrow keys. */
export function UndersidePlan({ machine }: { machine: Machine }) {
  const board = useRef<HTMLDivElement>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: TO_DRAG_PIXELS } }),
    useSensor(KeyboardSensor),
  );
  const turned = machine.adjusters.filter(({ kind }) => kind === "turn");
  if (turned.length === 0) return null;
  const placeOf = (adjuster: Adjuster, i: number): Place =>
    machine.plan?.find(({ adjusterId }) => adjusterId === adjuster.id) ?? firstPlace(i);
  const put = ({ active, delta }: DragEndEvent) => {
    const box = board.current?.getBoundingClientRect();
    if (!box || (delta.x === 0 && delta.y === 0)) return;
    const within = (share: number) => Math.min(1, Math.max(0, share));
    const plan = turned.map((adjuster, i) => {
      const { x, y } = placeOf(adjuster, i);
      return adjuster.id === active.id
        ? {
            adjusterId: adjuster.id,
            x: within(x + delta.x / (box.width - CHIP)),
            y: within(y + delta.y / (box.height - ROW)),
          }
        : { adjusterId: adjuster.id, x, y };
    });
    void changeMachine(machine.id, () => ({ plan }));
  };
  return (
    <Box component="section" aria-label="Plan of the underside" sx={{ mb: 2 }}>
      <Box sx={{ color: "text.secondary", mb: 0.5 }}>
        {machine.plan
          ? "Where its adjusters sit. Drag one to move it; by keyboard: Space, arrow keys, Space."
          : "Drag each adjuster to where it sits on the underside; by keyboard: Space, arrow keys, Space."}
      </Box>
      <DndContext id="underside" sensors={sensors} onDragEnd={put}>
        <Box
          ref={board}
          sx={{
            position: "relative",
            height: HEIGHT,
            border: 2,
            borderColor: "text.secondary",
            borderRadius: 3,
            bgcolor: "background.paper",
            overflow: "hidden",
          }}
        >
          <Feet />
          {turned.map((adjuster, i) => (
            <Chip key={adjuster.id} adjuster={adjuster} place={placeOf(adjuster, i)} />
          ))}
        </Box>
      </DndContext>
    </Box>
  );
}

/** The corners of the case, so that one knows which way round it lies. */
const Feet = () => (
  <>
    {[
      { left: 10, top: 10 },
      { right: 10, top: 10 },
      { left: 10, bottom: 10 },
      { right: 10, bottom: 10 },
    ].map((corner, i) => (
      <Box
        key={i}
        sx={{
          position: "absolute",
          ...corner,
          width: 18,
          height: 18,
          border: 1,
          borderColor: "divider",
          borderRadius: "50%",
        }}
      />
    ))}
    <Box
      sx={{
        position: "absolute",
        bottom: 6,
        left: 0,
        right: 0,
        textAlign: "center",
        color: "text.secondary",
        fontSize: 13,
      }}
    >
      front
    </Box>
  </>
);

function Chip({ adjuster, place }: { adjuster: Adjuster; place: Place }) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: adjuster.id });
  const acts = [
    adjuster.channel,
    adjuster.side && `direction ${adjuster.side}`,
    adjuster.tapeType && `type ${adjuster.tapeType}`,
  ]
    .filter(Boolean)
    .join(", ");
  return (
    <Box
      ref={setNodeRef}
      component="button"
      type="button"
      {...attributes}
      {...listeners}
      title={adjuster.where}
      style={{
        left: `calc(${100 * place.x}% - ${place.x * CHIP}px)`,
        top: `calc(${100 * place.y}% - ${place.y * ROW}px)`,
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
      sx={{
        position: "absolute",
        width: CHIP,
        minHeight: ROW - 6,
        display: "flex",
        alignItems: "center",
        gap: 0.75,
        px: 0.75,
        font: "inherit",
        color: "inherit",
        textAlign: "left",
        lineHeight: 1.15,
        cursor: isDragging ? "grabbing" : "grab",
        touchAction: "none",
        zIndex: isDragging ? 2 : 1,
        bgcolor: "background.default",
        border: 1,
        borderColor: isDragging ? "primary.main" : "divider",
        borderRadius: 1,
      }}
    >
      <svg width={26} height={26} viewBox="0 0 26 26" aria-hidden style={{ flexShrink: 0 }}>
        <circle cx={13} cy={13} r={11} fill="none" stroke="currentColor" strokeWidth={1.5} />
        <line
          x1={5}
          x2={21}
          y1={13}
          y2={13}
          stroke="currentColor"
          strokeWidth={3}
          transform="rotate(-35 13 13)"
        />
      </svg>
      <Box component="span" sx={{ minWidth: 0 }}>
        <Box
          component="span"
          sx={{ display: "block", fontWeight: 700, fontSize: 13, overflowWrap: "anywhere" }}
        >
          {adjuster.name}
        </Box>
        {acts && (
          <Box component="span" sx={{ display: "block", fontSize: 12, color: "text.secondary" }}>
            {acts}
          </Box>
        )}
      </Box>
    </Box>
  );
}
