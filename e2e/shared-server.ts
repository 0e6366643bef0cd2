import { rmSync } from 'node:fs';
import { App, demoFolder, SHARED_PORT } from './app';

/** Starts the one server that all journeys share, with the demo world behind it; it ends with them. */
export default async function sharedServer() {
  const seeded = demoFolder();
  const app = await App.start({ demo: true });
  process.env[SHARED_PORT] = String(app.port);
  return async () => {
    await app.end();
    rmSync(seeded, { recursive: true, force: true });
  };
}
