// What a fresh machine with Node and Debian's packages still needs. Nothing here downloads a binary outside them.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';

export const CHROMIUM = '/usr/bin/chromium';

const shown = (env) => ({
  stdio: 'inherit',
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
});

/** Runs a command with its output shown; stops the script where it fails. */
export function run(command, args, env = {}) {
  const { status, error } = spawnSync(command, args, shown(env));
  if (error || status !== 0) {
    console.error(`${[command, ...args].join(' ')}: ${error?.message ?? `ended with ${status}`}`);
    process.exit(status || 1);
  }
}

/**
 * Runs a command with its output shown while others run.
 *
 * @returns whether it ended well, once it has ended
 */
export function runBeside(command, args) {
  return new Promise((ended) => {
    const child = spawn(command, args, shown({}));
    child.once('error', ({ message }) => {
      console.error(`${[command, ...args].join(' ')}: ${message}`);
      ended(false);
    });
    child.once('exit', (status) => ended(status === 0));
  });
}

/** Installs Debian packages, as root or through sudo. */
function apt(...packages) {
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo'];
  for (const args of [['update'], ['install', '-y', '--no-install-recommends', ...packages]]) {
    const [command, ...rest] = [...asRoot, 'apt-get', ...args];
    run(command, rest, { DEBIAN_FRONTEND: 'noninteractive' });
  }
}

const missing = (command) => spawnSync('which', [command]).status !== 0;

/** Installs the packages where they are missing or older than the lock file. The database driver is compiled here. */
export function ensurePackages() {
  const mark = 'node_modules/.package-lock.json';
  const fresh = existsSync(mark) && statSync(mark).mtimeMs >= statSync('package-lock.json').mtimeMs;
  if (fresh) return;
  if (['python3', 'make', 'g++'].some(missing)) apt('python3', 'make', 'g++');
  run('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Installs Debian's Chromium where there is none. */
export function ensureChromium() {
  if (!existsSync(CHROMIUM)) apt('chromium');
}
