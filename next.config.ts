import type { NextConfig } from "next";

/** Of everything that is served. */
const HEADERS = [
  { key: "X-Content-Type-Options", value: "nosniff" },
  { key: "X-Frame-Options", value: "DENY" },
  { key: "Referrer-Policy", value: "no-referrer" },
  { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
  { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
  {
    key: "Permissions-Policy",
    value: "microphone=(self), camera=(self), geolocation=(), payment=(), usb=(), serial=()",
  },
];
/** Of scripts that run as workers and worklets, which have a policy of their own. */
const WORKER_POLICY = {
  key: "Content-Security-Policy",
  value:
    "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; object-src 'none'; frame-ancestors 'none'",
};

const config: NextConfig = {
  reactStrictMode: true,
  // what has not changed is not drawn again: ten results come in a second
  reactCompiler: true,
  poweredByHeader: false,
  // types are checked by themselves, once
  typescript: { ignoreBuildErrors: true },
  headers: async () => [
    { source: "/:path*", headers: HEADERS },
    ...["/_next/static/:path*", "/worklets/:path*", "/service-worker.js"].map((source) => ({
      source,
      headers: [WORKER_POLICY],
    })),
  ],
};

export default config;
