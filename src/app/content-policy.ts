/**
 * What a page may load and run: only what this server gives, scripts only with the number that was drawn for the page.
 * Styles are written into the page by its components; WebAssembly decodes FLAC.
 * @param nonce drawn anew for each page, @param develops a page that is being worked on evaluates its own changes
 */
export const contentPolicy = (nonce: string, develops = false): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'${develops ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "media-src 'self' blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "manifest-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-src 'none'",
    "frame-ancestors 'none'",
  ].join("; ");
