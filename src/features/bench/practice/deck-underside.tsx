"use client";
import { useEffect, useRef } from "react";
import { INK, SOFT, token } from "@/ui/theme";

const STEP = 1 / 64;
const FINE_STEP = 1 / 360;

interface UndersideProps {
  /** The trimmers that show, at most four. */
  slots: Array<{ name: string; slotTurns: number }>;
  playing: boolean;
  onTurn(trimmer: number, turns: number): void;
}

/** Line drawing of a deck's underside: motor, belt, flywheel, reel tables, and the slots that turn. */
export function DeckUnderside({ slots, playing, onTurn }: UndersideProps) {
  const { places, radius } = layout(slots.length);
  return (
    <svg
      viewBox="0 0 420 136"
      width={400}
      height={126}
      style={{ maxWidth: "100%", flex: "0 1 400px" }}
      aria-label="Underside of the practice deck"
    >
      <g fill="none" stroke={SOFT} strokeWidth={1.5}>
        <rect x={4} y={6} width={412} height={124} rx={10} />
        <circle cx={70} cy={48} r={27} />
        <circle cx={70} cy={48} r={6} />
        <circle cx={168} cy={48} r={27} />
        <circle cx={168} cy={48} r={6} />
        <circle cx={128} cy={98} r={24} />
        <circle cx={128} cy={98} r={4} />
        <circle cx={38} cy={102} r={15} />
        <path d="M38 94 L126 74 M38 110 L126 122" strokeDasharray="5 3" />
        <path d="M212 20 v96" strokeDasharray="2 4" />
        {[20, 400].flatMap((x) => [20, 116].map((y) => <circle key={`${x}-${y}`} cx={x} cy={y} r={4} />))}
      </g>
      <text x={38} y={106} fontSize={10.5} textAnchor="middle" fill={SOFT}>
        M
      </text>
      {slots.slice(0, places.length).map((slot, i) => (
        <Slot
          key={slot.name}
          {...slot}
          x={places[i]}
          radius={radius}
          playing={playing}
          onTurn={(turns) => onTurn(i, turns)}
        />
      ))}
      {slots.length === 1 && (
        <>
          <text x={364} y={66} fontSize={12} fill={SOFT}>
            + cw
          </text>
          <text x={232} y={66} fontSize={12} fill={SOFT}>
            acw −
          </text>
        </>
      )}
    </svg>
  );
}

/** Where the slots stand, and how large they are. */
function layout(count: number): { places: number[]; radius: number } {
  if (count <= 1) return { places: [312], radius: 42 };
  if (count === 2) return { places: [258, 348], radius: 42 };
  const step = 190 / Math.min(4, count);
  return {
    places: Array.from({ length: Math.min(4, count) }, (_, i) => 218 + step * (i + 0.5)),
    radius: 0.44 * step,
  };
}

interface SlotProps {
  name: string;
  slotTurns: number;
  x: number;
  radius: number;
  playing: boolean;
  onTurn(turns: number): void;
}

function Slot({ name, slotTurns, x, radius, playing, onTurn }: SlotProps) {
  const slot = useRef<SVGGElement>(null);
  const angle = useRef<number | null>(null);
  const turn = useRef(onTurn);
  useEffect(() => {
    turn.current = onTurn;
  });
  useEffect(() => {
    const element = slot.current;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      turn.current(Math.sign(event.deltaY) * (event.shiftKey ? FINE_STEP : STEP));
    };
    element?.addEventListener("wheel", wheel, { passive: false });
    return () => element?.removeEventListener("wheel", wheel);
  }, []);

  const pointerAngle = (event: React.PointerEvent) => {
    const box = slot.current!.getBoundingClientRect();
    return Math.atan2(event.clientX - box.x - box.width / 2, -(event.clientY - box.y - box.height / 2));
  };
  return (
    <>
      <g
        ref={slot}
        role="slider"
        tabIndex={0}
        aria-label={`${name}, practice trimmer`}
        aria-valuenow={Math.round(360 * slotTurns)}
        aria-valuemin={-1440}
        aria-valuemax={1440}
        aria-valuetext={`${Math.round(360 * slotTurns)} degrees`}
        aria-disabled={!playing}
        style={{ cursor: "grab", touchAction: "none" }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          angle.current = pointerAngle(event);
        }}
        onPointerMove={(event) => {
          if (angle.current === null) return;
          const now = pointerAngle(event);
          let step = now - angle.current;
          if (step > Math.PI) step -= 2 * Math.PI;
          if (step < -Math.PI) step += 2 * Math.PI;
          angle.current = now;
          onTurn(step / (2 * Math.PI) / (event.shiftKey ? 6 : 1));
        }}
        onPointerUp={() => {
          angle.current = null;
        }}
        onKeyDown={(event) => {
          const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
          if (!way) return;
          event.preventDefault();
          onTurn(way * (event.shiftKey ? FINE_STEP : STEP));
        }}
      >
        <circle cx={x} cy={62} r={radius} fill={token("leader")} stroke={INK} strokeWidth={2} />
        <g transform={`rotate(${360 * slotTurns} ${x} 62)`}>
          <rect
            x={x - 0.12 * radius}
            y={62 - 0.86 * radius}
            width={0.24 * radius}
            height={1.72 * radius}
            rx={3}
            fill={INK}
          />
          <circle cx={x} cy={62 - 0.86 * radius} r={0.1 * radius} fill={token("oxide")} />
        </g>
      </g>
      <text x={x} y={122} textAnchor="middle" fontSize={radius < 30 ? 9 : 13.5} fontWeight={650} fill={INK}>
        {name.length > 24 ? `${name.slice(0, 23)}…` : name}
      </text>
    </>
  );
}
