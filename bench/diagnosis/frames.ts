import { chromium } from '@playwright/test';
import { App } from '../../e2e/app';
import config from '../../playwright.config';
import type { StoredJob } from '../../src/core/records/views';
import { quantiles, table } from '../figures';

/**
 * Intervals between frames while a vehicle's test asks for advice and a reading comes in: `npx tsx bench/diagnosis/frames.ts` after a
 * build. The work is done in a worker; what is measured is whether the screen notices.
 */
const TAG = 'GF-0427';
/** Collects the intervals between frames in the page until it is asked for them. */
const WATCH = `(() => {
  const times = (globalThis.frames_ms = []);
  let last = performance.now();
  const tick = (now) => {
    times.push(now - last);
    last = now;
    requestAnimationFrame(tick);
  };
  requestAnimationFrame(tick);
})()`;

async function main() {
  const app = await App.start({ demo: true });
  const browser = await chromium.launch(config.use!.launchOptions!);
  try {
    const { jobs } = await app.get<{ jobs: (StoredJob & { runs: { id: string }[] })[] }>(`/jobs?q=${TAG}`);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${app.url}/runs/${jobs[0]!.runs.at(-1)!.id}`);
    await page.locator('#reading').waitFor();
    await page.waitForTimeout(2000);
    const intervals = async (what: () => Promise<void>) => {
      await page.evaluate(WATCH);
      await what();
      return quantiles((await page.evaluate('globalThis.frames_ms')) as number[]);
    };
    const done = () => page.getByText('Chances, never certainty').waitFor({ timeout: 60_000 });
    const quiet = async () => {
      await page.getByRole('progressbar').waitFor({ state: 'hidden', timeout: 60_000 });
    };
    table('ms', {
      'at rest': await intervals(() => page.waitForTimeout(3000)),
      'advice asked for': await intervals(async () => {
        await page.keyboard.press('#');
        await done();
        await quiet();
      }),
      'a reading comes in': await intervals(async () => {
        await page.locator('#reading').fill('58');
        await page.keyboard.press('Enter');
        await page.waitForTimeout(300);
        await quiet();
      }),
    });
  } finally {
    await browser.close();
    await app.end();
  }
}

void main();
