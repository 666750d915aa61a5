import { Bench } from "@/features/bench/bench";

export default function Page() {
  return <Bench />;
}
