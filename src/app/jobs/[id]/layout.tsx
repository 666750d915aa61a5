import type { ReactNode } from "react";
import { ListenerProvider } from "@/features/bench/listener-provider";

export default async function Layout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ id: string }>;
}) {
  return <ListenerProvider jobId={(await params).id}>{children}</ListenerProvider>;
}
