import { ListenPage } from "@/features/listen/listen-page";

export default function Page() {
  return <ListenPage />;
}
