import { CardPage } from "@/features/sheet/card-page";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <CardPage jobId={(await params).id} />;
}
