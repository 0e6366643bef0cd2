import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { database } from './database';
import { answer } from './http';
import { bodyOf, changeOf } from './request';
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
