import { connect } from 'node:net';
import { request } from 'node:http';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { seeded } from '../../src/core/numeric/chance';
import type { StoredJob } from '../../src/core/records/views';
import { OPERATIONS } from '../../src/server/openapi';
import { Tally, Target } from './server';

/**
 * What comes over the line: bodies, addresses, other sites, files, pictures, logs and slow senders. Nothing may be answered with a fault
 * of the server, nothing hostile be taken in, nobody else wait for a second, and the server stay within its memory.
 *
 * npx tsx --tsconfig tsconfig.json bench/attack/requests.ts [SEED] [BODIES]
 */
const SEED = Number(process.argv[2] ?? Date.now() % 100_000);
const BODIES = Number(process.argv[3] ?? 4000);
const random = seeded(SEED);
const below = (most: number) => Math.floor(random() * most);
const pick = <T>(list: readonly T[]): T => list[below(list.length)]!;

const STRANGE = [
  null,
  true,
  false,
  0,
  -1,
  1e308,
  -1e308,
  1e-320,
  '',
  ' ',
  '\0',
  '\ud800',
  '١',
  'x'.repeat(5000),
  '../../etc/passwd',
  "'; DROP TABLE jobs; --",
  '<script>',
  '__proto__',
  '2026-13-45',
  '0001-01-01',
  [],
  {},
  [[[[]]]],
];
const NAMES = [
  'id',
  'version',
  'body',
  'kind',
  'tag',
  'events',
  'expectedVersion',
  'technician',
  'pin',
  'entry',
  'type',
  'at',
  'item',
  'value_SI',
  'hands',
  'unit',
  'step',
  'name',
  'profileId',
  'run',
  'value',
  'state',
  'installation',
  'evidence',
  'readings',
  'constructor',
  '__proto__',
];

function strangeValue(depth = 0): unknown {
  const kind = depth > 4 ? 0 : below(4);
  if (kind === 1) return Array.from({ length: below(5) }, () => strangeValue(depth + 1));
  if (kind === 2)
    return Object.fromEntries(Array.from({ length: below(6) }, () => [pick(NAMES), strangeValue(depth + 1)]));
  return pick(STRANGE);
}

/** A body that was sound, with one thing in it exchanged. */
function altered(body: unknown): unknown {
  if (body === null || typeof body !== 'object' || random() < 0.15) return strangeValue();
  const entries = Object.entries(body);
  if (entries.length === 0) return strangeValue();
  const [name, member] = pick(entries);
  const change = random() < 0.2 ? undefined : altered(member);
  return Array.isArray(body)
    ? body.map((one: unknown) => (one === member ? change : one))
    : { ...body, [name]: change };
}

