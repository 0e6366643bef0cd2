// `npm test`: everything that has to hold, from a bare checkout. Reports land in reports/.
import { mkdirSync, rmSync } from 'node:fs';
import { ensureChromium, ensurePackages, run, runBeside } from './setup.mjs';

rmSync('reports', { recursive: true, force: true });
mkdirSync('reports');
/** How long each phase took: printed as it ends, and all together at the end, whatever comes of them. */
const spent = [];
process.on('exit', () => console.log(`Phases: ${spent.join(', ')}`));

/** @returns whether it ended well; work that says nothing did */
async function phase(name, work) {
  const from = performance.now();
  const isWell = (await work()) ?? true;
  spent.push(`${name} ${Math.round((performance.now() - from) / 1000)} s${isWell ? '' : ', failed'}`);
  console.log(`Phase ${spent.at(-1)}`);
  return isWell;
}

/** Phases that run beside each other: all are heard out. */
const together = async (...phases) => (await Promise.all(phases)).every(Boolean);

const script = (name) => () => runBeside('npm', ['run', '--silent', name]);

await phase('install', () => {
  ensurePackages();
  ensureChromium();
});
run('npx', ['next', 'typegen']);

/** Types and lint each keep one core busy; what is built holds them, and the journeys go through what is built. */
async function builtAndWalked() {
  if (!(await together(phase('types', script('types')), phase('lint', script('lint'))))) return false;
  if (!(await phase('build', script('build')))) return false;
  return phase('browser', () => runBeside('npx', ['playwright', 'test']));
}
/** Every other phase leaves a core idle now and then, the journeys as they wait: these take what is left over. */
const unit = () => runBeside('nice', ['-n', '19', 'npx', 'jest', '--json', '--outputFile=reports/unit.json']);

if (!(await together(phase('unit', unit), builtAndWalked()))) process.exit(1);
