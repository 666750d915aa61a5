"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { readBeltsCsv } from "@/core/formats/belt-csv";
import { fixed } from "@/core/text/number-text";
import {
  areaOf,
  BELT_SECTIONS,
  beltForPath,
  chooseBelt,
  lengthWhenNew,
  openBeltLength,
  pullBeforeSlip,
  stretchOn,
  STRETCH,
  thicknessEffect,
  type BeltSection,
  type StockBelt,
} from "@/core/workshop/belt";
import { Card } from "@/ui/card";
import { FileButton } from "@/ui/file-button";
import { READING_FONT } from "@/ui/theme";
import { useKeptForm } from "../use-kept-form";
import { BeltIntoJob } from "./belt-into-job";
import { BeltDrawing } from "./belt-drawing";
import { typedNumber } from "@/core/text/typed-number";
import { NumberField } from "@/ui/number-field";

const BEGIN = {
  large: "40",
  small: "6",
  centres: "72",
  section: "square" as BeltSection,
  measured: "",
  gaugeOffset: "0",
  set: "2",
  oldThickness: "1.2",
  newThickness: "1.2",
  stock: [] as StockBelt[],
};
const FIELDS = [
  ["large", "Driven pulley, mm"],
  ["small", "Motor pulley, mm"],
  ["centres", "Centres apart, mm"],
  ["measured", "Old belt at rest, mm"],
  ["gaugeOffset", "Gauge reads too much, mm"],
  ["set", "Set for good, %"],
  ["oldThickness", "Old thickness, mm"],
  ["newThickness", "New thickness, mm"],
] as const;
const MOST_CHOICES = 5;

