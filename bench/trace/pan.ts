import { readFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { App } from '../../e2e/app';
import config from '../../playwright.config';
import type { StoredTrace } from '../../src/server/traces';
import { medianOf } from '../figures';
import { HOUR } from './hour';

/**
 * Five seconds of panning and zooming over the hour at 1 kHz, six channels, in headless Chromium: `npx tsx
 * bench/trace/pan.ts` after a build and bench/trace/run.ts. Prints the intervals between frames.
 */
/** Zooms in for a second and a half, drags for two, zooms in and out for the rest; run in the page as it stands. */
const PAN = `new Promise((done) => {
  const canvas = document.querySelector('canvas');
  const box = canvas.getBoundingClientRect();
  const at = (x) => ({ clientX: box.left + x, clientY: box.top + 150, bubbles: true, cancelable: true });
  const send = (type, x) => canvas.dispatchEvent(new MouseEvent(type, { ...at(x), buttons: 1 }));
  const wheel = (delta) => canvas.dispatchEvent(new WheelEvent('wheel', { ...at(420), deltaY: delta }));
  const times = [];
  const begun = performance.now();
  let last = begun;
  let frame = 0;
  const tick = (now) => {
    times.push(now - last);
    last = now;
    frame += 1;
    const second = (now - begun) / 1000;
    if (second < 1.5) wheel(-120);
    else if (second < 3.5) {
      if (!tick.down) send('mousedown', 600);
      tick.down = true;
      send('mousemove', 600 + 250 * Math.sin(frame / 20));
    } else wheel(frame % 2 ? 120 : -120);
    if (second < 5) requestAnimationFrame(tick);
    else {
      send('mouseup', 600);
      done(times.slice(1));
    }
  };
  requestAnimationFrame(tick);
})`;

async function main() {
  const log = readFileSync(process.argv[2] ?? HOUR);
  const app = await App.start({ demo: false });
  const start = performance.now();
  const response = await fetch(`${app.url}/api/v1/traces/import?name=hour`, { method: 'POST', body: log });
  const trace = (await response.json()) as StoredTrace;
  console.log(
    `imported in ${((performance.now() - start) / 1000).toFixed(1)} s: ${trace.body.rows} readings`,
  );
  const browser = await chromium.launch(config.use!.launchOptions!);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${app.url}/traces/${trace.id}`);
  await page.getByRole('button', { name: /Against time/ }).click();
  await page.locator('canvas').waitFor();
  await page.waitForTimeout(2000);
  const intervals = (await page.evaluate(PAN)) as number[];
  const sorted = [...intervals].sort((a, b) => a - b);
  console.log(
    `frames: ${intervals.length}; interval: median ${medianOf(intervals).toFixed(1)} ms, 95th ${sorted[Math.floor(0.95 * sorted.length)]!.toFixed(1)} ms, longest ${sorted.at(-1)!.toFixed(1)} ms`,
  );
  await browser.close();
  await app.end();
}
void main();
