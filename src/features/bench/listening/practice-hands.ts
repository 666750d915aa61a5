import type { Session } from "@/core/live/session";
import type { BlankTape } from "@/core/records/blank-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Sequence } from "@/core/signals/sequence";
import type { DeckKey, DeckSwitches, Way } from "@/core/simulator/deck-status";
import type { TapeType } from "@/core/standards/tape-types";
import type { PracticeState } from "@/workers/listener-api";
import type { Listener } from "@/workers/start-worker";
import { keepPractice, type KeptPractice } from "./kept-practice";
import type { OpenedSource } from "./source-desk";

const RECORDS = { forwards: "record", reverse: "record-reverse" } as const satisfies Record<Way, DeckKey>;
const PLAYS = { forwards: "play", reverse: "reverse" } as const satisfies Record<Way, DeckKey>;

interface PracticeOptions {
  jobId: string;
  /** What runs now, if that is a live source. */
  running(): OpenedSource | null;
  dispatch(
    session: Session,
    happened: { kind: "practice changed"; state: PracticeState } | { kind: "trouble"; why: string },
  ): void;
}

/** What hands do to a practice machine; nothing of it while another source runs, or none. */
export function practiceHands({ jobId, running, dispatch }: PracticeOptions) {
  /** Does something to the practice machine of the session that runs, and shows how it stands then. */
  const toPractice = async (
    work: (api: Listener["api"]) => Promise<PracticeState>,
    keep?: (state: PracticeState, kept: KeptPractice) => Partial<KeptPractice>,
  ): Promise<void> => {
    const mine = running();
    if (!mine?.kept) return;
    try {
      const changed = await work(mine.worker.api);
      if (mine.session.closed) return;
      dispatch(mine.session, { kind: "practice changed", state: changed });
      if (!keep) return;
      mine.kept = { ...mine.kept, ...keep(changed, mine.kept) };
      await keepPractice(jobId, mine.kept);
    } catch (error) {
      if (!mine.session.closed) dispatch(mine.session, { kind: "trouble", why: (error as Error).message });
    }
  };

  const chooseInput = async (sequence: Sequence | null): Promise<void> => {
    const mine = running();
    if (!mine?.kept) return;
    mine.sends = sequence;
    await mine.worker.api.chooseInput(sequence);
  };

  return {
    /** What the practice machine's monitor gives while it records. */
    monitor: (what: "source" | "tape") => toPractice((api) => api.monitor(what)),
    setSwitches: (wanted: DeckSwitches) =>
      toPractice(
        (api) => api.setSwitches(wanted),
        ({ deck }) => ({ switches: deck.switches }),
      ),
    setTapeSwitch: (type: TapeType | null) => toPractice((api) => api.setTapeSwitch(type)),
    /** Does work on the practice machine. */
    repairPractice: async (work: string) => {
      const mine = running();
      if (!mine?.kept) return;
      await mine.worker.api.repairPractice(work);
      mine.kept = { ...mine.kept, done: [...mine.kept.done, work] };
      await keepPractice(jobId, mine.kept);
    },
    /** Turns a slot of the practice machine. */
    turnPractice: (trimmer: number, turns: number) =>
      toPractice(
        (api) => api.turnPractice(trimmer, turns),
        ({ trimmers }) => ({ slotTurns: trimmers.map(({ slotTurns }) => slotTurns) }),
      ),
    pressKey: (key: DeckKey) => toPractice((api) => api.pressKey(key)),
    loadTape: (tape: ReferenceTape) => toPractice((api) => api.loadTape(tape)),
    loadBlank: (blank: BlankTape | null) => toPractice((api) => api.loadBlank(blank)),
    /** Puts a blank tape in from the start of a side, and records a sequence on it. */
    recordSequence: async (sequence: Sequence, blank: BlankTape | null, way: Way = "forwards") => {
      await toPractice((api) => api.loadBlank(blank));
      if (way === "reverse") await toPractice((api) => api.windToStart(way));
      await chooseInput(sequence);
      await toPractice((api) => api.pressKey(RECORDS[way]));
    },
    /** Records silence on the practice machine from where it stands. */
    recordNothing: async () => {
      await chooseInput(null);
      await toPractice((api) => api.pressKey("record"));
    },
    /** Winds the practice machine to where the recording began, and plays it. */
    playRecording: async (way: Way = "forwards") => {
      await toPractice((api) => api.windToStart(way));
      await toPractice((api) => api.pressKey(PLAYS[way]));
    },
    turnSide: () => toPractice((api) => api.turnSide()),
    resetCounter: () => toPractice((api) => api.resetCounter()),
    chooseInput: (sequence: Sequence | null) => void chooseInput(sequence),
  };
}
