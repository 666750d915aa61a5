import { SignalsPage } from "@/features/signals/signals-page";

export default function Page() {
  return <SignalsPage />;
}
