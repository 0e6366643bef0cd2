'use client';

import { useEffect, useState } from 'react';

/** What a stream tells: a message, or null where the server does not answer. */
export type AfterMessage<S, M> = (state: S, message: M | null) => S;

/**
 * What the server tells as it comes, while the page is looked at. A browser opens six lines to a server at most, and a page that is
 * hidden needs none: it lets go of its line, forgets what it heard, and takes the line up again as it is shown. The browser takes up by
 * itself a line that breaks.
 *
 * @param url null while nothing is to be heard
 * @param first what is known before anything was heard
 * @param after the same function each time
 */
export function useStream<S, M>(url: string | null, first: S, after: AfterMessage<S, M>): S {
  const [state, setState] = useState(first);
  useEffect(() => {
    if (url === null) return;
    let source: EventSource | null = null;
    const letGo = () => {
      source?.close();
      source = null;
      setState(first);
    };
    const listen = () => {
      if (document.visibilityState === 'hidden') return letGo();
      if (source) return;
      source = new EventSource(url);
      source.onmessage = ({ data }) => setState((now) => after(now, JSON.parse(data as string) as M));
      source.onerror = () => setState((now) => after(now, null));
    };
    listen();
    document.addEventListener('visibilitychange', listen);
    return () => {
      document.removeEventListener('visibilitychange', listen);
      letGo();
    };
  }, [url, first, after]);
  return url === null ? first : state;
}
