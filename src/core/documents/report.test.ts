/** @jest-environment node */
import { benchOf } from '../scenarios/bench';
import { reportContent } from './report';

test.each([
  ['hydraulic-vehicle', 'belt-slips', 0.6, /what feeds it does not meet its limits/],
  ['motor-pump-booster', 'feed-poor', 1, /what feeds it does not meet its limits/],
  ['vacuum-vehicle', 'timing', 1, /that vacuum falls short/],
] as const)(
  '%s with “%s” at %d: the report says what falls short, and speaks of vacuum only where there is some',
  (kind, fault, severity, says) => {
    const { bench, faultyTruth } = benchOf(kind);
    const { context, run, results, assessment } = bench(faultyTruth(fault, severity));
    expect(assessment.call).toBe('weak-supply');
    expect(reportContent(context, run, results, assessment).plain[0]).toMatch(says);
  },
);

test.each([
  'hydraulic-vehicle',
  'motor-pump-vehicle',
  'motor-pump-booster',
  'stored-pressure-vehicle',
] as const)('%s as made fails nowhere', (kind) => {
  const { bench, truthWith } = benchOf(kind);
  const { results } = bench(truthWith());
  expect(results.filter(({ verdict }) => verdict === 'fails').map(({ id }) => id)).toEqual([]);
});
