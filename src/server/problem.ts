/** Problem details (RFC 9457), with a sentence for the technician as their title. */
export const problem = (
  status: number,
  body: { readonly title: string; readonly code: string; readonly [more: string]: unknown },
) =>
  new Response(JSON.stringify({ type: 'about:blank', status, ...body }), {
    status,
    headers: { 'content-type': 'application/problem+json' },
  });

/** Whether a path can be read at all: each % in it stands before the digits of a character. What is asked for behind it is mended. */
export function isReadable(url: string): boolean {
  try {
    decodeURIComponent(new URL(url).pathname);
    return true;
  } catch {
    return false;
  }
}

/** What an address is answered with that cannot be read. */
export const unreadable = () =>
  problem(400, { title: 'This address cannot be read: a character in it is cut off.', code: 'invalid' });
