"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { useCallback, useEffect, useState } from "react";
import { soundDevices, watchDevices, type SoundDevice } from "@/audio/sound-devices";
import { readCalibration } from "@/storage/calibrations";
import { changeSettings, DEFAULT_SETTINGS, readSettings } from "@/storage/settings";
import { Card } from "@/ui/card";
import { SideCheck } from "../sound/side-check";
import { SignalCheckTable } from "../sound/signal-check-table";
import { ClockCalibration } from "./clock-calibration";
import { LevelCalibration } from "./level-calibration";
import { LoopBackCalibration } from "./loop-back-calibration";
import { useSoundCheck } from "./use-sound-check";

const USUAL_TONE_HZ = 1000;

/** Choose input and output, see that the signal is sound, and calibrate. */
export function SoundCardPanel() {
  const settings = useLiveQuery(readSettings, []) ?? DEFAULT_SETTINGS;
  const [devices, setDevices] = useState<{ inputs: SoundDevice[]; outputs: SoundDevice[]; named: boolean }>({
    inputs: [],
    outputs: [],
    named: false,
  });
  const [toneHz, setToneHz] = useState(USUAL_TONE_HZ);
  const sound = useSoundCheck();
  const refresh = useCallback(() => void soundDevices().then(setDevices), []);
  useEffect(() => {
    refresh();
    return watchDevices(refresh);
  }, [refresh]);
  const { input, report } = sound;
  const calibration = useLiveQuery(
    async () => (input ? ((await readCalibration(input.deviceId)) ?? null) : null),
    [input?.deviceId],
  );
  const start = async (hz: number) => {
    setToneHz(hz);
    await sound.start(settings.inputId, hz);
    refresh();
  };
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
      {sound.trouble && <Alert severity="warning">{sound.trouble}</Alert>}
      <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
        <DeviceChoice
          label="Input"
          devices={devices.inputs}
          value={settings.inputId}
          onChange={(inputId) => {
            void changeSettings({ inputId });
            sound.stop();
          }}
        />
        <DeviceChoice
          label="Output"
          devices={devices.outputs}
          value={settings.outputId}
          onChange={(outputId) => void changeSettings({ outputId })}
        />
        {input ? (
          <Button variant="outlined" onClick={sound.stop}>
            Stop listening
          </Button>
        ) : (
          <Button variant="contained" onClick={() => void start(toneHz)}>
            Listen
          </Button>
        )}
        {!devices.named && (
          <Box sx={{ color: "text.secondary" }}>
            The browser names the devices once it was allowed to listen.
          </Box>
        )}
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", lg: "minmax(0, 1fr) 400px" }, gap: 2 }}>
        <Card title={input ? `Signal check: ${input.name}` : "Signal check"}>
          {input && report ? (
            <>
              <SignalCheckTable report={report} card={{ ...input, calibration: calibration ?? null }} />
              {report.channels.length > 1 && <SideCheck findSides={sound.findSides} />}
            </>
          ) : (
            <Box sx={{ color: "text.secondary" }}>
              {input ? "Waiting for sound…" : "Choose the input that the deck is cabled to, then listen."}
            </Box>
          )}
        </Card>
        <Box sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
          <ClockCalibration
            input={input}
            live={sound.live}
            toneHz={toneHz}
            known={calibration?.clock ?? null}
            onTone={(hz) => void start(hz)}
          />
          <LevelCalibration input={input} report={report} known={calibration?.level ?? null} />
          <LoopBackCalibration input={input} known={calibration?.loopBack ?? null} measure={sound.loopBack} />
        </Box>
      </Box>
    </Box>
  );
}

interface DeviceChoiceProps {
  label: string;
  devices: SoundDevice[];
  value: string | null;
  onChange(id: string | null): void;
}

function DeviceChoice({ label, devices, value, onChange }: DeviceChoiceProps) {
  const gone = value !== null && !devices.some(({ id }) => id === value);
  return (
    <TextField
      select
      label={label}
      value={value ?? ""}
      onChange={({ target }) => onChange(target.value === "" ? null : target.value)}
      sx={{ width: 300 }}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      <MenuItem value="">the system’s default</MenuItem>
      {gone && <MenuItem value={value}>the one chosen before (not there now)</MenuItem>}
      {devices.map(({ id, name }) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
