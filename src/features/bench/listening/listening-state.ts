import type { SoundCardInput } from "@/audio/sound-card";
import type { TransportView } from "@/core/advice/transport-view";
import { beforeTurn, heardLive, type LiveSource, heardSince } from "@/core/live/heard-live";
import { zerosOf } from "@/core/stations/erased";
import type { ListeningResult } from "@/core/live/listening-result";
import type { SignalReport } from "@/core/measure/signal-findings";
import type { WatchTrack } from "@/core/measure/watch-log";
import { heardFile } from "@/core/recordings/measure-for-bench";
import type { FileMeasurement } from "@/core/recordings/file-measurement";
import type { Calibration } from "@/core/records/input-calibration";
import type { Reading } from "@/core/records/reading";
import type { DeckStatus, DeckSwitches } from "@/core/simulator/deck-status";
import { NOTHING_HEARD_YET, type Heard } from "@/core/stations/heard";
import type { StripPoint } from "@/ui/strip";
import type { PracticeState, SlotState } from "@/workers/listener-api";

export type SourceKind = Exclude<Reading["source"]["kind"], "by hand">;

/** How a practice machine stands. */
export interface PracticeSetUp {
  conditionId: string;
  trimmers: SlotState[];
  /** Where each slot stood when a turn of it was logged last. */
  loggedTurns: number[];
  deck: DeckStatus;
  heads: number;
  autoReverse: boolean;
  /** Those that it has. */
  switches: Array<keyof DeckSwitches>;
}

/** The input that is heard, with what is known of it. */
export interface HeardCard extends Omit<SoundCardInput, "port" | "stop"> {
  calibration: Calibration | null;
}

/** What the page shows of its source: the newest of everything, and the recent past. */
export interface ListeningState {
  /** The session that all of it belongs to; 0 before the first. */
  session: number;
  /** Null when nothing is started. */
  kind: SourceKind | null;
  /** Something is being opened or measured. */
  starting: boolean;
  live: ListeningResult | null;
  heard: Heard | null;
  check: SignalReport | null;
  transport: TransportView | null;
  /** What flutter was made of when a tone was heard last, whatever is heard since. */
  lastTransport: TransportView | null;
  watch: WatchTrack | null;
  watching: boolean;
  speedStrip: StripPoint[];
  flutterStrip: StripPoint[];
  /** When something was turned. */
  marks: number[];
  /** How often turns were told to the source: results with fewer were heard before the last. */
  told: number;
  /** Of a file that is being measured, from 0 to 1. */
  progress: number | null;
  practice: PracticeSetUp | null;
  card: HeardCard | null;
  trouble: string | null;
  /** The sound card was lost and can be started again. */
  lost: boolean;
}

export const NOTHING_HEARD: ListeningState = {
  session: 0,
  kind: null,
  starting: false,
  live: null,
  heard: null,
  check: null,
  transport: null,
  lastTransport: null,
  watch: null,
  watching: false,
  speedStrip: [],
  flutterStrip: [],
  marks: [],
  told: 0,
  progress: null,
  practice: null,
  card: null,
  trouble: null,
  lost: false,
};

/** What happens to a session; what is said of an older one is dropped. */
export type ListeningEvent = { session: number } & (
  | { kind: "begun"; source: SourceKind }
  | { kind: "practice started"; practice: PracticeSetUp }
  | { kind: "card opened"; card: HeardCard }
  | { kind: "card started"; trouble: string | null }
  | { kind: "heard"; result: ListeningResult; from: LiveSource; deck?: DeckStatus }
  | { kind: "parts found"; transport: TransportView; told: number }
  | { kind: "progress"; share: number }
  /** Dropped in at a time, ISO: what was turned since is not in it. */
  | { kind: "file measured"; file: FileMeasurement; droppedAt: string }
  | { kind: "practice changed"; state: PracticeState }
  | { kind: "turns logged"; loggedTurns: number[] }
  | { kind: "watch"; on: boolean }
  /** Turned over, the same tape plays on the same machine: what 0 comes back at stays. */
  | { kind: "tones cleared"; turnedOver: boolean }
  | { kind: "quiet forgotten" }
  | { kind: "controls begun" }
  | { kind: "turned" }
  | { kind: "told"; times: number }
  /** It went on as long as it could: what was heard stays to be seen. */
  | { kind: "lost"; why: string }
  | { kind: "failed"; why: string; canStartAgain: boolean }
  /** Something that was asked of it could not be done; it runs on. */
  | { kind: "trouble"; why: string }
  | { kind: "card is back"; name: string }
  | { kind: "trouble dismissed" }
  /** Somebody stopped it: nothing of it is shown any more. */
  | { kind: "stopped" }
);

