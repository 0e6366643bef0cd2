import { chromium } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import type { StoredJob } from '../src/core/records/views';
import { App } from '../e2e/app';
import config from '../playwright.config';
void writeFileSync;
async function main() {
  const app = await App.start({ demo: true });
  const browser = await chromium.launch(config.use!.launchOptions!);
  const jobs = (await app.get<{ jobs: StoredJob[] }>('/jobs')).jobs;
  const job = (tag: string) => jobs.find(({ body }) => body.tag === tag)!;
  const shot = async (name: string, where: string, width: number, height: number, more: { dark?: boolean; keys?: string[]; full?: boolean; wait?: string } = {}) => {
    const context = await browser.newContext({ viewport: { width, height }, colorScheme: more.dark ? 'dark' : 'light', deviceScaleFactor: 1 });
    const page = await context.newPage();
    page.on('console', (m) => { if (m.type() === 'error') console.log(name, m.text().slice(0, 300)); });
    await page.goto(app.url + where);
    await page.waitForTimeout(1500);
    for (const key of more.keys ?? []) { await page.keyboard.press(key); await page.waitForTimeout(500); }
    if (more.wait) await page.getByText(more.wait).first().waitFor({ timeout: 60000 }).catch(() => console.log('no', more.wait));
    await page.waitForTimeout(800);
    await page.screenshot({ path: `/tmp/look/${name}.png`, fullPage: more.full });
    await context.close();
  };
  const run = (tag: string) => `/runs/${job(tag).runs[0]!.id}`;
  const all: Record<string, () => Promise<void>> = {
    run: () => shot('run', run('GF-0435'), 1280, 800),
    runup: () => shot('runup', run('GF-0435'), 820, 1180, { dark: true }),
    report: () => shot('report', `${run('GF-0434')}/report`, 1280, 2600),
    pump: () => shot('pump', run('GF-0432'), 1280, 800),
    sheet: () => shot('sheet', `/jobs/${job('GF-0434').id}`, 1280, 1400),
    steer: () => shot('steer', `/jobs/${job('GF-0433').id}`, 1280, 900),
    fitted: () => shot('fitted', '/shelf/profiles/fitted?kind=stored-pressure-vehicle', 1280, 1400),
    newprofile: () => shot('newprofile', '/shelf/profiles/new?kind=stored-pressure-vehicle', 1280, 2400),
    advice: () => shot('advice', run('GF-0435'), 1280, 800, { keys: ['F10'], wait: 'Chances, never' }),
  };
  for (const name of process.argv.slice(2)) await all[name]!();
  await browser.close();
  await app.end();
}
void main();
