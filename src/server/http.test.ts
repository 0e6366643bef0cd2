import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { database } from './database';
import { contentPolicy } from './content-policy';
import { answer, answerFile, answerFileSent, answerUpload, today } from './http';
import { BadBody, bodyOf, changeOf } from './request';
import { Busy } from './room';
import { done, invalid, refused } from './outcome';

const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-http-'));

beforeAll(() => {
  process.env.HARD_PEDAL_DATA = path.join(folder, 'made', 'when', 'missing');
});

afterAll(async () => {
  await (await database()).destroy();
  rmSync(folder, { recursive: true, force: true });
});

const request = (body: string) => new Request('http://127.0.0.1/api/v1/x', { method: 'POST', body });
const problem = async (response: Response) => {
  const body = (await response.json()) as { status: number; title: string; code: string };
  return { ...body, content: response.headers.get('content-type') };
};

describe('answers', () => {
  test('a value is JSON with the status asked for', async () => {
    const response = await answer(() => Promise.resolve(done({ a: 1 })), 201);
    expect(response.status).toBe(201);
    expect(await response.json()).toEqual({ a: 1 });
  });
  test.each([
    ['not-found', 404, refused({ code: 'not-found', message: 'There is no such job.' })],
    ['invalid', 422, invalid([{ path: ['tag'], message: 'Give the unit a tag.' }])],
    ['conflict', 409, refused({ code: 'conflict', message: 'Changed elsewhere.', current: { version: 2 } })],
  ] as const)('%s is problem details with status %d and a sentence', async (code, status, outcome) => {
    const found = await problem(await answer(() => Promise.resolve(outcome)));
    expect(found).toMatchObject({ content: 'application/problem+json', type: 'about:blank', status, code });
    expect(found.title).toMatch(/\.$/);
  });
  test('a field’s message is kept at the field', async () => {
    const response = await answer(() =>
      Promise.resolve(invalid([{ path: ['limits', 'crack'], message: 'Too small.' }])),
    );
    expect(await response.json()).toMatchObject({ fields: { 'limits.crack': 'Too small.' } });
  });
  test('a full, read-only or failing disk each has its sentence; nothing was recorded', async () => {
    const write = jest.spyOn(process.stderr, 'write').mockReturnValue(true);
    for (const [code, sentence] of [
      ['SQLITE_FULL', /^The disk is full, so nothing was recorded/],
      ['SQLITE_READONLY', /^The data folder can only be read, so nothing was recorded/],
      ['SQLITE_IOERR_FSYNC', /^The disk did not take what was written, so nothing was recorded/],
    ] as const) {
      const found = await problem(
        await answer(() => Promise.reject(Object.assign(new Error('x'), { code }))),
      );
      expect(found).toMatchObject({
        status: 500,
        title: expect.stringMatching(sentence) as string,
      });
    }
    const other = await problem(await answer(() => Promise.reject(new Error('secret path'))));
    expect(other.title).not.toContain('secret');
    expect(write).toHaveBeenCalledTimes(4);
    write.mockRestore();
  });
});

describe('bodies', () => {
  test('what is not JSON, or far too large, is refused', async () => {
    await expect(bodyOf(request('{'))).rejects.toThrow('The request is not JSON.');
    await expect(bodyOf(request(`"${'x'.repeat(1_000_001)}"`))).rejects.toThrow('too large');
    expect(await problem(await answer(() => bodyOf(request('{')).then(done)))).toMatchObject({ status: 400 });
  });
  test('a change says which version it changes', async () => {
    expect(await changeOf(request('{"version":3,"body":{"a":1}}'))).toEqual({ version: 3, body: { a: 1 } });
    await expect(changeOf(request('{"body":{}}'))).rejects.toThrow('which version');
    await expect(changeOf(request('null'))).rejects.toThrow('which version');
  });
});

describe('an upload', () => {
  const sent = (more: Readonly<Record<string, string>> = {}, url = 'http://127.0.0.1/api/v1/x') =>
    new Request(url, { method: 'POST', body: 'abc', headers: { host: '127.0.0.1:3000', ...more } });
  const upload = { most: 5, room: 'pictures' } as const;
  test('is read whole and answered as made', async () => {
    const read = await answerFileSent(sent(), upload, (_db, bytes) =>
      Promise.resolve(done(bytes.toString())),
    );
    expect([read.status, await read.json()]).toEqual([201, 'abc']);
    const quiet = await answerUpload(sent(), upload, () => Promise.resolve(done('seen')));
    expect([quiet.status, await quiet.json()]).toEqual([200, 'seen']);
  });
  test.each([
    ['of another site', 403, 'foreign', sent({ origin: 'http://elsewhere.example' })],
    ['under a name that is not this machine’s', 403, 'foreign', sent({ host: 'elsewhere.example' })],
    ['to an address that is cut off', 400, 'invalid', sent({}, 'http://127.0.0.1/api/v1/%E0%A4%A')],
    ['that says it is too large', 413, 'invalid', sent({ 'content-length': '6' })],
  ])('%s is refused before anything is done', async (_of, status, code, request) => {
    let begun = false;
    const work = () => {
      begun = true;
      return Promise.resolve(done(1));
    };
    expect(await problem(await answerUpload(request, upload, work))).toMatchObject({ status, code });
    expect(begun).toBe(false);
  });
});

describe('a file', () => {
  const file = (name?: string) =>
    answerFile('text/csv', () => Promise.resolve(done({ ...(name && { name }), body: Buffer.from('a,b') })));
  test('is kept under a plain name, and never taken for another kind', async () => {
    const response = await file('job G/12 "x".csv');
    expect(await response.text()).toBe('a,b');
    expect(Object.fromEntries(response.headers)).toMatchObject({
      'content-type': 'text/csv',
      'x-content-type-options': 'nosniff',
      'content-disposition': 'attachment; filename="job-G-12-x-.csv"',
    });
  });
  test('without a name is shown', async () => {
    expect((await file()).headers.get('content-disposition')).toBeNull();
  });
});

test('what came too slowly, and what there is no room for, each has its status', async () => {
  const slow = await answer(() => Promise.reject(new BadBody(408, 'The file came too slowly.')));
  expect(await problem(slow)).toMatchObject({
    status: 408,
    code: 'invalid',
    title: expect.stringMatching(/too slowly/) as string,
  });
  const busy = await answer(() => Promise.reject(new Busy('other files')));
  expect(await problem(busy)).toMatchObject({ status: 503, code: 'busy' });
});

test('the bench’s own day', () => {
  expect(today(new Date(2026, 0, 5, 23, 59))).toBe('2026-01-05');
  expect(today(new Date(2026, 10, 15, 0, 0))).toBe('2026-11-15');
});

test('a page runs no script that was written into it but its own; the development server alone evaluates text', () => {
  const rules = (developed?: boolean) =>
    Object.fromEntries(
      contentPolicy('n1', developed)
        .split('; ')
        .map((rule) => [rule.split(' ')[0], rule.split(' ').slice(1).join(' ')]),
    );
  expect(rules()).toMatchObject({
    'default-src': "'self'",
    'script-src': "'self' 'nonce-n1'",
    'object-src': "'none'",
    'base-uri': "'self'",
    'form-action': "'self'",
    'frame-ancestors': "'none'",
  });
  expect(rules(true)['script-src']).toBe("'self' 'nonce-n1' 'unsafe-eval'");
});
