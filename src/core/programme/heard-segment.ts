/** A stretch of the recording that sounds alike throughout. */
export interface HeardSegment {
  kind: "tone" | "sweep" | "noise" | "silence";
  startSeconds: number;
  endSeconds: number;
  /** When a sweep would have begun, had all of it been heard; of others when it was heard first. */
  beginsSeconds?: number;
  /** Of a tone; where a sweep begins; 0 otherwise. */
  frequencyHz: number;
  toFrequencyHz: number;
  /** Peak level of the tone, or of a sine as strong as the noise, in dBFS. */
  leftDb: number;
  rightDb: number;
}
