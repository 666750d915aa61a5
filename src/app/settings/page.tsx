import { SettingsPage } from "@/features/settings/settings-page";

export default function Page() {
  return <SettingsPage />;
}
