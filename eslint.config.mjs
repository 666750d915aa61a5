import nextVitals from "eslint-config-next/core-web-vitals";
import nextTypescript from "eslint-config-next/typescript";

/** Which folders may not be reached from which: app → features → ui, storage, audio, workers → core. */
const forbid = (files, groups, message) => ({
  files,
  rules: {
    "no-restricted-imports": ["error", { patterns: [{ group: groups, message }, NO_CLIMBING] }],
  },
});
const NO_CLIMBING = { group: ["../../*"], message: "Reach other folders through @/." };
const OUTSIDE_CORE = [
  "@/app/*",
  "@/features/*",
  "@/ui/*",
  "@/storage/*",
  "@/audio/*",
  "@/workers/*",
  "@/cli/*",
];
const BROWSER = ["react", "react-*", "next", "next/*", "@mui/*", "dexie*", "comlink", "node:*", "fs", "path"];
const core = (folder, not, message) =>
  forbid(
    [`src/core/${folder}/**`],
    [...OUTSIDE_CORE, ...BROWSER, ...not.map((f) => `@/core/${f}/*`)],
    message,
  );

const config = [
  { ignores: [".next/**", "node_modules/**", "next-env.d.ts", "test-results/**", "playwright-report/**"] },
  ...nextVitals,
  ...nextTypescript,
  { rules: { "@typescript-eslint/no-explicit-any": "error", "react-hooks/refs": "off" } },
  forbid(["src/core/**"], [...OUTSIDE_CORE, ...BROWSER], "The core knows no interface, storage or Node."),
  core(
    "dsp",
    ["standards", "measure", "reference", "machine", "alignment", "formats"],
    "dsp knows nothing of tape.",
  ),
  core(
    "standards",
    ["measure", "reference", "machine", "alignment", "formats"],
    "Standards are data over dsp.",
  ),
  core(
    "measure",
    ["machine", "reference", "alignment", "formats"],
    "What measures must not know what it measures.",
  ),
  core(
    "machine",
    ["measure", "reference", "alignment", "formats"],
    "The practice machine must not know how it is measured.",
  ),
  core(
    "workshop",
    ["measure", "reference", "machine", "alignment", "formats"],
    "Workshop sums stand on standards alone.",
  ),
  core("advice", ["machine", "reference", "formats"], "Advice draws on measurements and the workshop."),
  forbid(
    ["src/core/alignment/**"],
    [...OUTSIDE_CORE, ...BROWSER, "@/core/dsp/*", "@/core/machine/*", "@/core/formats/wav*"],
    "Alignment uses results, never raw sound.",
  ),
  forbid(
    ["src/ui/**", "src/storage/**", "src/audio/**", "src/workers/**"],
    ["@/app/*", "@/features/*", "@/cli/*"],
    "Imports run towards the core.",
  ),
  forbid(["src/features/**"], ["@/app/*", "@/cli/*"], "Features do not know their routes."),
  forbid(
    ["src/app/**"],
    ["@/cli/*", "@/storage/*", "@/workers/*"],
    "Pages are thin: go through features or core.",
  ),
  forbid(
    ["src/cli/**"],
    ["@/app/*", "@/features/*", "@/ui/*", "@/storage/*", "@/workers/*"],
    "The command line stands on the core.",
  ),
  { files: ["**/*.test.ts"], rules: { "no-restricted-imports": "off" } },
];

export default config;
