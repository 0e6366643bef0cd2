/** @jest-environment node */
import { scryptSync } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import knex, { type Knex } from 'knex';
import { nameSkeleton } from '@/core/shop/name-skeleton';
import { backUp, withoutPins } from './backup';
import { openDatabase } from './database';
import { newId, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { append } from './journal';
import { setPin, wrongPin } from './pins';
import { addTechnician, changePin, deleteTechnician, listTechnicians } from './technicians';
import { verify } from './verify';

let folder: string;
let db: Knex;
const file = (name = 'hard-pedal.sqlite') => path.join(folder, name);
beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-pins-'));
  db = await openDatabase(file());
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

const PIN = '471100';
const first = async () => taken(await addTechnician(db, { name: 'Pell Tarn', pin: PIN }, NOW)).id;
const names = async () => (await listTechnicians(db)).map(({ name }) => name);

describe('the list of technicians', () => {
  test('is begun by anybody, and from then on changed by one of them alone, with their PIN', async () => {
    const id = await first();
    const by = { technician: id, pin: PIN };
    const fresh = { name: 'Ansa Reeve', pin: 'a phrase of hers' };
    expect(whyNot(await addTechnician(db, fresh, NOW))).toMatch(/^By whom/);
    expect(whyNot(await addTechnician(db, { ...fresh, by: { ...by, pin: '000000' } }, NOW))).toMatch(
      /not this technician’s PIN/,
    );
    const refusal = await addTechnician(db, { ...fresh, by: { ...by, pin: '000000' } }, NOW);
    expect(refusal.ok ? {} : refusal.why).toMatchObject({ fields: { 'by.pin': expect.any(String) } });
    // Somebody who was never on the list has no field to be wrong in.
    const stranger = await addTechnician(db, { ...fresh, by: { technician: newId(), pin: PIN } }, NOW);
    expect(stranger).toMatchObject({ ok: false, why: { code: 'not-found' } });
    expect(await names()).toEqual(['Pell Tarn']);
    const other = taken(await addTechnician(db, { ...fresh, by }, NOW)).id;
    for (const body of [{}, { by: { ...by, pin: '000000' } }, { by: { technician: other, pin: PIN } }])
      expect((await deleteTechnician(db, other, true, body, NOW)).ok).toBe(false);
    expect(await names()).toHaveLength(2);
    taken(await deleteTechnician(db, other, true, { by }, NOW));
    expect(whyNot(await deleteTechnician(db, other, false, {}, NOW))).toMatch(/^By whom/);
    expect(whyNot(await deleteTechnician(db, id, true, { by }, NOW))).toMatch(/last technician stays/);
    taken(await deleteTechnician(db, other, false, { by }, NOW));
    expect(await names()).toHaveLength(2);
  });

  test('takes no name beside one that looks the same, whose owner was taken off it long ago', async () => {
    const by = { technician: await first(), pin: PIN };
    const other = taken(await addTechnician(db, { name: 'Ansa Reeve', pin: PIN, by }, NOW)).id;
    const now = { technician: other, pin: PIN };
    taken(await deleteTechnician(db, by.technician, true, { by: now }, NOW));
    for (const name of [
      'Pell Tarn',
      ' pell   TARN',
      'Pell-Tarn',
      'Реll Tаrn',
      'PeII Tarn',
      'Pe11 Tarn',
      'Pëll Tarn',
    ])
      expect(whyNot(await addTechnician(db, { name, pin: PIN, by: now }, NOW))).toMatch(/looks the same/);
    expect((await addTechnician(db, { name: 'Nell Tarn', pin: PIN, by: now }, NOW)).ok).toBe(true);
  });

  test('tells apart what looks apart', () => {
    expect(new Set(['Ann', 'Anna', 'Ben', 'Björk', 'Ivo', 'Ида', '李'].map(nameSkeleton)).size).toBe(7);
  });
});

describe('a PIN', () => {
  test.each([
    ['12345', false],
    ['123456', true],
    ['short one', false],
    ['long enough', true],
  ])('%s: %s', async (pin, isOne) => {
    expect((await addTechnician(db, { name: 'A', pin }, NOW)).ok).toBe(isOne);
  });

  test('is changed by whoever knows it', async () => {
    const id = await first();
    expect(whyNot(await changePin(db, id, { pin: '000000', next: '222222' }, NOW))).toMatch(
      /not this technician/,
    );
    expect(whyNot(await changePin(db, id, { pin: PIN, next: '2222' }, NOW))).toMatch(/six digits/);
    expect(await wrongPin(db, id, PIN, NOW)).toBeNull();
    taken(await changePin(db, id, { pin: PIN, next: '222222' }, NOW));
    expect(await wrongPin(db, id, PIN, NOW)).not.toBeNull();
    expect(await wrongPin(db, id, '222222', NOW)).toBeNull();
  });

  test('that was wrong five times brings a pause, which a restart does not end', async () => {
    const id = await first();
    for (let i = 0; i < 5; i += 1) expect(await wrongPin(db, id, '000000', NOW)).not.toBeNull();
    await db.destroy();
    db = await openDatabase(file());
    expect(whyNot((await wrongPin(db, id, PIN, NOW))!)).toMatch(/Wait 60 s/);
    const later = (s: number) => new Date(Date.parse(NOW) + 1000 * s).toISOString();
    expect(whyNot((await wrongPin(db, id, PIN, later(59)))!)).toMatch(/Wait 1 s/);
    expect(await wrongPin(db, id, PIN, later(60))).toBeNull();
  });

  test('tried many times at once is no more often tried than one after the other', async () => {
    const id = await first();
    const guesses = Array.from({ length: 12 }, (_, i) => String(100_000 + i));
    const answers = await Promise.all(guesses.map((guess) => wrongPin(db, id, guess, NOW)));
    const paused = answers.filter((answer) => /Too many wrong PINs/.test(whyNot(answer!)));
    expect(paused).toHaveLength(7);
    expect(whyNot((await wrongPin(db, id, PIN, NOW))!)).toMatch(/Too many wrong PINs/);
  });

  test('of a copy that a browser saves is nowhere in it, and is set at the command line', async () => {
    const id = await first();
    const { key } = (await db('pins').first()) as { key: string };
    backUp(file(), file('copy'));
    expect(readFileSync(file('copy')).includes(key)).toBe(true);
    withoutPins(file('copy'));
    expect(readFileSync(file('copy')).includes(key)).toBe(false);
    const copy = await openDatabase(file('copy'));
    expect(whyNot((await wrongPin(copy, id, PIN, NOW))!)).toMatch(/npm run pin/);
    await setPin(copy, id, '333333');
    expect(await wrongPin(copy, id, '333333', NOW)).toBeNull();
    expect((await verify(copy)).alterations).toEqual([]);
    await copy.destroy();
  });

  test('from before PINs stood by themselves still counts, and its history no longer tells it', async () => {
    const old = file('old.sqlite');
    const kept = path.join(__dirname, 'kept', '0.1.0', 'database.sqlite.gz');
    writeFileSync(old, gunzipSync(readFileSync(kept)));
    const then = knex({ client: 'better-sqlite3', connection: { filename: old }, useNullAsDefault: true });
    const [id, salt] = [newId(), '00112233445566778899aabbccddeeff'];
    const key = scryptSync('2468', Buffer.from(salt, 'hex'), 32).toString('hex');
    const body = { name: 'Old Hand', salt, key };
    await then('technicians').insert({ id, version: 1, name: body.name, body: JSON.stringify(body) });
    await append(then, `technician/${id}`, { id: newId(), at: NOW, entry: { type: 'stored', body } });
    await append(then, `technician/${id}`, {
      id: newId(),
      at: NOW,
      entry: { type: 'deleted', deleted: false },
    });
    await then.destroy();
    const now = await openDatabase(old);
    expect(await wrongPin(now, id, '2468', NOW)).toBeNull();
    expect(await wrongPin(now, id, '2469', NOW)).not.toBeNull();
    expect(JSON.stringify([await now('journal'), await now('technicians')])).not.toContain(key);
    expect((await verify(now)).alterations).toEqual([]);
    await now.destroy();
  });
});

test('the database and its copies are their owner’s alone', async () => {
  await first();
  backUp(file(), file('copy'));
  for (const name of ['hard-pedal.sqlite', 'copy']) expect(statSync(file(name)).mode & 0o777).toBe(0o600);
});
