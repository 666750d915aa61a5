import { MachinesPage } from "@/features/machines/machines-page";

export default function Page() {
  return <MachinesPage />;
}
