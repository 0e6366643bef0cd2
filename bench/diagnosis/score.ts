import { readFileSync } from 'node:fs';
import { repairOf } from '../../src/core/diagnosis/causes';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import type { Truth } from './protocol';

/** How one installation ended. */
export interface Outcome {
  readonly truth: Truth;
  readonly stood: string;
  readonly claimed: string | null;
  readonly group: readonly string[];
  readonly top: readonly [repair: string, chance: number];
  readonly repairs: Readonly<Record<string, number>>;
  readonly unexplained: number;
  readonly likeliest: string;
  readonly minutes: number;
  readonly steps: number;
}

/** Wilson's interval for a share, 95 %. */
export function wilson(hits: number, of: number): readonly [number, number] {
  if (of === 0) return [0, 1];
  const z = 1.959964;
  const p = hits / of;
  const middle = (p + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const half = (z / (1 + (z * z) / of)) * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of));
  return [middle - half, middle + half];
}

/** Mean distance of stated and found shares over bins of equal count. */
export function calibrationError(
  pairs: readonly (readonly [stated: number, right: boolean])[],
  bins = 10,
): number {
  const sorted = [...pairs].sort(([a], [b]) => a - b);
  let sum = 0;
  for (let bin = 0; bin < bins; bin += 1) {
    const part = sorted.slice(
      Math.floor((bin * sorted.length) / bins),
      Math.floor(((bin + 1) * sorted.length) / bins),
    );
    const stated = part.reduce((all, [p]) => all + p, 0) / part.length;
    const right = part.filter(([, hit]) => hit).length / part.length;
    sum += (part.length / sorted.length) * Math.abs(stated - right);
  }
  return sum;
}

const percent = (hits: number, of: number) => {
  const [low, high] = wilson(hits, of);
  return `${((100 * hits) / of).toFixed(1)} % (${hits} of ${of}; ${(100 * low).toFixed(1)}–${(100 * high).toFixed(1)} %)`;
};

if (process.argv[1]?.includes('score')) {
  const [kind, ...files] = process.argv.slice(2) as [FamilyKind, ...string[]];
  const faults = new Map(FAMILIES[kind].faults.map((fault) => [fault.id, fault]));
  const classOf = ({ faults: of }: Truth) =>
    of.length === 0 ? 'healthy' : repairOf(of.map((id) => faults.get(id)!));
  const lines = files.flatMap((file) =>
    readFileSync(file, 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Outcome & { drawn: string }),
  );
  const library = lines.filter(({ truth }) => truth.leftOut === null);
  const claims = library.filter(({ claimed }) => claimed !== null);
  const right = claims.filter((one) => one.claimed === classOf(one.truth));
  console.log(`${lines.length} installations, ${library.length} of the library`);
  console.log(`right among claims   ${percent(right.length, claims.length)}`);
  console.log(`claimed              ${percent(claims.length, library.length)}`);
  console.log(
    `called unexplained   ${percent(library.filter(({ stood }) => stood === 'unexplained').length, library.length)}`,
  );
  const groups = library.filter(({ stood }) => stood === 'not-told-apart');
  const inGroup = groups.filter((one) => one.group.includes(classOf(one.truth)));
  console.log(
    `not told apart       ${percent(groups.length, library.length)}, of ${(groups.reduce((sum, { group }) => sum + group.length, 0) / groups.length).toFixed(2)} on average; right one among them ${percent(inGroup.length, groups.length)}`,
  );
  const minutes = library.map((one) => one.minutes);
  console.log(
    `minutes              ${(minutes.reduce((a, b) => a + b, 0) / minutes.length).toFixed(1)} on average`,
  );
  const stated = library.map((one) => [one.top[1], one.top[0] === classOf(one.truth)] as const);
  console.log(`calibration error    ${calibrationError(stated).toFixed(3)}`);
  const byChance = Array.from({ length: 200 }, () =>
    calibrationError(stated.map(([p]) => [p, Math.random() < p] as const)),
  ).sort((a, b) => a - b);
  console.log(
    `  by chance, perfectly calibrated: ${byChance[100]!.toFixed(3)} (95 % below ${byChance[190]!.toFixed(3)})`,
  );
  const score = library.reduce(
    (sum, one) => sum + Math.log(Math.max(1e-6, one.repairs[classOf(one.truth)] ?? 0)),
    0,
  );
  console.log(`log score            ${(score / library.length).toFixed(3)}`);
  const sorted = library.map(({ unexplained }) => unexplained).sort((a, b) => a - b);
  console.log(`97th percentile of P(unknown) ${sorted[Math.floor(0.97 * sorted.length)]!.toFixed(3)}`);
  const out = lines.filter(({ truth }) => truth.leftOut !== null);
  if (out.length > 0)
    console.log(
      `left out, found      ${percent(out.filter(({ stood }) => stood === 'unexplained').length, out.length)}`,
    );
  const wrong = new Map<string, number>();
  for (const one of claims)
    if (one.claimed !== classOf(one.truth)) {
      const key = `${one.truth.faults.map((id, i) => `${id} ${one.truth.severities[i]!.toFixed(1)}`).join(' + ') || 'healthy'} → ${one.claimed} (${one.likeliest})`;
      wrong.set(key, (wrong.get(key) ?? 0) + 1);
    }
  console.log('wrong claims:');
  for (const [key, times] of wrong) console.log(`  ${times} ${key}`);
  console.log('unexplained of the library:');
  for (const one of library)
    if (one.stood === 'unexplained')
      console.log(
        `  ${one.truth.faults.map((id, i) => `${id} ${one.truth.severities[i]!.toFixed(2)}`).join(' + ') || 'healthy'}`,
      );
}
