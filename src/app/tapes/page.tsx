import { TapesPage } from "@/features/tapes/tapes-page";

export default function Page() {
  return <TapesPage />;
}
