import { jsonExcess, unkeptText, unkeptWords } from '@/core/records/text';

/** Largest request body of JSON read, bytes: ten thousand times a capture, and far from hurting the server. */
export const MOST_BYTES = 1_000_000;

/** A body that is not read, with the status and the sentence of the answer. */
export class BadBody extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** How fast a body has to come: a sender that dribbles holds a place that others wait for. */
interface Pace {
  /** Longest wait for its next piece, ms. */
  readonly idle_ms: number;
  /** Bytes for each second that was waited for them, at the least, once the first pause is over. */
  readonly least_BytesPerS: number;
}
const PACE: Pace = { idle_ms: 10_000, least_BytesPerS: 200_000 };

const tooLarge = (most: number) =>
  new BadBody(413, `That is too large: ${Math.round(most / 1e6)} MB at the most. Nothing was taken in.`);

/** Refuses a request that says of itself that it is too large, before anything of it is read. */
export function assertDeclared(headers: Pick<Headers, 'get'>, most: number): void {
  if (Number(headers.get('content-length') ?? 0) > most) throw tooLarge(most);
}

/**
 * The pieces of a body as they come.
 *
 * @throws BadBody where they come too slowly; the sender is let go then
 */
export async function* piecesOf(
  body: ReadableStream<Uint8Array> | null,
  { idle_ms, least_BytesPerS }: Pace = PACE,
): AsyncGenerator<Uint8Array> {
  if (!body) return;
  const reader = body.getReader();
  // What is done with a piece takes its own time.
  let waited_ms = 0;
  let bytes = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    for (;;) {
      const tooSlow = new Promise<never>((_, reject) => {
        const fail = () =>
          reject(new BadBody(408, 'The file came too slowly. Nothing was taken in; try again.'));
        timer = setTimeout(fail, idle_ms);
        if (bytes < ((waited_ms - idle_ms) / 1000) * least_BytesPerS) fail();
      });
      const from_ms = performance.now();
      const part = await Promise.race([reader.read(), tooSlow]);
      waited_ms += performance.now() - from_ms;
      clearTimeout(timer);
      if (part.done) return;
      bytes += part.value.length;
      yield part.value;
    }
  } finally {
    clearTimeout(timer);
    void reader.cancel().catch(() => undefined);
  }
}

/** Reads a body of bounded size; of one that is larger, no more than that is ever held, and nothing of it twice where it says its size. */
export async function bytesOf(request: Request, most: number, pace?: Pace): Promise<Buffer<ArrayBuffer>> {
  assertDeclared(request.headers, most);
  let bytes = Buffer.from(new ArrayBuffer(Number(request.headers.get('content-length') ?? 0)));
  let length = 0;
  for await (const piece of piecesOf(request.body, pace)) {
    if (length + piece.length > most) throw tooLarge(most);
    if (length + piece.length > bytes.length) {
      const larger = Buffer.from(new ArrayBuffer(Math.min(most, 2 * (length + piece.length))));
      bytes.copy(larger, 0, 0, length);
      bytes = larger;
    }
    bytes.set(piece, length);
    length += piece.length;
  }
  return bytes.subarray(0, length);
}

/** Reads a JSON body of bounded size. */
export async function bodyOf(request: Request): Promise<unknown> {
  const text = (await bytesOf(request, MOST_BYTES)).toString('utf8');
  if (jsonExcess(text)) throw new BadBody(400, 'The request is nested more deeply than anything here.');
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    throw new BadBody(400, 'The request is not JSON.');
  }
  return kept(body);
}

/** Body of a change to a stored thing. */
export async function changeOf(request: Request): Promise<{ version: number; body: unknown }> {
  const change = (await bodyOf(request)) as { version?: unknown; body?: unknown } | null;
  if (typeof change?.version !== 'number')
    throw new BadBody(400, 'The request does not say which version it changes.');
  return { version: change.version, body: change.body };
}

/** What a request asks for in its address. */
export function searchOf(request: Request): URLSearchParams {
  const { searchParams } = new URL(request.url);
  kept(Object.fromEntries(searchParams));
  return searchParams;
}

function kept<T>(value: T): T {
  const where = unkeptText(value);
  if (where) throw new BadBody(422, unkeptWords(where));
  return value;
}

/** The paper asked for: `?paper=letter`, else A4. */
export const paperOf = (request: Request) =>
  searchOf(request).get('paper') === 'letter' ? ('LETTER' as const) : ('A4' as const);

/** Who tests: `?technician=` with the identity of one of the technicians; null where nobody is named. */
export const technicianOf = (request: Request) => searchOf(request).get('technician');
