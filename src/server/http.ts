import { assertInPlace, database } from './database';
import { keepHead } from './head-file';
import { foreignRequest } from './loopback';
import { isReadable, problem, unreadable } from './problem';
import { assertDeclared, BadBody, bytesOf } from './request';
import { Busy, roomOf, type RoomName } from './room';
import { troubleWords } from './trouble';
import type { Outcome, Refusal } from './outcome';
import type { Knex } from 'knex';

const STATUS: Record<Refusal['code'], number> = {
  'not-found': 404,
  invalid: 422,
  conflict: 409,
  refused: 409,
};

/** Answers a request from the store: JSON, or problem details (RFC 9457) with a sentence for the technician. */
export function answer<T>(work: (db: Knex) => Promise<Outcome<T>>, status = 200): Promise<Response> {
  return respond(work, (value) => Response.json(value, { status }));
}

/** A file that is sent as it is. */
interface Upload {
  /** Bytes at the most. */
  readonly most: number;
  /** Where it is dealt with, so that not all that comes is dealt with at once. */
  readonly room: RoomName;
}

/**
 * Answers an upload. Uploads do not come through the proxy, which would hold each of them whole: foreign ones are refused here, and what
 * says of itself that it is too large. Nothing of it is read before there is a place for it.
 */
export function answerUpload<T>(
  request: Request,
  { most, room }: Upload,
  work: (db: Knex) => Promise<Outcome<T>>,
  status = 200,
): Promise<Response> {
  const why = foreignRequest(request.headers, false);
  if (why) return Promise.resolve(problem(403, { title: why, code: 'foreign' }));
  if (!isReadable(request.url)) return Promise.resolve(unreadable());
  return answer((db) => {
    assertDeclared(request.headers, most);
    return roomOf(room).within(() => work(db));
  }, status);
}

/** The same of a file that is read whole before anything is done with it. */
export const answerFileSent = <T>(
  request: Request,
  upload: Upload,
  work: (db: Knex, bytes: Buffer<ArrayBuffer>) => Promise<Outcome<T>>,
): Promise<Response> =>
  answerUpload(request, upload, async (db) => work(db, await bytesOf(request, upload.most)), 201);

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
    if (error instanceof Busy) return problem(503, { title: error.message, code: 'busy' });
    const title =
      troubleWords(error) ??
      'Something went wrong on the server, so nothing was recorded. Try again; if it stays, note the time and tell whoever keeps this machine.';
    process.stderr.write(`${new Date().toISOString()} ${(error as Error).stack ?? String(error)}\n`);
    return problem(500, { title, code: 'server' });
  }
}

/** The server's clock, at the edge where it belongs. */
export const now = () => new Date().toISOString();

/** The moment as the bench's own clock has it. */
export function localTime(): { readonly day: string; readonly now_min: number; readonly now_ms: number } {
  const at = new Date();
  return { day: today(at), now_min: at.getHours() * 60 + at.getMinutes(), now_ms: at.getTime() };
}

/** The bench's own day, which calibration and promises go by. */
export function today(at = new Date()): string {
  const two = (value: number) => String(value).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}
