import type { RunContext } from '../src/core/contract/run-context';
import { Diagnostician } from '../src/core/diagnosis/diagnose';
import { FAMILIES, type FamilyKind } from '../src/core/families/registry';
import { seeded } from '../src/core/numeric/chance';
import { drawCase } from '../src/core/practice/draw';
import { LEVEL_IDS } from '../src/core/practice/levels';
import { scoreOf } from '../src/core/practice/score';
import { foundBy, walk, type Choose } from '../src/core/practice/walk';
import { wholeRun } from '../src/core/practice/whole-run';
import { benchOf } from '../src/core/scenarios/bench';

/**
 * Simulated technicians in cases of practice, each case by three orders of tests: at random, as the procedure has them, and as the
 * adviser advises. All judge what they see alike, with the adviser's own engine: what the order is worth is told apart from it.
 *
 *   npx tsx bench/practice.ts KIND COUNT SEED
 */
const [kind = 'remote-vacuum', count = '200', seed = '1'] = process.argv.slice(2);
const family = FAMILIES[kind as FamilyKind];
const context: RunContext<unknown> = benchOf(kind as FamilyKind).contextWith();
const gauges = Object.values(context.rig).flat();

const ORDERS = ['random', 'usual', 'advised'] as const;
type Order = (typeof ORDERS)[number];
const chooseBy = (order: Order, random: () => number): Choose | undefined => {
  if (order === 'advised') return undefined;
  if (order === 'usual') return (possible) => possible[0]?.step ?? null;
  return (possible) => possible[Math.floor(random() * possible.length)]?.step ?? null;
};

// What is complained of is not weighed: one diagnostician has its particles laid out for all cases.
const diagnostician = new Diagnostician(family, context.profile, { complaint: true, heard: [], weights: {} });

const points: Record<Order, number[]> = { random: [], usual: [], advised: [] };
const right: Record<Order, number> = { random: 0, usual: 0, advised: 0 };
const minutes: Record<Order, number[]> = { random: [], usual: [], advised: [] };
const started = performance.now();
for (let i = 0; i < Number(count); i += 1) {
  const level = LEVEL_IDS[i % LEVEL_IDS.length]!;
  const { truth } = drawCase(family, gauges, level, Number(seed) * 100_003 + i);
  const whole = wholeRun(family, context, truth, level);
  const faults = truth.faults.map(([id]) => family.faults.find((one) => one.id === id)!);
  const random = seeded(i + 1);
  const ways = ORDERS.map((order) => walk(diagnostician, family, context, whole, chooseBy(order, random)));
  const adviser_min = ways.at(-1)!.minutes;
  ORDERS.forEach((order, o) => {
    const way = ways[o]!;
    const finding = foundBy(way);
    const score = scoreOf({ finding, minutes: way.minutes, changed: [], lapses: 0 }, faults, adviser_min);
    points[order].push(score.points);
    minutes[order].push(way.minutes);
    right[order] += Number(score.finding === 50);
  });
  if ((i + 1) % 20 === 0)
    console.log(`${i + 1}: ${((performance.now() - started) / (i + 1) / 1000).toFixed(2)} s each`);
}

const mean = (of: readonly number[]) => of.reduce((sum, one) => sum + one, 0) / of.length;
const error = (of: readonly number[]) =>
  Math.sqrt(of.reduce((sum, one) => sum + (one - mean(of)) ** 2, 0) / (of.length - 1) / of.length);
for (const order of ORDERS)
  console.log(
    `${order}: ${mean(points[order]).toFixed(1)} ± ${(1.96 * error(points[order])).toFixed(1)} points, right ${right[order]} of ${points[order].length}, ${mean(minutes[order]).toFixed(1)} min`,
  );
for (const [one, other] of [
  ['usual', 'random'],
  ['advised', 'usual'],
] as const) {
  const apart = points[one].map((value, i) => value - points[other][i]!);
  console.log(
    `${one} over ${other}, case by case: ${mean(apart).toFixed(1)} ± ${(1.96 * error(apart)).toFixed(1)}`,
  );
}
