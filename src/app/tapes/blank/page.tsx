import { BlanksPage } from "@/features/blanks/blanks-page";

export default function Page() {
  return <BlanksPage />;
}
