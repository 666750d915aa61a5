// Bundles a TypeScript program of the repository: node scripts/bundle.mjs ENTRY OUTFILE
import { pathToFileURL } from "node:url";
import { build } from "esbuild";

export const bundle = (entry, outfile) =>
  build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
    alias: { "@": "./src" },
    logLevel: "error",
  });

if (import.meta.url === pathToFileURL(process.argv[1]).href) await bundle(process.argv[2], process.argv[3]);
