import {
  Serwist,
  type CachedResponseWillBeUsedCallbackParam,
  type PrecacheEntry,
  type RouteHandlerCallbackOptions,
} from "serwist";
import { keptPage } from "./kept-pages";

/** Filled in when the application is built. */
declare const __KEPT_FILES__: Array<PrecacheEntry | string>;
declare const self: ServiceWorkerGlobalScope;

/** A server that has not answered by then is as good as gone. */
const LONGEST_WAIT_MS = 3000;

/*
 * Keeps the whole application in the browser: after one visit every page opens without the server. While the server
 * answers, pages are its own. A newer application waits until the page asks for it.
 */
const serwist = new Serwist({
  precacheEntries: __KEPT_FILES__,
  precacheOptions: { plugins: [{ cachedResponseWillBeUsed: asRequested }] },
  skipWaiting: false,
  clientsClaim: true,
  runtimeCaching: [
    {
      matcher: ({ request, url, sameOrigin }) =>
        sameOrigin && request.mode === "navigate" && keptPage(url.pathname) !== null,
      handler: { handle: pageFor },
    },
  ],
});
serwist.addEventListeners();

self.addEventListener("message", ({ data }) => {
  if (data === "take over") void self.skipWaiting();
});

/**
 * What a worker is to load stands behind the # of its address, and a kept answer has one without it: an answer without an
 * address of its own leaves the worker the one it was asked for by.
 */
async function asRequested({ cachedResponse }: CachedResponseWillBeUsedCallbackParam) {
  if (!cachedResponse) return cachedResponse;
  const { body, status, headers } = cachedResponse;
  return new Response(body, { status, headers });
}

async function pageFor({ request, url }: RouteHandlerCallbackOptions): Promise<Response> {
  const kept = () => serwist.matchPrecache(keptPage(url.pathname)!);
  try {
    const answer = await fetch(request, { signal: AbortSignal.timeout(LONGEST_WAIT_MS) });
    return answer.status < 500 ? answer : ((await kept()) ?? answer);
  } catch (error) {
    const page = await kept();
    if (page) return page;
    throw error;
  }
}
