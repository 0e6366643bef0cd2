/**
 * What a page may load and run, as a Content-Security-Policy: what this server serves, and no script that was written into the page
 * unless it carries the nonce of this answer. Styles may be written in: the components write theirs so.
 *
 * @param nonce made anew for each answer
 * @param isDeveloped the development server, whose scripts evaluate text
 */
export const contentPolicy = (nonce: string, isDeveloped = false): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'${isDeveloped ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
