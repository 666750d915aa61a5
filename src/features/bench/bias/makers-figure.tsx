import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { typedContext } from "@/core/alignment/logbook";
import { biasFigureSchema, type BiasFigure } from "@/core/records/machine";
import type { TapeType } from "@/core/standards/tape-types";
import { meterReading } from "@/core/stations/bias-figures";
import { biasFigureHere, byMeter, toShow } from "@/core/stations/bias-meter";
import { typedNumber } from "@/core/text/typed-number";
import { appendReadings, newId } from "@/storage/jobs";
import { changeMachine } from "@/storage/machines";
import type { PictureProps } from "../stations/picture";
import { TypedFigures } from "../logging/typed-figures";

const UNITS = ["V", "mV", "mA"] as const satisfies ReadonlyArray<BiasFigure["unit"]>;

/** Bias by the maker's figure: what the maker wants, and what a meter shows. */
export function MakersFigure({ view, station, bench }: Pick<PictureProps, "view" | "station" | "bench">) {
  const figure = biasFigureHere(bench);
  const [changing, setChanging] = useState(false);
  const { machine, blanks = [] } = view;
  const type = blanks.find(({ id }) => id === bench.circumstances.recordingOn)?.type ?? null;
  if (!figure || changing)
    return <FigureForm {...{ view, type, figure }} onDone={() => setChanging(false)} />;
  const { value, unit } = toShow(figure);
  return (
    <>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        <Box sx={{ fontSize: 19, fontWeight: 700 }}>
          {figure.unit === "mA"
            ? `${figure.amount} mA: ${Number(value.toPrecision(4))} ${unit} across ${figure.acrossOhm} Ω`
            : `${value} ${unit}`}
        </Box>
        <Box sx={{ color: "text.secondary", flex: 1 }}>
          wanted{figure.tapeType ? ` for type ${figure.tapeType}` : ""}
          {figure.where ? `, ${figure.where}` : ""}. The meter has to be good for 100 kHz; many hand-held ones
          are not.
        </Box>
        <Button variant="text" color="inherit" onClick={() => setChanging(true)}>
          Change
        </Button>
      </Box>
      <TypedFigures
        title={`The meter shows, ${unit}`}
        channels={machine.channels === 1 ? ["both"] : ["left", "right"]}
        label={(channel) => `${unit}, ${channel}`}
        quantity="bias.error"
        view={view}
        recordingOn={bench.circumstances.recordingOn}
        lacks={
          (bench.here.job.blankTapes?.length ?? 0) > 0 && !bench.circumstances.recordingOn
            ? "say which blank tape"
            : null
        }
        wrong={(shown) =>
          shown > 0 && shown < 100 * value ? null : "More than nothing, please; is the unit right?"
        }
        phases={["as found", "working", "as left"]}
        onLog={(channel, shown, phase) => {
          const context = typedContext(
            station,
            bench,
            { name: "a meter", nominalHz: 0 },
            { newId, now: Date.now() },
          );
          void appendReadings(meterReading(byMeter(figure, shown), channel, { ...context, phase }));
        }}
      />
    </>
  );
}

interface FigureFormProps extends Pick<PictureProps, "view"> {
  type: TapeType | null;
  figure: BiasFigure | null;
  onDone(): void;
}

/** What the maker's papers say; it stays with the machine. */
function FigureForm({ view: { machine }, type, figure, onDone }: FigureFormProps) {
  const [amount, setAmount] = useState(figure ? String(figure.amount) : "");
  const [unit, setUnit] = useState<BiasFigure["unit"]>(figure?.unit ?? "mV");
  const [ohm, setOhm] = useState(figure?.acrossOhm === undefined ? "" : String(figure.acrossOhm));
  const [where, setWhere] = useState(figure?.where ?? "");
  const read = biasFigureSchema.safeParse({
    ...(type !== null && { tapeType: type }),
    amount: typedNumber(amount),
    unit,
    ...(unit === "mA" && { acrossOhm: typedNumber(ohm) }),
    where,
  });
  const faultOf = (field: string) =>
    read.success ? undefined : read.error.issues.find(({ path }) => path[0] === field)?.message;
  const keep = async () => {
    if (!read.success) return;
    await changeMachine(machine.id, ({ biasFigures = [] }) => ({
      biasFigures: [...biasFigures.filter(({ tapeType }) => tapeType !== read.data.tapeType), read.data],
    }));
    onDone();
  };
  return (
    <Box component="section" aria-label="Maker's figure">
      <Box sx={{ fontWeight: 600, color: "text.secondary" }}>
        What the maker wants{type === null ? "" : ` for type ${type}`}; it stays with the machine
      </Box>
      <Box sx={{ display: "flex", gap: 1, mt: 0.75, flexWrap: "wrap", alignItems: "flex-start" }}>
        <TextField
          size="small"
          label="Figure"
          value={amount}
          error={amount !== "" && faultOf("amount") !== undefined}
          onChange={({ target }) => setAmount(target.value)}
          sx={{ width: 100 }}
        />
        <TextField
          select
          size="small"
          label="Unit"
          value={unit}
          onChange={({ target }) => setUnit(UNITS.find((one) => one === target.value) ?? unit)}
          sx={{ width: 90 }}
        >
          {UNITS.map((one) => (
            <MenuItem key={one} value={one}>
              {one}
            </MenuItem>
          ))}
        </TextField>
        {unit === "mA" && (
          <TextField
            size="small"
            label="Across, Ω"
            value={ohm}
            error={ohm !== "" && faultOf("acrossOhm") !== undefined}
            onChange={({ target }) => setOhm(target.value)}
            sx={{ width: 110 }}
          />
        )}
        <TextField
          size="small"
          label="Where"
          value={where}
          onChange={({ target }) => setWhere(target.value)}
          sx={{ flex: 1, minWidth: 140 }}
        />
        <Button variant="contained" disabled={!read.success} onClick={() => void keep()}>
          Keep
        </Button>
      </Box>
    </Box>
  );
}