const STRIP_SECONDS = 95;

/** What the page shows after an event. */
export function listening(state: ListeningState, event: ListeningEvent): ListeningState {
  if (event.kind === "begun")
    return event.session > state.session
      ? {
          ...NOTHING_HEARD,
          session: event.session,
          kind: event.source,
          starting: true,
          lastTransport: state.lastTransport,
        }
      : state;
  if (event.session !== state.session) return state;
  // of a session that has ended nothing more is shown, but that its sound card is back
  if (state.kind === null && event.kind !== "trouble dismissed" && event.kind !== "card is back")
    return state;
  switch (event.kind) {
    case "practice started":
      return { ...state, starting: false, practice: event.practice };
    case "card opened":
      return { ...state, card: event.card };
    case "card started":
      return { ...state, starting: false, trouble: event.trouble };
    case "heard":
      return event.result.marks < state.told ? state : withResult(state, event);
    case "parts found":
      return event.told < state.told
        ? state
        : { ...state, transport: event.transport, lastTransport: event.transport };
    case "progress":
      return { ...state, progress: event.share };
    case "file measured": {
      const { file, droppedAt } = event;
      return {
        ...state,
        starting: false,
        progress: null,
        heard: { ...heardFile(file), droppedAt },
        transport: file.transport,
        lastTransport: file.transport ?? state.lastTransport,
      };
    }
    case "practice changed":
      return { ...state, practice: state.practice && { ...state.practice, ...event.state } };
    case "turns logged":
      return { ...state, practice: state.practice && { ...state.practice, loggedTurns: event.loggedTurns } };
    case "watch":
      return { ...state, watching: event.on, watch: event.on ? null : state.watch };
    case "tones cleared":
      return {
        ...state,
        heard: state.heard && {
          ...state.heard,
          playback: null,
          comparison: null,
          returned: null,
          blanking: null,
          zeroDbfs: event.turnedOver ? (zerosOf(state.heard.returned) ?? state.heard.zeroDbfs) : null,
        },
      };
    case "quiet forgotten":
      return { ...state, heard: state.heard && { ...state.heard, quiet: null, blanking: null } };
    case "controls begun":
      return { ...state, heard: state.heard && { ...state.heard, controls: null } };
    case "turned":
      return {
        ...state,
        transport: null,
        marks: state.live ? [...state.marks, state.live.seconds] : state.marks,
      };
    case "told":
      return { ...state, told: event.times, heard: state.heard && beforeTurn(state.heard) };
    case "lost":
      return {
        ...state,
        kind: null,
        starting: false,
        watching: false,
        heard: state.heard && { ...state.heard, gone: true },
        trouble: event.why,
        lost: true,
      };
    case "failed":
      return {
        ...NOTHING_HEARD,
        session: state.session,
        card: state.card,
        trouble: event.why,
        lost: event.canStartAgain,
      };
    case "trouble":
      return { ...state, trouble: event.why };
    case "card is back":
      return { ...state, trouble: `${event.name} is back. Start it again; what was logged is kept.` };
    case "trouble dismissed":
      return { ...state, trouble: null, lost: false };
    case "stopped":
      return { ...NOTHING_HEARD, session: state.session, lastTransport: state.lastTransport };
  }
}

function withResult(
  state: ListeningState,
  { result, from, deck }: Extract<ListeningEvent, { kind: "heard" }>,
): ListeningState {
  const add = (points: StripPoint[], value: number | undefined) =>
    value === undefined
      ? points
      : [
          ...points.filter(({ seconds }) => seconds > result.seconds - STRIP_SECONDS),
          { seconds: result.seconds, value },
        ];
  return {
    ...state,
    live: result,
    heard: heardLive(result, from, heardSince(state.heard ?? NOTHING_HEARD_YET, result)),
    check: result.check ?? state.check,
    watch: result.watch ?? state.watch,
    speedStrip: add(state.speedStrip, result.speed?.instantPercent),
    flutterStrip: add(state.flutterStrip, result.flutter?.weighted.peakPercent),
    practice: deck && state.practice ? { ...state.practice, deck } : state.practice,
  };
}
