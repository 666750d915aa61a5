import { JobPage } from "@/features/job/job-page";

export default function Page() {
  return <JobPage />;
}
