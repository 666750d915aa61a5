import { useEffect, useRef, useState } from "react";
import { againOpen, beginPass, endPass, passIsOver, passStep, type OnePass } from "@/core/alignment/one-pass";
import { passDoubt } from "@/core/live/pass-doubt";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { appendEntries, newId } from "@/storage/jobs";
import type { ListenerState } from "../listening/use-listener";

export interface PassHands {
  /** Null while none was begun. */
  pass: OnePass | null;
  isOver: boolean;
  /** Why nothing that is heard now is taken; null while it is. */
  doubt: string | null;
  begin(phase: OnePass["phase"]): void;
  /** Takes what can be told; the rest says why not. */
  end(): void;
  /** Back to the station. */
  close(): void;
}

/** Lets every station take its figures by itself while a whole tape plays, and stores them as they are taken. */
export function useOnePass(bench: OnTheBench, listener: ListenerState): PassHands {
  const [pass, setPass] = useState<OnePass | null>(null);
  const { live, heard, kind, told, check } = listener;
  const { tape, here } = bench;
  // the playback head, at the click of the pitch control
  const circumstances = { ...bench.circumstances, head: undefined, pitch: undefined, control: undefined };
  const laid: OnTheBench = { ...bench, circumstances };
  const doubt = live && passDoubt(live, check);
  const isOver = pass !== null && passIsOver(pass);
  const of = `${here.job.id} ${tape.id} ${here.job.speedCmPerS}`;
  const setting = `${told} ${circumstances.side}`;
  const current = useRef(pass);
  const begun = useRef({ of, setting, ran: false });

  const show = (next: OnePass | null) => {
    current.current = next;
    setPass(next);
  };
  const keep = ({ pass: next, readings }: ReturnType<typeof endPass>) => {
    show(next);
    if (readings.length > 0) void appendEntries({ readings, adjustments: [] });
  };

  const next = (before: OnePass) => {
    // another tape, or another speed of it: its bands are others
    if (begun.current.of !== of) return show(null);
    if (begun.current.setting !== setting) {
      begun.current.setting = setting;
      return show(againOpen(before));
    }
    // what is heard stops by itself, or somebody stops it
    if (kind === null && begun.current.ran) return keep(endPass(before));
    if (!live || !heard) return;
    begun.current.ran = true;
    const band = live.band?.sequence === null ? live.band.index : null;
    keep(passStep(before, { seconds: live.seconds, band, doubt }, laid, { newId, now: Date.now() }));
  };
  useEffect(() => {
    queueMicrotask(() => {
      if (current.current && !passIsOver(current.current)) next(current.current);
    });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a step for each thing that was heard
  }, [live, kind, of, setting]);

  return {
    pass,
    isOver,
    doubt,
    begin: (phase) => {
      begun.current = { of, setting, ran: false };
      show(beginPass(phase, laid));
    },
    end: () => pass && keep(endPass(pass)),
    close: () => show(null),
  };
}
