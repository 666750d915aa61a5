import { Missing } from "@/features/shell/missing";

export default function NotFound() {
  return <Missing what="There is no such page." />;
}
