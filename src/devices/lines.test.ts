/** @jest-environment node */
import { connect } from 'node:net';
import { handServer } from './hand-line';
import { lineTrouble } from './line-trouble';

describe('why a line broke', () => {
  const at = { host: 'bench.local', port: 5025 };
  test.each([
    ['ECONNREFUSED', 'Nothing listens at bench.local, port 5025: is the logger on?'],
    ['ENOTFOUND', 'There is no machine named bench.local.'],
    ['EAI_AGAIN', 'There is no machine named bench.local.'],
    ['ETIMEDOUT', 'bench.local cannot be reached.'],
    ['EHOSTUNREACH', 'bench.local cannot be reached.'],
    ['ECONNRESET', 'The line to the logger broke.'],
  ])('%s', (code, says) => expect(lineTrouble({ code }, at, 'logger')).toBe(says));
});

test('hands: a line that is no message is answered with why, and the next one is done', async () => {
  const done: unknown[] = [];
  const server = handServer((message) => {
    done.push(message);
    if (message === 0) throw new RangeError('not none');
    return { hands: message };
  });
  const port = await new Promise<number>((resolve) =>
    server.listen(0, '127.0.0.1', () => resolve((server.address() as { port: number }).port)),
  );
  const heard: string[] = [];
  const socket = connect(port, '127.0.0.1', () => socket.write('{"a":\n0\n[1]\n'));
  await new Promise<void>((enough) =>
    socket.on('data', (text) => {
      heard.push(...String(text).trim().split('\n'));
      if (heard.length === 3) enough();
    }),
  );
  socket.destroy();
  await new Promise((closed) => server.close(closed));
  expect(heard.map((line) => JSON.parse(line) as object)).toEqual([
    { ok: false, why: expect.stringMatching(/JSON/) as string },
    { ok: false, why: 'not none' },
    { ok: true, hands: [1] },
  ]);
  expect(done).toEqual([0, [1]]);
});
