import { unkeptText, unkeptWords } from '@/core/records/text';
import { assertInPlace, database } from './database';
import { keepHead } from './head-file';
import { foreignRequest } from './loopback';
import { troubleWords } from './trouble';
import type { Outcome, Refusal } from './outcome';
import type { Knex } from 'knex';

const STATUS: Record<Refusal['code'], number> = {
  'not-found': 404,
  invalid: 422,
  conflict: 409,
  refused: 409,
};

/** Largest request body read, bytes: ten thousand times a capture, and far from hurting the server. */
const MOST_BYTES = 1_000_000;

const problem = (status: number, body: object) =>
  new Response(JSON.stringify({ type: 'about:blank', status, ...body }), {
    status,
    headers: { 'content-type': 'application/problem+json' },
  });

/** Answers a request from the store: JSON, or problem details (RFC 9457) with a sentence for the technician. */
export function answer<T>(work: (db: Knex) => Promise<Outcome<T>>, status = 200): Promise<Response> {
  return respond(work, (value) => Response.json(value, { status }));
}

/** Answers a request that did not come through the proxy: foreign ones are refused here. */
export function answerUnproxied<T>(
  request: Request,
  work: (db: Knex) => Promise<Outcome<T>>,
  status = 200,
): Promise<Response> {
  const why = foreignRequest(request.headers, false);
  return why ? Promise.resolve(problem(403, { title: why, code: 'foreign' })) : answer(work, status);
}

/** Answers with a file. A name makes the browser keep it; without one it is shown. */
export function answerFile(
  type: string,
  work: (db: Knex) => Promise<Outcome<{ name?: string; body: Buffer | string | ReadableStream<Uint8Array> }>>,
): Promise<Response> {
  return respond(work, ({ name, body }) => {
    const headers: Record<string, string> = { 'content-type': type, 'x-content-type-options': 'nosniff' };
    if (name) headers['content-disposition'] = `attachment; filename="${plainName(name)}"`;
    return new Response(Buffer.isBuffer(body) ? new Uint8Array(body) : body, { headers });
  });
}

/** A file name of letters, digits, dots and dashes. */
const plainName = (name: string) => name.replace(/[^\w.-]+/g, '-');

async function respond<T>(
  work: (db: Knex) => Promise<Outcome<T>>,
  good: (value: T) => Response,
): Promise<Response> {
  try {
    const db = await database();
    const outcome = await work(db);
    // What is acknowledged is also said to be there, beside the database.
    if (outcome.ok) {
      assertInPlace(db);
      await keepHead(db);
    }
    if (outcome.ok) return good(outcome.value);
    const { code, message, ...more } = outcome.why;
    return problem(STATUS[code], { title: message, code, ...more });
  } catch (error) {
    if (error instanceof BadBody)
      return problem(error.status, { title: error.message, code: 'invalid', fields: {} });
    const title =
      troubleWords(error) ??
      'Something went wrong on the server, so nothing was recorded. Try again; if it stays, note the time and tell whoever keeps this machine.';
    process.stderr.write(`${new Date().toISOString()} ${(error as Error).stack ?? String(error)}\n`);
    return problem(500, { title, code: 'server' });
  }
}

class BadBody extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** Reads a body of bounded size; of one that is larger, no more than that is ever held. */
export async function bytesOf(request: Request, most: number): Promise<Buffer> {
  const parts: Uint8Array[] = [];
  let length = 0;
  if (request.body) {
    const reader = request.body.getReader();
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      length += part.value.length;
      if (length > most) {
        void reader.cancel();
        throw new BadBody(
          413,
          `That is too large: ${Math.round(most / 1e6)} MB at the most. Nothing was taken in.`,
        );
      }
      parts.push(part.value);
    }
  }
  return Buffer.concat(parts);
}

/** Reads a JSON body of bounded size. */
export async function bodyOf(request: Request): Promise<unknown> {
  const text = (await bytesOf(request, MOST_BYTES)).toString('utf8');
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    throw new BadBody(400, 'The request is not JSON.');
  }
  const where = unkeptText(body);
  if (where) throw new BadBody(422, unkeptWords(where));
  return body;
}

/** Body of a change to a stored thing. */
export async function changeOf(request: Request): Promise<{ version: number; body: unknown }> {
  const change = (await bodyOf(request)) as { version?: unknown; body?: unknown } | null;
  if (typeof change?.version !== 'number')
    throw new BadBody(400, 'The request does not say which version it changes.');
  return { version: change.version, body: change.body };
}

/** The paper asked for: `?paper=letter`, else A4. */
export const paperOf = (request: Request) =>
  new URL(request.url).searchParams.get('paper') === 'letter' ? ('LETTER' as const) : ('A4' as const);

/** Who tests: `?technician=` with the identity of one of the technicians; null where nobody is named. */
export const technicianOf = (request: Request) => new URL(request.url).searchParams.get('technician');

/** The server's clock, at the edge where it belongs. */
export const now = () => new Date().toISOString();

/** The bench's own day, which calibration and promises go by. */
export function today(): string {
  const at = new Date();
  const two = (value: number) => String(value).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}
