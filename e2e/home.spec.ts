import type { StoredJob } from '../src/core/records/views';
import { expect, test } from './app';

test('a customer’s home check: printed with the report, sent back as a file, and weighed as evidence', async ({
  page,
  app,
}) => {
  const { jobs } = await app.get<{ jobs: StoredJob[] }>('/jobs?q=GF-0427');
  const job = jobs[0]!;
  const [run] = job.runs;

  // Printed with the report: what to try, what to expect, and what is due when.
  await page.goto(`${app.url}/runs/${run!.id}/report`);
  await expect(page.getByRole('heading', { name: 'Home check' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Home check' })).toContainText(
    /sinks under the foot by about \d+/,
  );
  await expect(page.getByRole('table', { name: 'Care plan' })).toContainText('Change the fluid');
  const [calendar] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Care plan as a calendar' }).click(),
  ]);
  expect(calendar.suggestedFilename()).toBe('care-GF-0427.ics');

  // The file goes out, is filled in, and comes back.
  await page.goto(`${app.url}/jobs/${job.id}`);
  await page.getByRole('button', { name: 'Home check' }).click();
  const dialog = page.getByRole('dialog', { name: 'Home check' });
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    dialog.getByRole('link', { name: 'As a file to fill in' }).click(),
  ]);
  const blank = await (await import('node:fs/promises')).readFile((await file.path())!, 'utf8');
  expect(blank).toContain('Hard Pedal home check: GF-0427');
  const back = (text: string) => ({ name: 'answers.txt', mimeType: 'text/plain', buffer: Buffer.from(text) });
  const read = dialog.getByLabel('Home check that came back');
  await read.setInputFiles(back(blank));
  await expect(dialog.getByRole('alert').first()).toContainText('Nothing is answered in this file');
  await read.setInputFiles(
    back(
      blank.replace('home-firm: ', 'home-firm: no').replace('said: ', 'said: It goes on down at the lights.'),
    ),
  );
  await expect(dialog.getByRole('combobox', { name: 'Firm pedal' })).toContainText('Otherwise');
  // Nobody answered the others: they stay as not tried.
  await expect(dialog.getByRole('combobox', { name: 'Height of the pedal' })).toContainText('Not tried');
  await dialog.getByRole('button', { name: 'Write it down' }).click();
  const written = page.getByRole('region', { name: 'Home check, by the file that came back' });
  await expect(written).toContainText('Firm pedal: otherwise');
  await expect(written).toContainText('It goes on down at the lights.');

  // It speaks for a master cylinder that loses pressure, beside what was measured.
  await page.goto(`${app.url}/runs/${run!.id}`);
  await page.getByRole('button', { name: /What it may be/ }).click();
  await expect(page.getByText(/At home: firm pedal/).first()).toBeVisible();

  // Taken back it counts no more.
  await page.goto(`${app.url}/jobs/${job.id}`);
  await written.getByRole('button', { name: /Take back/ }).click();
  await page.goto(`${app.url}/runs/${run!.id}`);
  await page.getByRole('button', { name: /What it may be/ }).click();
  await expect(page.getByText(/What it may be/i).first()).toBeVisible();
  await expect(page.getByText(/At home: firm pedal/)).toHaveCount(0);
});
