import { NewJob } from "@/features/job/new-job";

export default function Page() {
  return <NewJob />;
}