/** Which belt goes on: length from the path or the old belt, stretch, what its thickness does, what is in stock. */
export function BeltRule() {
  const { form, change } = useKeptForm("rule-belt", () => BEGIN);
  const [trouble, setTrouble] = useState<string | null>(null);
  const number = (key: (typeof FIELDS)[number][0]) => typedNumber(form[key]);
  const path = {
    largePulleyMm: number("large"),
    smallPulleyMm: number("small"),
    centreDistanceMm: number("centres"),
  };
  const fits = path.centreDistanceMm > (path.largePulleyMm + path.smallPulleyMm) / 2;
  const pathMm = fits ? openBeltLength(path) : NaN;
  const old = number("measured");
  const oldNew = old > 0 ? lengthWhenNew(old, number("gaugeOffset") || 0, number("set") || 0) : null;
  const effect = thicknessEffect(
    number("oldThickness"),
    number("newThickness"),
    path.smallPulleyMm,
    path.largePulleyMm,
  );
  const pull = (thickness: number, stretchPercent: number) =>
    pullBeforeSlip(path, { section: form.section, areaMm2: areaOf(form.section, thickness), stretchPercent });
  const oldPull = oldNew === null ? null : pull(number("oldThickness"), stretchOn(pathMm, old));
  const newPull = pull(number("newThickness"), STRETCH.best);
  const choices = Number.isFinite(pathMm) ? chooseBelt(form.stock, pathMm, form.section) : [];
  const best = choices.find(({ workable }) => workable);
  const importStock = async (file: File) => {
    try {
      change({ stock: readBeltsCsv(await file.text()) });
      setTrouble(null);
    } catch (error) {
      setTrouble(`${file.name}: ${(error as Error).message}`);
    }
  };
  return (
    <Card title="Which belt goes on">
      {fits && <BeltDrawing {...path} />}
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1 }}>
        {FIELDS.map(([key, label]) => (
          <NumberField
            key={key}
            label={label}
            value={form[key]}
            width={178}
            onChange={(v) => change({ [key]: v })}
          />
        ))}
        <TextField
          select
          size="small"
          label="Section"
          value={form.section}
          onChange={({ target }) => change({ section: target.value as BeltSection })}
          sx={{ width: 178 }}
        >
          {BELT_SECTIONS.map((section) => (
            <MenuItem key={section} value={section}>
              {section}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      {!fits ? (
        <Alert severity="warning" sx={{ mt: 1 }}>
          The pulleys would touch: their centres have to be farther apart than half the sum of their
          diameters.
        </Alert>
      ) : (
        <Box sx={{ mt: 1.5 }}>
          <Box sx={{ fontFamily: READING_FONT, fontSize: 34, fontWeight: 700, lineHeight: 1.2 }}>
            {fixed(beltForPath(pathMm), 1)} mm inside
          </Box>
          <Lines
            lines={[
              `The path is ${fixed(pathMm, 1)} mm; ${STRETCH.best} % stretch, workable from ${fixed(beltForPath(pathMm, STRETCH.most), 1)} to ${fixed(beltForPath(pathMm, STRETCH.least), 1)} mm.`,
              oldNew !== null &&
                `The old belt was ${fixed(oldNew, 1)} mm when new, ${fixed(stretchOn(pathMm, oldNew), 1)} % stretched.`,
              Number.isFinite(effect) &&
                Math.abs(effect) >= 0.005 &&
                `The new thickness changes the speed by ${fixed(effect, 2, true)} %.`,
              Number.isFinite(newPull) &&
                `Grip at ${STRETCH.best} %: about ${fixed(newPull, 1)} N before it slips${oldPull ? `, ${fixed(newPull / oldPull, 1)} times the old belt’s` : ""}.`,
              "A thinner belt between flywheel and motor passes on less flutter; a thicker one grips better on a take-up.",
              "Park the seam on a free run, never on the motor pulley.",
            ]}
          />
        </Box>
      )}
      {Number.isFinite(pathMm) && (
        <BeltIntoJob
          belt={{
            oldInsideMm: oldNew,
            oldThicknessMm: number("oldThickness"),
            newInsideMm: best?.belt.insideMm ?? beltForPath(pathMm),
            newThicknessMm: best?.belt.thicknessMm ?? number("newThickness"),
            stretchPercent: best?.stretchPercent ?? STRETCH.best,
            predictedPercent: thicknessEffect(
              number("oldThickness"),
              best?.belt.thicknessMm ?? number("newThickness"),
              path.smallPulleyMm,
              path.largePulleyMm,
            ),
          }}
        />
      )}
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", mt: 1.5 }}>
        <FileButton
          variant="outlined"
          label="Stock list"
          accept=".csv,text/csv"
          onFile={(file) => void importStock(file)}
        >
          {form.stock.length > 0 ? `${form.stock.length} belts in the list` : "Stock list (CSV)…"}
        </FileButton>
        <Typography sx={{ color: "text.secondary" }}>
          name, section, insideMm, thicknessMm, inStock
        </Typography>
      </Box>
      {trouble && <Alert severity="error">{trouble}</Alert>}
      {form.stock.length > 0 && choices.length === 0 && (
        <Typography sx={{ mt: 1 }}>No {form.section} belt is in stock.</Typography>
      )}
      <Box component="ol" aria-label="From stock" sx={{ listStyle: "none", p: 0, m: 0, mt: 1 }}>
        {choices.slice(0, MOST_CHOICES).map(({ belt, stretchPercent, workable }, i) => (
          <Box
            component="li"
            key={`${belt.name}${i}`}
            sx={{ display: "flex", gap: 2, py: 0.5, fontWeight: i === 0 && workable ? 700 : 400 }}
          >
            <Box sx={{ flex: 1, overflowWrap: "anywhere" }}>{belt.name}</Box>
            <Box sx={{ fontFamily: READING_FONT }}>
              {fixed(belt.insideMm, 1)} mm, {fixed(stretchPercent, 1, true)} %
            </Box>
            <Box sx={{ width: 96, color: workable ? "success.main" : "error.main" }}>
              {workable ? "fits" : stretchPercent < STRETCH.least ? "too loose" : "too tight"}
            </Box>
          </Box>
        ))}
      </Box>
    </Card>
  );
}

function Lines({ lines }: { lines: Array<string | false> }) {
  return lines
    .filter((line) => line !== false)
    .map((line) => (
      <Typography key={line} sx={{ mt: 0.5, lineHeight: 1.4 }}>
        {line}
      </Typography>
    ));
}
