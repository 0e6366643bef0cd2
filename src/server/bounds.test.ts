/** @jest-environment node */
import { readdirSync, readFileSync } from 'node:fs';
import { config } from '@/proxy';
import { isReadable } from './problem';
import { assertDeclared, bodyOf, bytesOf, piecesOf, searchOf } from './request';
import { Busy, Room, roomOf } from './room';

const ADDRESS = 'http://127.0.0.1/api/v1/x';
const sent = (body: BodyInit, headers: Record<string, string> = {}) =>
  new Request(ADDRESS, { method: 'POST', body, headers });

describe('a room', () => {
  const BOUNDS = { most: 2, mostWaiting: 1, what: 'other files' };
  /** Something that is done for as long as it is not told to end. */
  const task = () => {
    let end!: (how?: Error) => void;
    const done = new Promise<void>((resolve, reject) => (end = (how) => (how ? reject(how) : resolve())));
    const work = jest.fn(() => done);
    return { work, end };
  };
  test('holds so many; one more waits until one leaves, and whoever comes then is sent away', async () => {
    const room = new Room(BOUNDS);
    const [first, second, third, fourth] = [task(), task(), task(), task()];
    const inside = [first, second, third].map(({ work }) => room.within(work));
    await expect(room.within(fourth.work)).rejects.toThrow(
      'The server is busy with other files. Nothing was taken in; try again in a moment.',
    );
    await expect(room.within(fourth.work)).rejects.toBeInstanceOf(Busy);
    expect([first, second, third, fourth].map(({ work }) => work.mock.calls.length)).toEqual([1, 1, 0, 0]);
    // One that fails leaves its place as one does that is done.
    first.end(new Error('torn'));
    await expect(inside[0]).rejects.toThrow('torn');
    expect(third.work).toHaveBeenCalledTimes(1);
    second.end();
    third.end();
    await Promise.all(inside.slice(1));
    const again = [task(), task()];
    const more = again.map(({ work }) => room.within(work));
    expect(again.every(({ work }) => work.mock.calls.length === 1)).toBe(true);
    again.forEach(({ end }) => end());
    await Promise.all(more);
  });
  // Memory under attack stays under 700 MB by these: docs/security.md.
  test.each([
    ['pictures', 2, 6],
    ['files', 1, 4],
    ['diagnoses', 2, 4],
  ] as const)('of %s holds %d, and %d wait', async (name, most, waiting) => {
    const tasks = Array.from({ length: most + waiting }, task);
    const inside = tasks.map(({ work }) => roomOf(name).within(work));
    await expect(roomOf(name).within(task().work)).rejects.toBeInstanceOf(Busy);
    expect(tasks.filter(({ work }) => work.mock.calls.length > 0)).toHaveLength(most);
    tasks.forEach(({ end }) => end());
    await Promise.all(inside);
  });
  test('the application’s own waits however many wait', async () => {
    const room = new Room({ ...BOUNDS, most: 1, mostWaiting: 0 });
    const first = task();
    const holds = room.within(first.work);
    const own = jest.fn(() => Promise.resolve('filed'));
    const waits = room.within(own, true);
    expect(own).not.toHaveBeenCalled();
    first.end();
    await holds;
    expect(await waits).toBe('filed');
  });
});

describe('a body', () => {
  test('that says of itself that it is too large is refused before anything of it is read', async () => {
    const body = new ReadableStream(
      { pull: () => Promise.reject(new Error('it was read')) },
      { highWaterMark: 0 },
    );
    const request = { headers: new Headers({ 'content-length': '1001' }), body } as unknown as Request;
    await expect(bytesOf(request, 1000)).rejects.toMatchObject({ status: 413 });
    expect(() => assertDeclared(new Headers({ 'content-length': '1000' }), 1000)).not.toThrow();
  });
  test('that says nothing of itself is counted, and let go of at its bound', async () => {
    let pulled = 0;
    const letGo = jest.fn();
    const body = new ReadableStream<Uint8Array>(
      { pull: (to) => to.enqueue(new Uint8Array(++pulled > 0 ? 100 : 0)), cancel: letGo },
      { highWaterMark: 0 },
    );
    const request = { headers: new Headers(), body } as unknown as Request;
    await expect(bytesOf(request, 950)).rejects.toMatchObject({ status: 413 });
    expect(pulled).toBe(10);
    expect(letGo).toHaveBeenCalledTimes(1);
  });
  /** A byte every so many ms, for ever. */
  const dribble = (every_ms: number) => {
    const letGo = jest.fn();
    let timer: ReturnType<typeof setInterval>;
    const body = new ReadableStream<Uint8Array>({
      start: (to) => void (timer = setInterval(() => to.enqueue(new Uint8Array(1)), every_ms)),
      cancel: () => {
        clearInterval(timer);
        letGo();
      },
    });
    return { body, letGo };
  };
  test.each([
    ['that stops', 100_000, 1],
    ['that dribbles', 5, 50_000],
  ])('%s is let go of', async (_name, every_ms, least_BytesPerS) => {
    const { body, letGo } = dribble(every_ms);
    const read = async () => {
      for await (const _piece of piecesOf(body, { idle_ms: 60, least_BytesPerS }));
    };
    await expect(read()).rejects.toMatchObject({
      status: 408,
      message: 'The file came too slowly. Nothing was taken in; try again.',
    });
    expect(letGo).toHaveBeenCalledTimes(1);
  });
  test('what is done with a piece is not counted against the sender', async () => {
    const body = new Response(new Uint8Array(10)).body;
    let bytes = 0;
    for await (const piece of piecesOf(body, { idle_ms: 50, least_BytesPerS: 1e9 })) {
      bytes += piece.length;
      await new Promise((soon) => setTimeout(soon, 120));
    }
    expect(bytes).toBe(10);
  });
  test('of JSON nested to the bottom of the stack is refused', async () => {
    await expect(bodyOf(sent('['.repeat(400_000) + ']'.repeat(400_000)))).rejects.toMatchObject({
      status: 400,
    });
    expect(await bodyOf(sent('['.repeat(100) + ']'.repeat(100)))).toBeInstanceOf(Array);
  });
});

describe('an address', () => {
  test.each([
    ['/jobs/%E0%A4%A', false],
    ['/jobs/%ff', false],
    ['/jobs?q=50%', true],
    ['/jobs/Br%C3%BCcke', true],
  ])('%s can be read: %s', (where, readable) =>
    expect(isReadable(`http://127.0.0.1${where}`)).toBe(readable),
  );
  test('what cannot be kept is refused in what it asks for, by name', () => {
    expect(() => searchOf(new Request(`${ADDRESS}?name=a%00b`))).toThrow(/^name: there is a character/);
    expect(searchOf(new Request(`${ADDRESS}?name=ab`)).get('name')).toBe('ab');
  });
});

test('every route that takes a file, and no other, goes past the proxy, which would hold it whole', () => {
  const routes = readdirSync('src/app/api', { recursive: true, encoding: 'utf8' }).filter((file) =>
    file.endsWith('route.ts'),
  );
  expect(routes.length).toBeGreaterThan(60);
  const past = new RegExp(`^${config.matcher}$`);
  for (const file of routes) {
    const where = `/api/${file.replace(/\/route\.ts$/, '')}`.replaceAll(/\[\w+\]/g, 'a-1');
    const takesFile = /answerUpload|answerFileSent/.test(readFileSync(`src/app/api/${file}`, 'utf8'));
    expect([where, past.test(where)]).toEqual([where, !takesFile]);
  }
});
