import { coverageOver } from '../src/core/scenarios/estimator-coverage';

/** How often the stated 95 % limits of each estimator hold the truth: `npx tsx bench/coverage.ts [seeds]`. */
const seeds = Number(process.argv[2] ?? 1000);
const found = coverageOver(seeds);
console.table(
  found.map(({ name, told, abstained, held, worst }) => ({
    estimator: name,
    told,
    abstained,
    'held, %': told ? ((100 * held) / told).toFixed(1) : '',
    'largest error, %': (100 * worst).toFixed(2),
  })),
);
