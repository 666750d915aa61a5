// Installs, builds and serves the application with the demo workshop in it.
import { spawn, spawnSync } from "node:child_process";
import { createServer } from "node:net";
import { setTimeout } from "node:timers/promises";
import { ensureInstalled } from "./install.mjs";

const port = Number(process.env.PORT ?? 3000);
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error(`PORT is "${process.env.PORT}"; it has to be a number from 1 to 65535.`);
  process.exit(1);
}
/** Seen from this machine only, unless somebody asks for more. */
const host = process.env.HOST ?? "127.0.0.1";
await new Promise((resolve) => {
  const probe = createServer();
  probe.once("error", (error) => {
    console.error(
      error.code === "EADDRINUSE"
        ? `Port ${port} is taken by another program. Stop that one, or choose another port: PORT=3100 npm run demo`
        : error.code === "EADDRNOTAVAIL" || error.code === "ENOTFOUND"
          ? `HOST is "${host}", which is no address of this machine. Leave it out, or say 0.0.0.0 to be seen from others.`
          : `Port ${port} cannot be used: ${error.message}. Choose another: PORT=3100 npm run demo`,
    );
    process.exit(1);
  });
  probe.listen(port, host, () => probe.close(resolve));
});

ensureInstalled();
const built = spawnSync(process.execPath, ["scripts/build.mjs"], { stdio: "inherit" });
if (built.status !== 0) process.exit(built.status ?? 1);

const server = spawn("node_modules/.bin/next", ["start", "--port", String(port), "--hostname", host], {
  stdio: "inherit",
  env: { ...process.env, UNZEL_DEMO: "1", NEXT_TELEMETRY_DISABLED: "1" },
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));

// the first page takes the server longest: by the time that somebody knows the address it has made one
const address = `http://${["127.0.0.1", "0.0.0.0"].includes(host) ? "localhost" : host}:${port}`;
const answers = () =>
  fetch(address).then(
    () => true,
    () => false,
  );
while (!(await answers())) await setTimeout(200);
console.log(`\nUnzel with its demo workshop: ${address}\n`);
