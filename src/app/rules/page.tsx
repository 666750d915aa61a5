import { RulesPage } from "@/features/rules/rules-page";

export default function Page() {
  return <RulesPage />;
}
