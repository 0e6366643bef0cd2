/** @jest-environment node */
import { askDiagnosis } from './diagnosis';

test('a diagnosis is worked out in a thread of its own; what is wrong with it comes back by field', async () => {
  const found = await askDiagnosis({ kind: 'rod-servo' });
  expect(found).toMatchObject({ ok: true, value: { standing: { is: 'open' } } });
  const wrong = await askDiagnosis({ kind: 'rod-servo', looks: [{ item: 'colour', answer: 'red' }] });
  expect(wrong).toMatchObject({
    ok: false,
    why: { code: 'invalid', fields: { 'looks.0': 'There is no look “colour” whose error rates are known.' } },
  });
});

test('it ends where the sender goes away', async () => {
  const gone = new AbortController();
  const asked = askDiagnosis({ kind: 'vacuum-vehicle' }, gone.signal);
  gone.abort();
  expect(await asked).toMatchObject({ ok: false, why: { code: 'refused' } });
});
