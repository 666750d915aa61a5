import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import type { Adjuster } from "@/core/records/machine";
import { Card } from "@/ui/card";
import { pictureOf } from "../middle";
import { ReadElsewhere } from "../speed/read-elsewhere";
import type { PictureProps } from "../stations/picture";
import { TurnCard } from "./turn-card";
import type { ProposedTurns } from "./use-proposed-turns";
import { WorkCard } from "./work-card";

interface TurnColumnProps {
  picture: PictureProps;
  proposed: ProposedTurns;
  onChooseAdjuster(id: string): void;
  foundFirst: boolean;
  onTurned(atStop?: boolean): void;
  work: Adjuster[];
  workId: string;
  onChooseWork(id: string): void;
  onWorkDone(): void;
}

/** What to turn, or what to do where nothing is turned. */
export function TurnColumn({
  picture,
  proposed,
  onChooseAdjuster,
  foundFirst,
  onTurned,
  ...work
}: TurnColumnProps) {
  const { station, advised, view, listener } = picture;
  const turnedHere = station.adjusters.some(({ kind }) => kind === "turn");
  return (
    <>
      {advised.adjuster && (
        <TurnCard
          advised={advised}
          proposed={proposed}
          onChoose={onChooseAdjuster}
          first={
            advised.readElsewhere ? <ReadElsewhere view={view} read={advised.readElsewhere} /> : undefined
          }
          foundFirst={foundFirst}
          counted={listener.kind === "practice" && proposed.slot !== null}
          onTurned={onTurned}
        />
      )}
      {!advised.adjuster && turnedHere && <NothingToTurn {...picture} />}
      {work.work.length > 0 && (
        <WorkCard
          work={work.work}
          chosenId={work.workId}
          onChoose={work.onChooseWork}
          onDone={work.onWorkDone}
          withKey={!advised.adjuster}
          says={turnedHere ? "What no screw sets." : station.nothingToTurn}
        />
      )}
    </>
  );
}

/** A machine on which nothing is written down that sets this. */
function NothingToTurn(props: PictureProps) {
  const { NothingToTurn: More } = pictureOf(props.station);
  return (
    <Card title="Turn" tone="oxide">
      <Typography>{props.station.nothingToTurn}</Typography>
      {More ? (
        <More {...props} />
      ) : (
        <Typography sx={{ mt: 1 }}>
          <Link href="/machines">Write it down</Link>
        </Typography>
      )}
    </Card>
  );
}
