import base from "../playwright.config";

/** Kills the browser at random moments, over and over: `npm run kills`, after `npm run build`. */
const config = {
  ...base,
  testDir: ".",
  globalSetup: "./make-sounds.ts",
  testMatch: /kills\.ts$/,
  workers: 2,
  reporter: "list" as const,
  projects: [{ ...base.projects![0], testIgnore: undefined, testMatch: undefined }],
};

export default config;
