/** @jest-environment node */
import { benchOf } from '../../scenarios/bench';
import { placeOf } from '../../model/vectors';

const { bench, truthWith, faultyTruth, family } = benchOf('pedal-valve');
const noise = { noise_steps: 0.3 };
const failing = (outcome: ReturnType<typeof bench>) =>
  outcome.results.flatMap(({ id, verdict }) => (verdict === 'fails' ? [id] : []));

test.each([1, 2, 3, 4, 5])('a healthy valve meets every limit, seed %d', (seed) => {
  const { assessment, results } = bench(truthWith(noise), undefined, seed);
  expect(results.filter(({ verdict }) => verdict !== 'meets').map(({ id }) => id)).toEqual([]);
  expect(assessment.headline).toBe('The unit met every limit tested');
});

test.each([
  ['drilling-plugged', ['peak', 'throbs']],
  ['spool-sticking', ['hysteresis', 'residual']],
  ['return-restricted', ['residual', 'drag-hot']],
  ['spring-tired', ['output-1.4', 'output-2.4', 'maximum']],
  ['circuits-leak', ['cross-leak']],
  ['gas-loss-1', ['pre-charge-1', 'applications-1', 'standing-1', 'one-lamp']],
  ['gas-loss-2', ['pre-charge-2', 'applications-2', 'standing-2', 'one-lamp']],
  ['discs-worn', ['apply-time', 'metal-return']],
  ['stop-short', ['maximum']],
  ['stop-far', ['maximum']],
])('%s fails where the handbook looks for it', (fault, wanted) => {
  const outcome = bench(faultyTruth(fault, 0.7, noise));
  expect(failing(outcome)).toEqual(expect.arrayContaining(wanted));
  expect(outcome.assessment.call).toBe('faulty');
});

test('what one circuit lacks is not found in the other', () => {
  const found = failing(bench(faultyTruth('gas-loss-2', 0.7, noise)));
  expect(found.filter((id) => id.endsWith('-1'))).toEqual([]);
});

const with_ = (id: string, value: number) =>
  truthWith({ parameters: [...truthWith().parameters].with(placeOf(family.parameters, id), value) });

test('a healthy valve on oil of 5 °C swings, and it is the oil that falls short', () => {
  const { assessment, byId } = bench(with_('source.oil_K', 278.15));
  expect(byId('oil').verdict).toBe('fails');
  expect(assessment.call).toBe('weak-supply');
  expect(assessment.reasons[0]!.text).toMatch(/^What falls short is the oil/);
  // It is expected to swing as far as it does: nothing is found against it.
  expect(byId('peak').expected!).toBeGreaterThan(1.05 * byId('held').expected!);
  expect(byId('peak').verdict).toBe('meets');
});

test('a charge that is not full is the charge, not the valve', () => {
  const { assessment, byId } = bench(with_('source.charge_Pa', 125e5));
  expect(byId('charge-1').verdict).toBe('fails');
  expect(assessment.call).toBe('weak-supply');
  expect(assessment.reasons.map(({ text }) => text).join(' ')).toMatch(/accumulator 1 stands at \{value\}/);
});
