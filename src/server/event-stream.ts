/** Messages that may wait for a screen before those that pass are left out for it. */
const MOST_WAITING = 64;

/**
 * Server-sent events for a screen.
 *
 * @param begin told how to send a message; returns what ends it
 * @param passing the kind of message that a screen which does not keep up is sent less of, not ever more
 */
export function eventStream<M extends { readonly type: string }>(
  signal: AbortSignal,
  begin: (tell: (message: M) => void) => (() => void) | void,
  passing: M['type'],
): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let leave: (() => void) | void;
  return new ReadableStream({
    start(controller) {
      leave = begin((message) => {
        if ((controller.desiredSize ?? 1) < -MOST_WAITING && message.type === passing) return;
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(message)}\n\n`));
      });
      signal.addEventListener('abort', () => leave?.());
    },
    cancel: () => leave?.(),
  });
}
