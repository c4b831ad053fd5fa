/**
 * What a page may load and run, by directive: nothing but its own, and of scripts and styles what was written for this one page.
 * @param nonce of this page @param styles hashes of what its own libraries write into it
 */
export const pagePolicy = (nonce: string, styles: readonly string[]): Record<string, readonly string[]> => ({
  "default-src": ["'self'"],
  "script-src": ["'self'", `'nonce-${nonce}'`, "'strict-dynamic'"],
  "style-src": ["'self'", `'nonce-${nonce}'`, ...styles],
  "style-src-attr": ["'unsafe-inline'"],
  "img-src": ["'self'", "data:", "blob:"],
  "font-src": ["'self'"],
  "connect-src": ["'self'"],
  "worker-src": ["'self'", "blob:"],
  "object-src": ["'none'"],
  "base-uri": ["'none'"],
  "form-action": ["'self'"],
  "frame-ancestors": ["'none'"],
});

/** The same as one header. */
export const policyText = (of: Record<string, readonly string[]>): string =>
  Object.entries(of)
    .map(([directive, sources]) => `${directive} ${sources.join(" ")}`)
    .join(";");
