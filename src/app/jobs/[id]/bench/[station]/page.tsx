import { notFound } from "next/navigation";
import { stationById } from "@/core/alignment/registry";
import { Bench } from "@/features/bench/bench";

export default async function Page({ params }: { params: Promise<{ id: string; station: string }> }) {
  const { id, station } = await params;
  const found = stationById(station);
  if (!found || found.kind === "sheet") notFound();
  return <Bench jobId={id} stationId={found.id} />;
}
