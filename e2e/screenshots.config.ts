import base from "../playwright.config";

/** Makes docs/screenshots from the demo workshop: `npm run screenshots`, after `npm run build`. */
const config = {
  ...base,
  testDir: ".",
  globalSetup: "./make-sounds.ts",
  testMatch: /screenshots\.ts$/,
  workers: 1,
  reporter: "list" as const,
  projects: [{ ...base.projects![1], retries: 0, testMatch: undefined }],
};

export default config;