async function main() {
  const target = await Target.start();
  const tallies: Tally[] = [];
  const area = (name: string) => {
    const tally = new Tally(name);
    tallies.push(tally);
    return tally;
  };
  const json = { 'content-type': 'application/json' };
  const send = (method: string, where: string, body?: BodyInit, headers: Record<string, string> = json) =>
    fetch(target.at(where), { method, body, headers });
  const get = async <T>(where: string) => (await (await send('GET', where)).json()) as T;
  const { jobs } = await get<{ jobs: StoredJob[] }>('/api/v1/jobs');
  const someRun = jobs.find(({ runs }) => runs.length > 0)!;
  const someIds: Record<string, string> = { jobs: someRun.id, runs: someRun.runs[0]!.id };
  const place = (path: string) =>
    `/api/v1${path.replaceAll(/\{(\w+)\}/g, (_, name: string, at: number) => {
      const of = path.slice(1, at).split('/')[0]!;
      return name === 'id' ? (someIds[of] ?? 'none') : random() < 0.5 ? 'vacuum-vehicle' : 'none';
    })}`;

  console.log(`seed ${SEED}, ${target.memory_MB()} MB at rest`);
  const bodies = area('bodies');
  const sound: Record<string, unknown> = {
    '/jobs': someRun.body,
    '/settings': await get('/api/v1/settings'),
    '/instruments': (await get<{ body: unknown }[]>('/api/v1/instruments'))[0]!.body,
    '/profiles': (await get<{ body: unknown }[]>('/api/v1/profiles'))[0]!.body,
  };
  const writing = OPERATIONS.filter(
    ({ method, path, sends }) =>
      method !== 'get' && !sends && !path.startsWith('/vehicle') && path !== '/practice',
  );
  for (let i = 0; i < BODIES; i += 1) {
    const { method, path } = writing[i % writing.length]!;
    const base = sound[path];
    const body = JSON.stringify(base && random() < 0.7 ? altered(base) : strangeValue()) ?? 'null';
    const cut = random() < 0.05 ? body.slice(0, below(body.length + 1)) : body;
    const { status } = await send(method.toUpperCase(), place(path), cut);
    bodies.add(status < 500 || status === 503, `${method} ${path} ${status}: ${cut}`);
  }

  const addresses = area('addresses');
  const parts = [
    '%',
    '%ff',
    '%00',
    '%E0%A4%A',
    '..',
    '%2e%2e',
    '%2F',
    'a'.repeat(3000),
    '🔧',
    '?q=%ff',
    '?q[]=1',
    '?size=-1',
    '?page=1e308',
    '?with=1&with=2',
    ';',
    '//',
    'null',
    '?paper=%00',
  ];
  for (let i = 0; i < 600; i += 1) {
    const { path } = pick(OPERATIONS);
    const where =
      random() < 0.5
        ? `/${pick(['jobs', 'runs', 'traces', 'shelf'])}/${pick(parts)}`
        : `${place(path)}${random() < 0.5 ? '/' : ''}${pick(parts)}`;
    const status = await new Promise<number>((resolve) => {
      const asked = request(
        {
          host: '127.0.0.1',
          port: target.app.port,
          path: encodeURI(where).replaceAll('%25', '%'),
          method: 'GET',
        },
        (response) => {
          response.destroy();
          resolve(response.statusCode!);
        },
      );
      asked.on('error', () => resolve(0));
      asked.end();
    });
    addresses.add(status < 500, `${status} ${where}`);
  }

  const sites = area('other sites');
  const lies: Record<string, string>[] = [
    { host: 'bench.example' },
    { origin: 'http://evil.example' },
    { origin: 'null' },
    { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors', 'sec-fetch-dest': 'image' },
    { 'sec-fetch-site': 'same-site', 'sec-fetch-mode': 'cors', 'sec-fetch-dest': 'empty' },
  ];
  for (const { method, path } of OPERATIONS)
    for (const lie of lies) {
      const status = await new Promise<number>((resolve) => {
        const asked = request(
          {
            host: '127.0.0.1',
            port: target.app.port,
            path: place(path),
            method: method.toUpperCase(),
            headers: { host: `127.0.0.1:${target.app.port}`, ...lie },
          },
          (response) => {
            response.destroy();
            resolve(response.statusCode!);
          },
        );
        asked.on('error', () => resolve(0));
        asked.end();
      });
      sites.add(status === 403, `${method} ${path} ${JSON.stringify(lie)}: ${status}`);
    }

  const files = area('job files');
  const count = async () => (await get<{ total: number }>('/api/v1/jobs?show=all')).total;
  const before = await count();
  const file = await (await send('GET', `/api/v1/jobs/${someRun.id}/file`)).text();
  for (let i = 0; i < 200; i += 1) {
    const at = below(file.length);
    const hurt = pick([
      () => file.slice(0, at),
      () => file.slice(0, at) + String.fromCharCode(33 + below(90)) + file.slice(at + 1),
      () => file.slice(0, at) + '['.repeat(5000) + file.slice(at),
      () => JSON.stringify(altered(JSON.parse(file) as unknown)),
    ])();
    const { status } = await send('POST', '/api/v1/job-files', hurt);
    files.add(status >= 400 && status < 500, `${status} at ${at}`);
  }
  files.add((await count()) === before, 'something was taken in');

  const pictures = area('pictures');
  const jpeg = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#654' } })
    .jpeg()
    .toBuffer();
  for (let i = 0; i < 60; i += 1) {
    const hurt = Buffer.from(jpeg);
    for (let n = 0; n < 1 + below(40); n += 1) hurt[2 + below(hurt.length - 2)] = below(256);
    const sent = pick([
      () => hurt,
      () => jpeg.subarray(0, below(jpeg.length)),
      () => Buffer.concat([Buffer.from('GIF89a'), hurt]),
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'),
    ])();
    const { status } = await send('POST', '/api/v1/pictures', new Uint8Array(sent), {
      'content-type': 'image/jpeg',
    });
    pictures.add(status < 500, String(status));
  }
  const bomb = pngOf(30_000, 30_000);
  const { status: bombed } = await send('POST', '/api/v1/pictures', new Uint8Array(bomb), {
    'content-type': 'image/png',
  });
  pictures.add(bombed === 422, `a picture of 900 million pixels: ${bombed}`);

  const logs = area('logs');
  const row = (cells: readonly unknown[]) => cells.join(';');
  const LOGS: Record<string, string | Uint8Array> = {
    nothing: '',
    'NUL in a name': `t\0;a\ns;bar\n${Array.from({ length: 50 }, (_, i) => row([i, i])).join('\n')}`,
    'half of a pair': new Uint8Array([
      0xff,
      0xfe,
      ...Array.from({ length: 400 }, (_, i) => (i % 2 ? 0xd8 : 0x00)),
    ]),
    'times without measure': `t;a\ns;bar\n${Array.from({ length: 50 }, (_, i) => row([i % 2 ? 1e300 : -1e300, i])).join('\n')}`,
    'values without measure': `t;a\ns;bar\n${Array.from({ length: 50 }, (_, i) => row([i, i % 2 ? '1e308' : 'NaN'])).join('\n')}`,
    'time that stands still': `t;a\ns;bar\n${Array.from({ length: 500 }, () => row([1, 1])).join('\n')}`,
    'time that runs back': `t;a\ns;bar\n${Array.from({ length: 500 }, (_, i) => row([500 - i, 1])).join('\n')}`,
    'a line without end': 'x'.repeat(5_000_000),
    'columns without end': Array.from({ length: 200_000 }, (_, i) => i).join(';'),
    'no digits': 'a;b\n'.repeat(10_000),
    bytes: Uint8Array.from({ length: 200_000 }, () => below(256)),
    formulas: `t;=cmd|' /C calc'!A0\ns;bar\n${Array.from({ length: 50 }, (_, i) => row([i, '=1+1'])).join('\n')}`,
  };
  for (const [name, text] of Object.entries(LOGS))
    for (const where of [
      '/api/v1/traces/import?name=x',
      '/api/v1/traces/analyse',
      '/api/v1/traces/import?name=a%00b',
    ]) {
      const { status } = await send('POST', where, text as BodyInit, { 'content-type': 'text/csv' });
      logs.add(status < 500, `${name}, ${where}: ${status}`);
    }

  const slow = area('slow senders');
  const hung = Array.from({ length: 60 }, (_, i) => {
    const socket = connect(target.app.port, '127.0.0.1');
    socket.on('error', () => undefined);
    const where = pick(['/api/v1/job-files', '/api/v1/pictures', '/api/v1/jobs', '/api/v1/traces/analyse']);
    socket.write(
      `POST ${where} HTTP/1.1\r\nHost: 127.0.0.1:${target.app.port}\r\n${i % 3 === 0 ? '' : 'Content-Length: 900000\r\nContent-Type: application/json\r\n\r\n{'}`,
    );
    const timer = setInterval(() => socket.write(' '), 500);
    socket.on('close', () => clearInterval(timer));
    return { socket, timer };
  });
  for (let i = 0; i < 20; i += 1) {
    const from = performance.now();
    const { ok } = await send('GET', '/api/v1/jobs');
    slow.add(ok && performance.now() - from < 1000, `${Math.round(performance.now() - from)} ms`);
    await new Promise((soon) => setTimeout(soon, 200));
  }
  // Places that they hold come free again: a file is taken after them.
  await new Promise((soon) => setTimeout(soon, 15_000));
  const after = await send('POST', '/api/v1/pictures', new Uint8Array(jpeg), {
    'content-type': 'image/jpeg',
  });
  slow.add(after.status === 201, `a picture after them: ${after.status}`);
  for (const { socket, timer } of hung) {
    clearInterval(timer);
    socket.destroy();
  }

  const single = area('others wait less than a second while one file is read');
  const large: [string, string, Uint8Array][] = [
    ['a job file of 95 MB', '/api/v1/job-files', largeFile(file, 95_000_000)],
    ['a job file of 20 000 entries', '/api/v1/job-files', new TextEncoder().encode(longFile(file, 20_000))],
    ['a log of 50 MB', '/api/v1/traces/import?name=long', new TextEncoder().encode(longLog(50_000_000))],
    ['a picture of 100 million pixels', '/api/v1/pictures', new Uint8Array(pngOf(10_000, 10_000))],
  ];
  for (const [name, where, body] of large) {
    const done = target.watch();
    const from = performance.now();
    const { status } = await send('POST', where, body as BodyInit, {
      'content-type': 'application/octet-stream',
    });
    const longest = await done();
    console.log(
      `  ${name}: ${status} after ${Math.round(performance.now() - from)} ms, longest wait ${longest} ms, ${target.memory_MB('VmHWM')} MB at the most so far`,
    );
    single.add(longest < 1000 && status !== 500, `${name}: ${longest} ms, ${status}`);
  }

  const crowd = area('files all at once');
  const all = await Promise.all(
    [...large, ...large, ...large, ...large].map(([, where, body]) =>
      send('POST', where, body as BodyInit, { 'content-type': 'application/octet-stream' }).then(
        ({ status }) => status,
        () => 0,
      ),
    ),
  );
  for (const status of all) crowd.add(status < 500 || status === 503, String(status));
  console.log(`  answered ${JSON.stringify(all)}`);
  const peak = target.memory_MB('VmHWM');
  const memory = area('memory under all of this below 700 MB');
  memory.add(peak < 700, `${peak} MB`);
  const { ok } = await send('GET', '/api/v1/health?whole');
  area('whole afterwards').add(ok, 'health');
  const verified = (await (await send('POST', '/api/v1/verify', '{}')).json()) as { alterations: unknown[] };
  area('as it was written').add(
    verified.alterations.length === 0,
    JSON.stringify(verified.alterations.slice(0, 3)),
  );
  for (const tally of tallies) tally.print();
  console.log(
    JSON.stringify({
      seed: SEED,
      peak_MB: peak,
      ...Object.fromEntries(
        tallies.map(({ area: name, tried, broke }) => [name, `${tried - broke.length}/${tried}`]),
      ),
    }),
  );
  await target.end();
  process.exitCode = tallies.some(({ broke }) => broke.length > 0) ? 1 : 0;
}

/** A job file that is as long as this by one photo of noise that it does not need. */
function largeFile(file: string, bytes: number): Uint8Array {
  const draft = JSON.parse(file) as { photos: unknown[] };
  draft.photos = Array.from({ length: 50 }, (_, i) => ({
    sha256: String(i % 10).repeat(64),
    jpeg: 'QUFB'.repeat(Math.floor(bytes / 50 / 4)),
  }));
  return new TextEncoder().encode(JSON.stringify(draft));
}

/** A job file with its first entry so many times over. */
function longFile(file: string, entries: number): string {
  const draft = JSON.parse(file) as { entries: unknown[] };
  draft.entries = Array.from({ length: entries }, (_, i) => draft.entries[i % draft.entries.length]);
  return JSON.stringify(draft);
}

function longLog(bytes: number): string {
  const line = (i: number) =>
    `${(i / 100).toFixed(2)};${(20 + 10 * Math.sin(i / 500)).toFixed(3)};${(60 + 30 * Math.sin(i / 500)).toFixed(3)}\n`;
  return `t;In;Out\ns;bar;bar\n${Array.from({ length: bytes / 22 }, (_, i) => line(i)).join('')}`;
}

/** A PNG of one colour: small on the line and large in memory. */
function pngOf(width: number, height: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const length = Buffer.alloc(4);
    length.writeUInt32BE(data.length);
    const crc = Buffer.alloc(4);
    crc.writeUInt32BE(crcOf(body));
    return Buffer.concat([length, body, crc]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([1, 0, 0, 0, 0], 8);
  const row = Buffer.alloc(1 + Math.ceil(width / 8));
  const rows = deflateSync(Buffer.concat(Array.from({ length: height }, () => row)));
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', rows),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

function crcOf(bytes: Buffer): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let i = 0; i < 8; i += 1) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}

void main();
