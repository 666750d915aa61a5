import { CardPage } from "@/features/sheet/card-page";

export default function Page() {
  return <CardPage />;
}
