import { BackupPage } from "@/features/backup/backup-page";

export default function Page() {
  return <BackupPage />;
}
