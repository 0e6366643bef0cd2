const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d{1,5})?$/i;

/**
 * Why a request does not come from this machine's own screen, or null if it does. The Host must be a loopback name
 * (a rebound name is not), and an Origin, where the browser sends one, must be that same host.
 */
export function foreignRequest(host: string | null, origin: string | null): string | null {
  if (!host || !LOOPBACK.test(host))
    return 'This address is not served here: open the one the start-up printed.';
  if (origin === null) return null;
  return origin.toLowerCase() === `http://${host.toLowerCase()}`
    ? null
    : 'Requests from other sites are refused.';
}
