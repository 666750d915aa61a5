// Bundles a TypeScript program of the repository: node scripts/bundle.mjs ENTRY OUTFILE
import { basename, dirname } from "node:path";
import { pathToFileURL } from "node:url";
import { build } from "esbuild";

/**
 * With its packages in it: one file is read faster than hundreds; what is imported only where it is needed stands in files of
 * its own beside it, named by what is in them. What packages `require` of Node.js is given to them.
 */
export const bundle = (entry, outfile) =>
  build({
    entryPoints: [entry],
    outdir: dirname(outfile),
    entryNames: basename(outfile, ".mjs"),
    chunkNames: "[name]-[hash]",
    outExtension: { ".js": ".mjs" },
    splitting: true,
    bundle: true,
    metafile: true,
    platform: "node",
    format: "esm",
    alias: { "@": "./src" },
    banner: {
      js: 'import { createRequire as requireOf } from "node:module"; const require = requireOf(import.meta.url);',
    },
    logLevel: "error",
  });

if (import.meta.url === pathToFileURL(process.argv[1]).href) await bundle(process.argv[2], process.argv[3]);
