import { JobPage } from "@/features/job/job-page";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <JobPage jobId={(await params).id} />;
}
