import { App, SHARED_PORT } from './app';

/** Starts the one server that all journeys share, with the demo world behind it; it ends with them. */
export default async function sharedServer() {
  const app = await App.start({ demo: true });
  process.env[SHARED_PORT] = String(app.port);
  return () => app.end();
}
