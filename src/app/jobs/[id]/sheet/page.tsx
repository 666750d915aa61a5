import { SheetPage } from "@/features/sheet/sheet-page";

export default function Page() {
  return <SheetPage />;
}
