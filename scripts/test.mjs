// `npm test`: everything that has to hold, from a bare checkout. Reports land in reports/.
import { mkdirSync, rmSync } from 'node:fs';
import { ensureChromium, ensurePackages, run } from './setup.mjs';

rmSync('reports', { recursive: true, force: true });
mkdirSync('reports');
/** How long each phase took: printed as it ends, and all together at the end, whatever comes of them. */
const spent = [];
let running = null;
const ended = () => {
  if (!running) return;
  spent.push(`${running.name} ${Math.round((performance.now() - running.from) / 1000)} s`);
  running = null;
};
const phase = (name, work) => {
  running = { name, from: performance.now() };
  work();
  ended();
  console.log(`Phase ${spent.at(-1)}`);
};
process.on('exit', () => {
  ended();
  console.log(`Phases: ${spent.join(', ')}`);
});

phase('install', () => {
  ensurePackages();
  ensureChromium();
});
phase('types', () => {
  run('npx', ['next', 'typegen']);
  run('npm', ['run', '--silent', 'types']);
});
phase('lint', () => run('npm', ['run', '--silent', 'lint']));
phase('unit', () => run('npx', ['jest', '--json', '--outputFile=reports/unit.json']));
phase('build', () => run('npm', ['run', '--silent', 'build']));
phase('browser', () => run('npx', ['playwright', 'test']));
