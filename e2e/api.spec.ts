import { expect, test } from './app';

/** Longer than the five seconds for which a server of this kind keeps a silent connection unless it is told otherwise. */
const SILENCE_MS = 7000;

test('a program that was busy for a while is answered on the connection it has', async ({ app }) => {
  const asked = () => app.get<{ status: string }>('/health');
  expect((await asked()).status).toBe('ok');
  // Busy: it does not get to hear that the other end has hung up.
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, SILENCE_MS);
  expect((await asked()).status).toBe('ok');
});
