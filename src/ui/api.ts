/** What the server said no with: a sentence, and which fields it is about. */
export interface Problem {
  readonly status: number;
  readonly title: string;
  readonly code: string;
  readonly fields?: Readonly<Record<string, string>>;
  readonly current?: unknown;
}

export type Answer<T> = { ok: true; value: T } | { ok: false; problem: Problem };

const UNREACHED: Problem = {
  status: 0,
  code: 'unreached',
  title: 'The server does not answer, so this is not recorded yet. What you entered is kept; try again.',
};

/** Calls the application's own server. Never throws: a refusal is a value with a sentence. */
export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<Answer<T>> {
  const json = body === undefined ? undefined : JSON.stringify(body);
  return send(method, path, json, 'application/json');
}

/** Sends a file as it is. */
export const upload = <T>(path: string, file: Blob): Promise<Answer<T>> =>
  send('POST', path, file, file.type || 'application/octet-stream');

async function send<T>(
  method: string,
  path: string,
  body: BodyInit | undefined,
  type: string,
): Promise<Answer<T>> {
  try {
    const response = await fetch(`/api/v1${path}`, {
      method,
      headers: body === undefined ? undefined : { 'content-type': type },
      body,
      cache: 'no-store',
    });
    const json = (await response.json()) as unknown;
    return response.ok ? { ok: true, value: json as T } : { ok: false, problem: json as Problem };
  } catch {
    return { ok: false, problem: UNREACHED };
  }
}
