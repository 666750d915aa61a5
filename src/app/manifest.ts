import type { MetadataRoute } from "next";

/** How the application is installed: its name, its icons, a window of its own. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: "Unzel",
    short_name: "Unzel",
    description: "Listens to a tape machine, measures it, says what to turn, and writes the sheet.",
    start_url: "/",
    scope: "/",
    display: "standalone",
    background_color: "#f3eee4",
    theme_color: "#7c3f22",
    icons: [
      { src: "/icon.svg", sizes: "any", type: "image/svg+xml" },
      { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
      { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
      { src: "/icon-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
    ],
  };
}
