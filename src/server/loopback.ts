const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d{1,5})?$/i;

const FOREIGN = 'Requests from other sites are refused.';

/** What a browser says of who asks: no script of a page can write these. */
type Asks = Pick<Headers, 'get'>;

/**
 * Why a request does not come from this machine's own screen, or null if it does. The Host must be a loopback name (a rebound name is
 * not), and an Origin, where the browser sends one, must be that same host. What another site has a browser fetch for it is refused, to
 * read as well as to write: a picture of a backup in a foreign page. Its link to a page may be followed.
 *
 * @param isPage a page is asked for, and not what the interface gives
 */
export function foreignRequest(headers: Asks, isPage: boolean): string | null {
  const [host, origin, site] = ['host', 'origin', 'sec-fetch-site'].map((name) => headers.get(name));
  if (!host || !LOOPBACK.test(host))
    return 'This address is not served here: open the one the start-up printed.';
  if (typeof origin === 'string' && origin.toLowerCase() !== `http://${host.toLowerCase()}`) return FOREIGN;
  // Programs that are no browser say nothing; of a browser, an address that was typed in is from nowhere.
  if (!site || site === 'same-origin' || site === 'none') return null;
  const isFollowed =
    headers.get('sec-fetch-mode') === 'navigate' && headers.get('sec-fetch-dest') === 'document';
  return isPage && isFollowed ? null : FOREIGN;
}
