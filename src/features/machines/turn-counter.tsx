import Button from "@mui/material/Button";
import { useState } from "react";

/** Press once a turn while watching the part: after some turns its rate is known. */
export function TurnCounter({ onCounted }: { onCounted(turns: number, seconds: number): void }) {
  const [first, setFirst] = useState<number | null>(null);
  const [turns, setTurns] = useState(0);
  const tap = () => {
    const now = performance.now();
    if (first === null) {
      setFirst(now);
      setTurns(0);
      return;
    }
    setTurns(turns + 1);
    onCounted(turns + 1, Math.round((now - first) / 10) / 100);
  };
  return (
    <>
      <Button variant="outlined" color="inherit" onClick={tap}>
        {first === null ? "Count: press at each turn" : `${turns} ${turns === 1 ? "turn" : "turns"}`}
      </Button>
      {first !== null && (
        <Button color="inherit" onClick={() => setFirst(null)}>
          Again
        </Button>
      )}
    </>
  );
}
