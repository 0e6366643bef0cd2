// `npm test`: everything that has to hold, from a bare checkout. Reports land in reports/.
import { mkdirSync, rmSync } from 'node:fs';
import { ensureChromium, ensurePackages, run } from './setup.mjs';

rmSync('reports', { recursive: true, force: true });
mkdirSync('reports');
ensurePackages();
ensureChromium();
run('npx', ['next', 'typegen']);
run('npm', ['run', '--silent', 'types']);
run('npm', ['run', '--silent', 'lint']);
run('npx', ['jest', '--json', '--outputFile=reports/unit.json']);
run('npm', ['run', '--silent', 'build']);
run('npx', ['playwright', 'test']);
