import { chromium } from '@playwright/test';
import type { StoredJob, StoredProfile, StoredRun } from '../src/core/records/views';
import { App } from '../e2e/app';
import config from '../playwright.config';
async function main() {
  const app = await App.start({ demo: true, logger: true } as never);
  const browser = await chromium.launch(config.use!.launchOptions!);
  const jobs = (await app.get<{ jobs: StoredJob[] }>('/jobs')).jobs;
  const job = (tag: string) => jobs.find(({ body }) => body.tag === tag)!;
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const shot = (n: string) => page.screenshot({ path: `/tmp/look-${n}.png` });
  const run = job('GF-0423').runs[0]!.id;
  await page.goto(`${app.url}/runs/${run}`, { waitUntil: 'networkidle' });
  await page.waitForTimeout(1500);
  await shot('run');
  // choose bypass again: gate
  const runBody = await app.get<StoredRun>(`/runs/${run}`);
  const cap = runBody.events.find((e) => e.type === 'captured' && e.item === 'bypass.1.input')!;
  const ev = (e: object) => ({ id: crypto.randomUUID(), at: new Date().toISOString(), ...e });
  const post = async (events: object[]) => {
    const now = await app.get<StoredRun>(`/runs/${run}`);
    return app.post(`/runs/${run}/events`, { expectedVersion: now.events.length, events });
  };
  await post([ev({ type: 'struck', capture: cap.id })]);
  await post([ev({ type: 'chosen', step: 'bypass' })]);
  await post([ev({ type: 'source-set', step: 'bypass', set: { source: 'vacuum', to: 'off' } })]);
  await page.reload({ waitUntil: 'networkidle' });
  await page.waitForTimeout(800);
  await shot('gate-caution');
  await post([ev({ type: 'acknowledged', step: 'make-safe' })]);
  await page.reload({ waitUntil: 'networkidle' });
  await page.waitForTimeout(800);
  await shot('gate');
  await page.goto(`${app.url}/`, { waitUntil: 'networkidle' });
  await page.waitForTimeout(500);
  await shot('bench');
  // wrong fluid
  const profiles = await app.get<StoredProfile[]>('/profiles');
  const mineral = profiles.find(({ body }) => (body as unknown as { fluid: string }).fluid === 'mineral')!;
  const j = await app.post<StoredJob>('/jobs', { ...job('GF-0423').body, tag: 'GF-0999', profileId: mineral.id, kind: mineral.kind, fluid: 'mineral' });
  await page.goto(`${app.url}/jobs/${j.id}`, { waitUntil: 'networkidle' });
  await page.getByRole('button', { name: /Start the test|Start/ }).first().click();
  await page.waitForTimeout(1200);
  await shot('fluid');
  const instruments = await app.get<{ id: string; body: { tag: string } }[]>('/instruments');
  await page.setViewportSize({ width: 1280, height: 1350 });
  await page.goto(`${app.url}/shelf/instruments/${instruments.find(({ body }) => body.tag === 'G-12')!.id}`, { waitUntil: 'networkidle' });
  await page.waitForTimeout(500);
  await shot('instrument');
  await browser.close();
  await app.end();
}
void main();
