// `npm run demo`: packages, build, demo data, server. Honours PORT and HARD_PEDAL_DATA.
import { spawn } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { ensurePackages, run } from './setup.mjs';

const port = process.env.PORT ?? '3000';
const data = path.resolve(process.env.HARD_PEDAL_DATA ?? 'data');

const newest = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true }).reduce(
    (latest, entry) => Math.max(latest, statSync(path.join(entry.parentPath, entry.name)).mtimeMs),
    0,
  );

ensurePackages();
const built = '.next/BUILD_ID';
const sources = Math.max(
  newest('src'),
  statSync('package-lock.json').mtimeMs,
  statSync('next.config.ts').mtimeMs,
);
if (!existsSync(built) || statSync(built).mtimeMs < sources) run('npm', ['run', '--silent', 'build']);
const loggerPort = process.env.HARD_PEDAL_LOGGER_PORT ?? '5025';
const vehiclePort = process.env.HARD_PEDAL_VEHICLE_PORT ?? '13400';
const devices = { HARD_PEDAL_LOGGER_PORT: loggerPort, HARD_PEDAL_VEHICLE_PORT: vehiclePort };
run('npx', ['tsx', 'src/server/demo/cli/seed.ts'], { HARD_PEDAL_DATA: data, ...devices });
console.log(`\nHard Pedal: http://127.0.0.1:${port}/   (data in ${data})\n`);
const server = spawn('npm', ['start', '--silent', '--', '-p', port], {
  stdio: 'inherit',
  env: { ...process.env, HARD_PEDAL_DATA: data, NEXT_TELEMETRY_DISABLED: '1' },
});
const bench = spawn('npx', ['tsx', 'src/devices/cli/bench.ts'], {
  stdio: 'inherit',
  env: {
    ...process.env,
    ...devices,
    HARD_PEDAL_BENCH: path.join(data, 'bench.json'),
  },
});
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => [server, bench].forEach((child) => child.kill(signal)));
server.on('exit', (code) => {
  bench.kill();
  process.exit(code ?? 0);
});
