import Box from "@mui/material/Box";
import { useMemo } from "react";
import { placesSay, sixPlaces, type PlaceOnTape } from "@/core/alignment/six-places";
import { SIDES } from "@/core/records/fields";
import { POSITIONS, type Circumstances } from "@/core/records/reading";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { JobView } from "@/features/job/use-job-records";
import { READING_FONT } from "@/ui/theme";

interface SixPlacesProps {
  view: JobView;
  circumstances: Circumstances;
  /** What is logged from now on is of this place. */
  onChoose(place: Pick<PlaceOnTape, "side" | "position">): void;
}

/** Start, middle and end of both sides as one plan: what was logged where, and the place that is played now. */
export function SixPlaces({ view, circumstances, onChoose }: SixPlacesProps) {
  const places = useMemo(() => sixPlaces(view), [view]);
  const says = useMemo(() => placesSay(places, view), [places, view]);
  const next = places.find(({ speed, flutter }) => speed === null || flutter === null) ?? null;
  return (
    <Box role="group" aria-label="Places on the tape" sx={{ mb: 1 }}>
      <Box sx={{ display: "grid", gridTemplateColumns: `auto repeat(${POSITIONS.length}, 1fr)`, gap: 0.5 }}>
        <span />
        {POSITIONS.map((position) => (
          <Box key={position} sx={{ color: "text.secondary", fontWeight: 650 }}>
            {position}
          </Box>
        ))}
        {SIDES.map((side) => [
          <Box key={side} sx={{ alignSelf: "center", fontWeight: 700, pr: 0.5 }}>
            Side {side}
          </Box>,
          ...places
            .filter((place) => place.side === side)
            .map((place) => (
              <Place
                key={side + place.position}
                place={place}
                isChosen={circumstances.side === side && circumstances.position === place.position}
                onChoose={() => onChoose(place)}
              />
            )),
        ])}
      </Box>
      <Box role="status" aria-label="Places" sx={{ mt: 0.5, lineHeight: 1.35, fontWeight: 600 }}>
        {says.length > 0 ? says.join(" ") : next ? toDoAt(next) : "All six are logged, and none stands out."}
      </Box>
    </Box>
  );
}

function toDoAt({ side, position, speed, flutter }: PlaceOnTape): string {
  if (speed === null && flutter === null)
    return `Next: side ${side}, ${position}. Press it, play there, log flutter here and speed at Speed.`;
  const missing = speed === null ? "speed is still to be logged, at Speed" : "flutter is still to be logged";
  return `Side ${side}, ${position}: its ${missing}.`;
}

interface PlaceProps {
  place: PlaceOnTape;
  isChosen: boolean;
  onChoose(): void;
}

function Place({ place: { side, position, speed, flutter }, isChosen, onChoose }: PlaceProps) {
  const figures = [
    speed && `${fixed(speed.value, 2, true)}${THIN_SPACE}%`,
    flutter && `${fixed(flutter.value, 3)}${THIN_SPACE}%`,
  ].filter((figure) => figure !== null);
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={isChosen}
      aria-label={`Side ${side}, ${position}: ${figures.join(", ") || "not logged"}`}
      onClick={onChoose}
      sx={{
        minHeight: 44,
        font: "inherit",
        fontFamily: READING_FONT,
        fontSize: 15,
        color: "inherit",
        cursor: "pointer",
        bgcolor: isChosen ? "action.selected" : "transparent",
        border: isChosen ? 2 : 1,
        borderStyle: figures.length > 0 ? "solid" : "dashed",
        borderColor: isChosen ? "primary.main" : "divider",
        borderRadius: 1,
        lineHeight: 1.25,
      }}
    >
      {figures.length > 0 ? figures.join(" · ") : "—"}
    </Box>
  );
}
