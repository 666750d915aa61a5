/** A sound-card input or output as the browser names it. */
export interface SoundDevice {
  id: string;
  name: string;
}

/**
 * Inputs and outputs there are. Before the browser was allowed to listen it tells neither their names nor how many
 * there are.
 */
export async function soundDevices(): Promise<{
  inputs: SoundDevice[];
  outputs: SoundDevice[];
  named: boolean;
}> {
  const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  const of = (kind: MediaDeviceKind): SoundDevice[] =>
    devices
      .filter((device) => device.kind === kind && device.deviceId !== "")
      .map(({ deviceId, label }, i) => ({ id: deviceId, name: label || `device ${i + 1}` }));
  return {
    inputs: of("audioinput"),
    outputs: of("audiooutput"),
    named: devices.some(({ label }) => label !== ""),
  };
}

/**
 * Whether an input and an output belong to one piece of hardware, by which what is played may come back. The ids of the two
 * never agree; the browser groups them.
 * @param inputId, @param outputId null for the default devices
 */
export async function areOneDevice(inputId: string | null, outputId: string | null): Promise<boolean> {
  const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  const groupOf = (kind: MediaDeviceKind, id: string | null) => {
    const own = devices.filter((device) => device.kind === kind);
    return (
      own.find(({ deviceId }) => deviceId === (id ?? "default")) ?? (id === null ? own.at(0) : undefined)
    )?.groupId;
  };
  const group = groupOf("audioinput", inputId);
  return group !== undefined && group !== "" && group === groupOf("audiooutput", outputId);
}

/** Calls back whenever a device is plugged in or pulled out; returns how to stop that. */
export function watchDevices(changed: () => void): () => void {
  navigator.mediaDevices?.addEventListener("devicechange", changed);
  return () => navigator.mediaDevices?.removeEventListener("devicechange", changed);
}
