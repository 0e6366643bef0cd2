/** @jest-environment node */
import { Desk } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { verify } from './verify';
import { changeWeight, weightsOf } from './weights';

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());

const change = (input: object, kind = 'vacuum-vehicle') =>
  changeWeight(
    desk.db,
    kind,
    { fault: 'hose-blocked', weight: 20, by: 'A. Technician', why: 'Seen often here', ...input },
    NOW,
  );

describe('how often a fault counts', () => {
  test('is changed with who and why; empty gives it back its own, and every change stays', async () => {
    expect(await change({})).toMatchObject({ ok: true, value: { weights: { 'hose-blocked': 20 } } });
    const back = await change({ weight: null, by: 'B. Technician', why: 'That was one winter' });
    expect(back).toMatchObject({ ok: true, value: { weights: {} } });
    const now = await weightsOf(desk.db, 'vacuum-vehicle');
    expect(now.ok && now.value.changes.map(({ weight, by }) => [weight, by])).toEqual([
      [null, 'B. Technician'],
      [20, 'A. Technician'],
    ]);
    // What holds for one kind holds for no other.
    expect(await weightsOf(desk.db, 'rod-servo')).toEqual({ ok: true, value: { weights: {}, changes: [] } });
    expect((await verify(desk.db)).alterations).toEqual([]);
  });
  test('sent twice under one name is written once', async () => {
    const id = '00000000-0000-4000-8000-000000000001';
    const [once, twice] = [await change({ id, weight: 3 }), await change({ id, weight: 3 })];
    expect(twice).toEqual(once);
    // Under that name nothing else is taken, of this kind or of another.
    for (const other of [await change({ id, weight: 4 }), await change({ id, weight: 3 }, 'rod-servo')])
      expect(other).toMatchObject({
        ok: false,
        why: { code: expect.stringMatching(/refused|invalid/) as string },
      });
    expect(await change({})).toMatchObject({ ok: true, value: { changes: { length: 4 } } });
  });
  test('nobody, no reason, no such fault, no such kind, nothing left that counts: a sentence', async () => {
    const fields = async (input: object, kind?: string) => {
      const outcome = await change(input, kind);
      return outcome.ok ? null : outcome.why;
    };
    expect(await fields({ by: ' ' })).toMatchObject({ fields: { by: 'By: who says so.' } });
    expect(await fields({ why: '' })).toMatchObject({ fields: { why: 'Why: what speaks for it.' } });
    expect(await fields({ weight: -1 })).toMatchObject({
      fields: { weight: 'Weight: zero or above; at zero it is left out.' },
    });
    expect(await fields({ fault: 'gremlins' })).toMatchObject({
      fields: { fault: expect.stringMatching(/has none of that name/) },
    });
    expect(await fields({}, 'steam')).toMatchObject({ code: 'not-found' });
  });
});
