import { NextResponse, type NextRequest } from "next/server";
import { contentPolicy } from "@/app/content-policy";

/** Gives each page a content policy with a number of its own; the page's own scripts take it from the request. */
export function proxy(request: NextRequest): NextResponse {
  const nonce = btoa(crypto.randomUUID());
  const policy = contentPolicy(nonce, process.env.NODE_ENV === "development");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("Content-Security-Policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("Content-Security-Policy", policy);
  return response;
}

/** Pages; files that are the same for all have their headers by the configuration. */
export const config = {
  matcher: "/((?!_next/static|_next/image|worklets/|demo/|icon|service-worker.js|manifest.webmanifest).*)",
};
