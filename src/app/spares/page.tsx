import { SparesPage } from "@/features/spares/spares-page";

export default function Page() {
  return <SparesPage />;
}
