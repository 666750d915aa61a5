import { SheetPage } from "@/features/sheet/sheet-page";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <SheetPage jobId={(await params).id} />;
}
