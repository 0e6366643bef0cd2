// `npm test`: everything that has to hold, from a bare checkout. Reports land in reports/.
import { mkdirSync, rmSync } from 'node:fs';
import { ensureChromium, ensurePackages, run, runBeside } from './setup.mjs';

rmSync('reports', { recursive: true, force: true });
mkdirSync('reports');
/** How long each phase took: printed as it ends, and all together at the end, whatever comes of them. */
const spent = [];
process.on('exit', () => console.log(`Phases: ${spent.join(', ')}`));

/** Phases that run beside each other. All are heard out, then one that failed ends the run. */
async function together(phases) {
  const ends = await Promise.all(
    Object.entries(phases).map(async ([name, work]) => {
      const from = performance.now();
      const isWell = (await work()) ?? true;
      spent.push(`${name} ${Math.round((performance.now() - from) / 1000)} s${isWell ? '' : ', failed'}`);
      console.log(`Phase ${spent.at(-1)}`);
      return isWell;
    }),
  );
  if (!ends.every(Boolean)) process.exit(1);
}

await together({
  install() {
    ensurePackages();
    ensureChromium();
  },
});
run('npx', ['next', 'typegen']);
// Types and lint each keep one core busy.
await together({
  types: () => runBeside('npm', ['run', '--silent', 'types']),
  lint: () => runBeside('npm', ['run', '--silent', 'lint']),
});
await together({ build: () => runBeside('npm', ['run', '--silent', 'build']) });
// The journeys leave the machine idle while they wait for something; the unit tests take what is left over.
await together({
  unit: () => runBeside('nice', ['-n', '19', 'npx', 'jest', '--json', '--outputFile=reports/unit.json']),
  browser: () => runBeside('npx', ['playwright', 'test']),
});
