import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { connect, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { test as base } from '@playwright/test';

/** The built application on a port, as it is asked. */
export class Site {
  constructor(readonly port: number) {}

  get url() {
    return `http://127.0.0.1:${this.port}`;
  }

  async get<T>(where: string): Promise<T> {
    return (await (await fetch(`${this.url}/api/v1${where}`)).json()) as T;
  }

  async post<T>(where: string, body: unknown): Promise<T> {
    const response = await fetch(`${this.url}/api/v1${where}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    return (await response.json()) as T;
  }
}

/** How long a server may take to come up on a machine that others use too, ms. */
const UP_MS = 120_000;

/** The same with a data folder of its own: for journeys that end it, change its settings or take its bench. */
export class App extends Site {
  private process: ChildProcess | null = null;
  private device: ChildProcess | null = null;

  private constructor(
    readonly data: string,
    port: number,
    private readonly loggerPort: number | null,
    private readonly vehiclePort: number | null,
  ) {
    super(port);
  }

  /** @param live with a simulated bench behind it, and the interface of a vehicle that stands there */
  static async start({ demo, live = false }: { demo: boolean; live?: boolean }): Promise<App> {
    const loggerPort = live ? await freePort() : null;
    const vehiclePort = live ? await freePort() : null;
    const data = mkdtempSync(path.join(tmpdir(), 'hard-pedal-'));
    const app = new App(data, await freePort(), loggerPort, vehiclePort);
    if (live) await app.plugIn();
    if (demo) cpSync(demoFolder(), data, { recursive: true });
    await app.up();
    if (demo && live) await app.tellDevices();
    return app;
  }

  /** Says where the bench's logger and the vehicle interface are. */
  private async tellDevices(): Promise<void> {
    const { version, body } = await this.get<{ version: number; body: object }>('/settings');
    const [logger, vehicle] = [this.loggerPort, this.vehiclePort].map((port) => `127.0.0.1:${port}`);
    const sent = await fetch(`${this.url}/api/v1/settings`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ version, body: { ...body, logger, vehicle } }),
    });
    if (!sent.ok) throw new Error(await sent.text());
  }

  /** The same over a data folder that there is already. */
  static async over(data: string): Promise<App> {
    const app = new App(data, await freePort(), null, null);
    await app.up();
    return app;
  }

  /** Starts the server and waits until it answers. */
  async up(): Promise<void> {
    const server = spawn('npm', ['start', '--silent', '--', '-p', String(this.port)], {
      env: this.env(),
      stdio: ['ignore', 'ignore', 'pipe'],
      detached: true,
    });
    this.process = server;
    let said = '';
    server.stderr.on('data', (words: Buffer) => (said += words.toString()));
    const latest = Date.now() + UP_MS;
    while (Date.now() < latest && server.exitCode === null) {
      const answers = await fetch(`${this.url}/api/v1/health`).then(
        (response) => response.ok,
        () => false,
      );
      if (answers) return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error(`The server did not come up. ${said}`);
  }

  /** kill −9 of the server and all that it started: nothing gets a chance to tidy up. */
  async kill(): Promise<void> {
    const { process: server } = this;
    if (!server?.pid) return;
    const gone = new Promise((resolve) => server.once('exit', resolve));
    process.kill(-server.pid, 'SIGKILL');
    await gone;
    this.process = null;
  }

  /** Starts the simulated bench, or starts it anew after its cable was pulled. */
  async plugIn(): Promise<void> {
    const device = spawn(process.execPath, ['--import', 'tsx', 'src/devices/cli/bench.ts'], {
      env: this.env(),
    });
    this.device = device;
    let said = '';
    device.stderr.on('data', (words: Buffer) => (said += words.toString()));
    await new Promise<void>((ready, fail) => {
      device.stdout.once('data', () => ready());
      device.once('exit', () => fail(new Error(`The simulated bench did not start: ${said}`)));
    });
  }

  /** Says something to the hands at the stand-ins: what is hidden, what the line does wrong. */
  async hand(message: object): Promise<void> {
    const socket = connect({ host: '127.0.0.1', port: this.loggerPort! + 1 });
    socket.write(`${JSON.stringify(message)}\n`);
    const [answer] = (await once(socket, 'data')) as [Buffer];
    socket.destroy();
    if (!(JSON.parse(answer.toString()) as { ok: boolean }).ok) throw new Error(answer.toString());
  }

  /** Port of the vehicle interface that stands behind it. */
  get vehicle(): number {
    return this.vehiclePort!;
  }

  /** Pulls the cable of the bench logger: it is gone at once. */
  async unplug(): Promise<void> {
    const { device } = this;
    if (!device) return;
    const gone = new Promise((resolve) => device.once('exit', resolve));
    device.kill('SIGKILL');
    await gone;
    this.device = null;
  }

  async end(): Promise<void> {
    await this.kill();
    await this.unplug();
    rmSync(this.data, { recursive: true, force: true });
  }

  private env(): NodeJS.ProcessEnv {
    return {
      ...process.env,
      HARD_PEDAL_DATA: this.data,
      ...(this.loggerPort && { HARD_PEDAL_LOGGER_PORT: String(this.loggerPort) }),
      ...(this.vehiclePort && { HARD_PEDAL_VEHICLE_PORT: String(this.vehiclePort) }),
      NEXT_TELEMETRY_DISABLED: '1',
      NODE_ENV: 'production',
    };
  }
}

/** Where the demo world lies, made once for all journeys. */
const SEEDED = 'HARD_PEDAL_SEEDED';

/** A data folder with the demo world in it, to be copied. */
export function demoFolder(): string {
  const known = process.env[SEEDED];
  if (known) return known;
  const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-seeded-'));
  const seed = spawnSync(process.execPath, ['--import', 'tsx', 'src/server/demo/cli/seed.ts'], {
    env: { ...process.env, HARD_PEDAL_DATA: folder },
    encoding: 'utf8',
  });
  if (seed.status !== 0) throw new Error(seed.stderr);
  // Nobody has it open any more.
  rmSync(path.join(folder, 'running.pid'), { force: true });
  process.env[SEEDED] = folder;
  return folder;
}

/** Below the ports that the system hands out to callers: one of those could be taken while a cable is out. */
const PORTS = { from: 20_000, to: 32_000 };

async function freePort(): Promise<number> {
  for (;;) {
    const port = PORTS.from + Math.floor(Math.random() * (PORTS.to - PORTS.from));
    const free = await new Promise<boolean>((resolve) => {
      const probe = createServer()
        .once('error', () => resolve(false))
        .listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
    });
    if (free) return port;
  }
}

/** Pages are not touched before they have come alive and their keys listen, however slow the machine. */
function alive(): boolean {
  const controls = [...document.querySelectorAll('h1, button, input, textarea')];
  return (
    // Where the application cannot be shown at all there is no frame, and no keys.
    (!document.querySelector('#main') || document.documentElement.dataset.keys === 'listen') &&
    controls.length > 0 &&
    controls.every((control) => Object.keys(control).some((key) => key.startsWith('__reactProps')))
  );
}

/** Names the port of the one server that all workers share. */
export const SHARED_PORT = 'HARD_PEDAL_SHARED_PORT';

/**
 * Tests with the demo world behind them. They share one server: each takes in units of its own and counts no others. No page of theirs
 * may have asked for what its policy of content refuses.
 */
export const test = base.extend<object, { app: Site }>({
  page: async ({ page }, provide) => {
    const refused: string[] = [];
    page.on('console', (message) => {
      if (/content security policy/i.test(message.text())) refused.push(message.text());
    });
    const goto = page.goto.bind(page);
    page.goto = async (...where) => {
      const response = await goto(...where);
      await page.waitForFunction(alive);
      return response;
    };
    await provide(page);
    if (refused.length > 0) throw new Error(`The content policy was broken: ${refused.join(' ')}`);
  },
  app: [async ({}, use) => use(new Site(Number(process.env[SHARED_PORT]))), { scope: 'worker' }],
});

export { expect } from '@playwright/test';
