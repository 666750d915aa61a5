/** A channel so far below full scale hears nothing; so far below the other one, it is not playing the tape. */
const SILENT_DBFS = -75;
const DEAD_BELOW_OTHER_DB = 30;

type Leveled = { levelDbfs: number };

/** Nothing arrives on it. */
export const isSilent = ({ levelDbfs }: Leveled): boolean => levelDbfs < SILENT_DBFS;

/** Nothing arrives on a channel, or nothing but what comes across from the other. */
export const isDead = (channels: readonly Leveled[], c: number): boolean =>
  isSilent(channels[c]) ||
  channels.some(({ levelDbfs }) => channels[c].levelDbfs < levelDbfs - DEAD_BELOW_OTHER_DB);
