// Bundles the service worker with the list of everything that the built application consists of.
import { readFileSync } from "node:fs";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { getManifest } from "@serwist/build";
import { build } from "esbuild";
import { bundled } from "./bundled.mjs";

const LARGEST_BYTES = 8 * 2 ** 20;

/** @param outfile where it is served from */
export async function buildServiceWorker(outfile) {
  const shared = { maximumFileSizeToCacheInBytes: LARGEST_BYTES };
  const lists = await Promise.all([
    getManifest({
      ...shared,
      globDirectory: ".next/static",
      globPatterns: ["**/*"],
      modifyURLPrefix: { "": "/_next/static/" },
      // their names say what is in them
      dontCacheBustURLsMatching: /./,
    }),
    getManifest({
      ...shared,
      globDirectory: "public",
      globPatterns: ["**/*.{js,json,svg,png}"],
      globIgnores: ["service-worker.js"],
      modifyURLPrefix: { "": "/" },
    }),
  ]);
  for (const { warnings } of lists)
    if (warnings.length > 0) throw new Error(`not everything can be kept: ${warnings.join("; ")}`);
  // which pages are kept is said once, in the application's own sources
  const pages = resolve(await bundled("src/service-worker/kept-pages.ts"));
  const { KEPT_ADDRESSES } = await import(pathToFileURL(pages).href);
  const revision = readFileSync(".next/BUILD_ID", "utf8");
  const entries = [
    ...lists.flatMap(({ manifestEntries }) => manifestEntries),
    ...[...KEPT_ADDRESSES, "/manifest.webmanifest"].map((url) => ({ url, revision })),
  ];
  await build({
    entryPoints: ["src/service-worker/service-worker.ts"],
    outfile,
    bundle: true,
    minify: true,
    format: "iife",
    target: "es2022",
    define: {
      __KEPT_FILES__: JSON.stringify(entries),
      "process.env.NODE_ENV": '"production"',
    },
    logLevel: "error",
  });
}
