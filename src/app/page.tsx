import { Floor } from "@/features/floor/floor";

export default function Page() {
  return <Floor />;
}
