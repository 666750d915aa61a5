import "@fontsource-variable/atkinson-hyperlegible-mono/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import "@fontsource-variable/noto-sans-mono/wght.css";
import "@fontsource-variable/noto-sans/wght.css";
import { AppRouterCacheProvider } from "@mui/material-nextjs/v16-appRouter";
import type { Metadata } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { Shell } from "@/features/shell/shell";

export const metadata: Metadata = {
  title: "Unzel",
  description: "Listens to a tape machine, measures it, says what to turn, and writes the sheet.",
  icons: "/icon.svg",
};

export default async function Layout({ children }: { children: ReactNode }) {
  // asked for at each request: so whether the demo workshop is shown is decided when the server starts, not when it is built
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <AppRouterCacheProvider>
          <Shell demo={process.env.UNZEL_DEMO === "1"} nonce={nonce}>
            {children}
          </Shell>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
