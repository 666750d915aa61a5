import { LiveListening } from "@/core/live/live-listening";
import { matchRecordings, MatchSound } from "@/core/measure/match/match-recordings";
import { practiceTape } from "@/core/practice/practice-tape";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { pluckedNotes } from "@/testing/plucked-notes";
import { PRACTICE } from "./practice";
import { say, timed } from "./say";

/** What is played, by its bands and all at once, and one copy against another. */
export function listeningFigures(): void {
  const ladder = BUILT_IN_TAPES.find(({ id }) => id === "azimuth-cassette")!;
  const player = new PracticeDeck({ ...PRACTICE, tape: practiceTape(ladder) });
  player.press("play");
  const played = Array.from({ length: 80 }, () => player.render(48000));
  const recogniser = new ProgrammeRecogniser(48000, 2, { marks: false });
  const heardIn = timed(() => {
    for (const block of played) recogniser.push(block);
    recogniser.finish();
  });
  say("hearing bands, stereo 48 kHz: seconds of sound per second", (80 / heardIn).toFixed(0));
  say(
    "  telling which of the tape's bands they are, 80 s, ms",
    (1000 * timed(() => recogniser.recognise(programmeOfTape(ladder)))).toFixed(0),
  );

  const listening = new LiveListening({
    sampleRateHz: 48000,
    channelCount: 2,
    tape: ladder,
    speedFactor: 1,
    nominalHz: 3150,
    evidenceSeconds: 30,
  });
  const listenedIn = timed(() => {
    for (const [left, right] of played)
      for (let at = 0; at < 48000; at += 4800) {
        listening.push([left.slice(at, at + 4800), right.slice(at, at + 4800)]);
        listening.result(true);
      }
  });
  say(
    "everything live at once, with flutter: ms for each second of sound",
    ((1000 * listenedIn) / 80).toFixed(0),
  );

  const music = pluckedNotes(5, 60);
  const [copy, original] = [1.03, 1].map((ratio) => {
    const sound = new MatchSound(16000);
    sound.push([Float64Array.from({ length: 50 * 16000 }, (_, i) => music((ratio * i) / 16000))]);
    return sound;
  });
  let matched = matchRecordings(copy, original);
  say(
    "comparing 50 s of music with another copy, ms",
    (1000 * timed(() => (matched = matchRecordings(copy, original)))).toFixed(0),
  );
  say("  speed found where it is 3 %", `${matched.speedErrorPercent?.toFixed(4)} %`);
}
