import "@fontsource-variable/atkinson-hyperlegible-mono/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import "@fontsource-variable/noto-sans-mono/wght.css";
import "@fontsource-variable/noto-sans/wght.css";
import { AppRouterCacheProvider } from "@mui/material-nextjs/v16-appRouter";
import type { Metadata } from "next";
import { connection } from "next/server";
import type { ReactNode } from "react";
import { Shell } from "@/features/shell/shell";

export const metadata: Metadata = {
  title: "Unzel",
  description: "Listens to a tape machine, measures it, says what to turn, and writes the sheet.",
  icons: "/icon.svg",
};

export default async function Layout({ children }: { children: ReactNode }) {
  await connection(); // whether this server shows the demo workshop is decided when it starts, not when it is built
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <AppRouterCacheProvider>
          <Shell demo={process.env.UNZEL_DEMO === "1"}>{children}</Shell>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
