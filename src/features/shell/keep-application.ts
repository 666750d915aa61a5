/** Every file of it is fetched for that, from a server that may still be sending what the first screen needs. */
const AFTER_MS = 1000;

/**
 * Has the application kept in this browser, so that it opens without its server: a second after this is called.
 * @param onNewer called when a newer one is there; what it is given loads it
 * @returns ends the watch
 */
export function keepApplication(onNewer: (takeOver: () => void) => void): () => void {
  const { serviceWorker } = navigator as { serviceWorker?: ServiceWorkerContainer };
  // while it is being worked on nothing is kept; nor where the browser does not trust the connection
  if (!serviceWorker || process.env.NODE_ENV !== "production") return () => {};
  const ended = new AbortController();
  const offer = (waiting: ServiceWorker) => {
    if (ended.signal.aborted) return;
    onNewer(() => {
      serviceWorker.addEventListener("controllerchange", () => window.location.reload(), { once: true });
      waiting.postMessage("take over");
    });
  };
  const watch = async () => {
    const registration = await serviceWorker.register("/service-worker.js", { updateViaCache: "none" });
    if (registration.waiting && serviceWorker.controller) offer(registration.waiting);
    registration.addEventListener(
      "updatefound",
      () => {
        const { installing } = registration;
        installing?.addEventListener("statechange", () => {
          // the very first has nothing to take over from
          if (installing.state === "installed" && serviceWorker.controller) offer(installing);
        });
      },
      { signal: ended.signal },
    );
  };
  // without it everything works while the server is there
  const begin = setTimeout(() => watch().catch(() => undefined), AFTER_MS);
  return () => {
    clearTimeout(begin);
    ended.abort();
  };
}
