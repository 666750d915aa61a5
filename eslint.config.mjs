import { readdirSync } from "node:fs";
import nextVitals from "eslint-config-next/core-web-vitals";
import nextTypescript from "eslint-config-next/typescript";

/** What each folder of the core may reach: everything that is not named is forbidden. Imports run downwards. */
const CORE = {
  text: [],
  dsp: [],
  workshop: ["dsp", "text"],
  standards: ["dsp"],
  measure: ["dsp", "standards"],
  judging: ["measure", "standards"],
  programme: ["dsp", "measure", "text"],
  signals: ["dsp", "programme", "text"],
  returned: ["dsp", "guidance", "measure", "programme", "signals"],
  // the practice machine must not know how it is measured
  simulator: ["dsp", "standards"],
  records: ["dsp", "standards", "text", "workshop"],
  reference: ["measure", "programme", "standards", "text"],
  playback: ["judging", "measure", "programme", "records", "reference", "standards", "text", "workshop"],
  guidance: ["dsp", "records", "standards", "text"],
  advice: ["dsp", "guidance", "judging", "measure", "standards", "workshop"],
  // alignment uses results, never raw sound
  stations: [
    "advice",
    "guidance",
    "judging",
    "measure",
    "playback",
    "records",
    "reference",
    "returned",
    "signals",
    "standards",
    "text",
    "workshop",
  ],
  alignment: [
    "guidance",
    "judging",
    "playback",
    "records",
    "reference",
    "standards",
    "stations",
    "text",
    "workshop",
  ],
  live: [
    "dsp",
    "measure",
    "playback",
    "programme",
    "records",
    "reference",
    "returned",
    "signals",
    "standards",
    "stations",
  ],
  formats: ["advice", "alignment", "dsp", "measure", "records", "reference", "signals", "text", "workshop"],
  recordings: [
    "advice",
    "dsp",
    "formats",
    "live",
    "measure",
    "playback",
    "programme",
    "records",
    "reference",
    "returned",
    "signals",
    "standards",
    "stations",
    "text",
  ],
  practice: ["records", "reference", "signals", "simulator", "workshop"],
};

/** The same for the folders around it: app → features → ui, storage, audio, workers → core. */
const AROUND = {
  core: [],
  ui: ["core"],
  audio: ["core"],
  storage: ["core"],
  workers: ["core", "storage"],
  features: ["core", "ui", "audio", "storage", "workers"],
  app: ["core", "features", "ui"],
  cli: ["core"],
  "service-worker": [],
  testing: ["core"],
};

const BROWSER = ["react", "react-*", "next", "next/*", "@mui/*", "dexie*", "comlink", "node:*"];
const NO_CLIMBING = { group: ["../../*"], message: "Reach other folders through @/." };

const folders = (at) =>
  readdirSync(at, { withFileTypes: true }).flatMap((entry) => (entry.isDirectory() ? [entry.name] : []));

/** Rules of one list of folders; a folder without a rule is an error, so that nobody forgets one. */
function layers(rules, at, prefix, beside) {
  const there = folders(at);
  const unruled = there.filter((folder) => !(folder in rules));
  const gone = Object.keys(rules).filter((folder) => !there.includes(folder));
  if (unruled.length + gone.length > 0)
    throw new Error(
      `${at}: no rule says what ${unruled.join(", ") || "no folder"} may import; rules without a folder: ${gone.join(", ") || "none"}`,
    );
  return there.map((folder) => {
    const not = there.filter((other) => other !== folder && !rules[folder].includes(other));
    return {
      files: [`${at}/${folder}/**`],
      rules: {
        "no-restricted-imports": [
          "error",
          {
            patterns: [
              NO_CLIMBING,
              {
                group: [...not.map((other) => `${prefix}/${other}/*`), ...beside(folder)],
                message: `${folder} may import ${rules[folder].join(", ") || "nothing of the project"}: imports run one way.`,
              },
            ],
          },
        ],
      },
    };
  });
}

/** Packages that the rest of the project has from one place of its own. */
const FROM_ONE_PLACE = [
  {
    name: "zod",
    places: ["src/core/text/zod.ts", "src/workers/without-eval.ts"],
    message: "Take z from @/core/text/zod: its complaints are sentences.",
  },
  {
    name: "next/link",
    places: ["src/ui/link.tsx"],
    message: "Take Link from @/ui/link: it fetches nothing ahead.",
  },
];
const only = (list) => ({
  "no-restricted-syntax": [
    "error",
    ...list.map(({ name, message }) => ({
      selector: `ImportDeclaration[source.value='${name}']`,
      message,
    })),
  ],
});

const OUTSIDE_CORE = Object.keys(AROUND)
  .filter((folder) => folder !== "core")
  .map((folder) => `@/${folder}/*`);

/** Where there is React: its rules think through every function of a file, half of the time of the whole. */
const REACT = ["src/{app,features,ui}/**"];

const config = [
  {
    ignores: [
      ".next/**",
      "public/service-worker.js",
      "node_modules/**",
      "next-env.d.ts",
      "test-results/**",
      "playwright-report/**",
    ],
  },
  ...nextVitals.map((one) => ("react-hooks" in (one.plugins ?? {}) ? { ...one, files: REACT } : one)),
  ...nextTypescript,
  { rules: { "@typescript-eslint/no-explicit-any": "error", "react-hooks/refs": "off" } },
  { files: ["src/**"], rules: only(FROM_ONE_PLACE) },
  ...FROM_ONE_PLACE.map((one) => ({
    files: one.places,
    rules: only(FROM_ONE_PLACE.filter((other) => other !== one)),
  })),
  ...layers(AROUND, "src", "@", () => []),
  ...layers(CORE, "src/core", "@/core", () => [...OUTSIDE_CORE, ...BROWSER]),
  { files: ["**/*.test.ts"], rules: { "no-restricted-imports": "off" } },
];

export default config;
