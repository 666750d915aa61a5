/*
 * Values between samples, many at once. What the practice machine's tape costs is mostly this: 180 ns a value as a loop, a
 * fraction of it with two lanes (WebAssembly SIMD, double precision throughout). Its source is sinc-kernel.wat beside it; the
 * test holds one against the other.
 */
export const SINC_KERNEL = [
  "AGFzbQEAAAABCQFgBX9/f39/AAMCAQAFAwEACAcUAgZtZW1vcnkCAAdiZXR3ZWVuAAAK8gIB7wIDBH8FfAZ7IAIgA0EDdGohBQJA",
  "A0AgAiAFTw0BIAIrAwAhCSAJnCEKIAkgCqFEAAAAAAAAgECiIQsgC5whDCABIAyqQQh0aiEHIAdBgAJqIQggACAKqkEPa0EDdGoh",
  "Bv0MAAAAAAAAAAAAAAAAAAAAACEQ/QwAAAAAAAAAAAAAAAAAAAAAIRH9DAAAAAAAAAAAAAAAAAAAAAAhEv0MAAAAAAAAAAAAAAAA",
  "AAAAACETA0AgBv0ABAAhDiAG/QAEECEPIBAgDiAH/QAEAP3yAf3wASEQIBEgDyAH/QAEEP3yAf3wASERIBIgDiAH/QAEgAL98gH9",
  "8AEhEiATIA8gB/0ABJAC/fIB/fABIRMgBkEgaiEGIAdBIGohByAHIAhJDQALIBAgEf3wASEQIBIgE/3wASESIBD9IQAgEP0hAaAh",
  "DSAEIA0gCyAMoSAS/SEAIBL9IQGgIA2hoqA5AwAgAkEIaiECIARBCGohBAwACwsL",
].join("");
