import type { ReactNode } from "react";
import { ListenerProvider } from "@/features/bench/listening/listener-provider";

export default function Layout({ children }: { children: ReactNode }) {
  return <ListenerProvider>{children}</ListenerProvider>;
}
