import { readFileSync } from 'node:fs';
import { repairOf } from '../../src/core/diagnosis/causes';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import type { Truth } from './protocol';

/** A signature that lies further than this from all others, in standard uncertainties, is to be found. Handbook-models 12. */
const FAR_U = 3;

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

/**
 * node score.mjs KIND [--from=CHANCE] [--signatures=FILE] files…: as if a search that is over were unexplained from that chance of the
 * unknown cause on, in place of what the family says; and of the left-out ones, those whose signature lies far from all others.
 */
if (process.argv[1]?.includes('score')) {
  const [kind, ...rest] = process.argv.slice(2) as [FamilyKind, ...string[]];
  const option = (name: string) => rest.find((one) => one.startsWith(`--${name}=`))?.split('=')[1];
  const files = rest.filter((one) => !one.startsWith('--'));
  const from = Number(option('from') ?? FAMILIES[kind].unexplainedFrom ?? 0.5);
  const faults = new Map(FAMILIES[kind].faults.map((fault) => [fault.id, fault]));
  const classOf = ({ faults: of }: Truth) =>
    of.length === 0 ? 'healthy' : repairOf(of.map((id) => faults.get(id)!));
  const lines = files.flatMap((file) =>
    readFileSync(file, 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Outcome & { drawn: string })
      .map((one) =>
        one.unexplained >= from ? { ...one, stood: 'unexplained', claimed: null, group: [] } : one,
      ),
  );
  const isRight = (one: Outcome) => one.claimed === classOf(one.truth);
  const stoodAs = (some: readonly Outcome[], how: string) => some.filter(({ stood }) => stood === how);
  const mean = (some: readonly number[]) => some.reduce((sum, one) => sum + one, 0) / some.length;
  for (const drawn of [...new Set(lines.map((line) => line.drawn))].sort()) {
    const some = lines.filter((line) => line.drawn === drawn);
    const claims = some.filter(({ claimed }) => claimed !== null);
    const groups = stoodAs(some, 'not-told-apart');
    const inGroup = groups.filter(({ group, truth }) => group.includes(classOf(truth)));
    console.log(`${drawn}: ${some.length} installations`);
    console.log(`  claimed            ${percent(claims.length, some.length)}`);
    if (!drawn.startsWith('shuffled:'))
      console.log(`  right among claims ${percent(claims.filter(isRight).length, claims.length)}`);
    console.log(`  called unexplained ${percent(stoodAs(some, 'unexplained').length, some.length)}`);
    console.log(
      `  not told apart     ${percent(groups.length, some.length)}, of ${mean(groups.map(({ group }) => group.length)).toFixed(2)} on average; right one among them ${percent(inGroup.length, groups.length)}`,
    );
    console.log(`  minutes            ${mean(some.map(({ minutes }) => minutes)).toFixed(1)} on average`);
  }

  const signatures = option('signatures');
  if (signatures) {
    const far = readFileSync(signatures, 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { fault: string; severity: number; u: number });
    const isFar = ({ truth: { leftOut, severities } }: Outcome) => {
      const own = far.filter(({ fault }) => fault === leftOut);
      const off = ({ severity }: (typeof own)[number]) => Math.abs(severity - severities[0]!);
      return own.reduce((a, b) => (off(b) < off(a) ? b : a)).u > FAR_U;
    };
    const some = lines.filter((one) => one.drawn === 'left-out' && isFar(one));
    const found = stoodAs(some, 'unexplained');
    console.log(`left-out, signature beyond ${FAR_U} u of all others: ${some.length} installations`);
    console.log(`  called unexplained ${percent(found.length, some.length)}`);
    console.log(`  claimed            ${percent(some.filter(({ claimed }) => claimed).length, some.length)}`);
  }

  const known = lines.filter(({ drawn }) => drawn === 'by-library');
  if (known.length > 0) {
    const stated = known.map((one) => [one.top[1], one.top[0] === classOf(one.truth)] as const);
    const byChance = Array.from({ length: 200 }, () =>
      calibrationError(stated.map(([p]) => [p, Math.random() < p] as const)),
    ).sort((a, b) => a - b);
    const log = known.map((one) => Math.log(Math.max(1e-6, one.repairs[classOf(one.truth)] ?? 0)));
    const unknown = known.map(({ unexplained }) => unexplained).sort((a, b) => a - b);
    console.log(`by-library, the top class`);
    console.log(
      `  calibration error  ${calibrationError(stated).toFixed(3)}; by chance, perfectly calibrated ${byChance[100]!.toFixed(3)} (95 % below ${byChance[190]!.toFixed(3)})`,
    );
    console.log(`  log score          ${mean(log).toFixed(3)}`);
    console.log(
      `  97th percentile of P(unknown) ${unknown[Math.floor(0.97 * unknown.length)]!.toExponential(1)}`,
    );
  }

  const of = ({ truth }: Outcome) =>
    truth.faults.map((id, i) => `${id} ${truth.severities[i]!.toFixed(2)}`).join(' + ') || 'healthy';
  const library = lines.filter(({ drawn }) => !drawn.includes(':') && drawn !== 'left-out');
  console.log('wrong claims:');
  for (const one of library)
    if (one.claimed !== null && !isRight(one))
      console.log(`  ${of(one)} → ${one.claimed} (${one.likeliest})`);
  console.log('unexplained of the library:');
  for (const one of stoodAs(library, 'unexplained')) console.log(`  ${of(one)}`);
}
