import { randomUUID } from 'node:crypto';
import { renameSync } from 'node:fs';
import Sqlite from 'better-sqlite3';
import path from 'node:path';
import { expect } from '@playwright/test';
import type { StoredJob } from '../src/core/records/views';
import { App, test } from './app';

/** Changes the database behind the application's back, which is stopped. */
function tamper(app: App, change: (db: Sqlite.Database) => unknown): void {
  const db = new Sqlite(path.join(app.data, 'hard-pedal.sqlite'));
  change(db);
  db.close();
}

test('a record that was altered is said to be, and nothing of it is printed; lost entries are said too', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  try {
    const { jobs } = await app.get<{ jobs: StoredJob[] }>('/jobs?q=GF-0418');
    const { id, runs } = jobs[0]!;
    await page.goto(`${app.url}/runs/${runs[0]!.id}/report`);
    const signed = await page.getByText(/seal [0-9a-f]{16}/).innerText();
    const seal = /seal ([0-9a-f]{16})/.exec(signed)![1]!;

    await page.goto(`${app.url}/shelf/records`);
    await page.getByLabel('Seal on the report').fill(seal);
    await page.getByRole('button', { name: 'Look for it' }).click();
    await expect(
      page.getByText(/Job GF-0418, signed by Ottoline Brack on .*as it was written\./),
    ).toBeVisible();
    await page.getByLabel('Seal on the report').fill('0123456789abcdef');
    await page.getByLabel('Seal on the report').press('Enter');
    await expect(page.getByText(/No signature here has this seal/)).toBeVisible();

    await app.kill();
    tamper(app, (db) => {
      const { seq, body } = db
        .prepare(`select seq, body from journal where chain = ? and body like '%"captured"%' limit 1`)
        .get(`job/${id}`) as { seq: number; body: string };
      db.prepare('update journal set body = ? where seq = ?').run(
        body.replace('"value_SI":', '"value_SI":1'),
        seq,
      );
      db.prepare('delete from journal where seq > (select max(seq) - 2 from journal)').run();
    });
    await app.up();

    await page.goto(app.url);
    await expect(page.getByText(/The last 2 entries that were written/)).toBeVisible();
    await page.goto(`${app.url}/jobs/${id}`);
    await expect(page.getByText(/altered at entry \d+\. Nothing is printed as tested/)).toBeVisible();
    await page.goto(`${app.url}/runs/${runs[0]!.id}/report`);
    await expect(page.getByText(/altered at entry \d+\. Nothing is printed as tested/)).toBeVisible();
    await expect(page.getByText(/seal [0-9a-f]{16}/)).toBeHidden();
    const pdf = await page.request.get(`${app.url}/api/v1/runs/${runs[0]!.id}/report.pdf`);
    expect(pdf.status()).toBe(409);
    await page.getByRole('link', { name: 'Verify all records' }).click();
    await page.getByRole('button', { name: /Verify all records/ }).click();
    await expect(page.getByText(/places are not as they were written/)).toBeVisible();
    await expect(page.getByText('Job GF-0418, entry', { exact: false }).first()).toBeVisible();
    await page.getByLabel('Seal on the report').fill(seal);
    await page.getByRole('button', { name: 'Look for it' }).click();
    await expect(page.getByText(/altered at entry \d+/)).toBeVisible();
  } finally {
    await app.end();
  }
});

test('a damaged row is left out and said; a data folder that is taken away is said, and nothing is written', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  try {
    const { jobs } = await app.get<{ jobs: StoredJob[] }>('/jobs?q=GF-0421');
    tamper(app, (db) => db.prepare(`update jobs set body = '{"from' where tag = 'GF-0421'`).run());
    await page.goto(`${app.url}/jobs`);
    await expect(page.getByText('Jobs', { exact: true }).first()).toBeVisible();
    await page.goto(app.url);
    await expect(page.getByText('left out of the lists: job GF-0421.')).toBeVisible();
    await page.goto(`${app.url}/jobs/${jobs[0]!.id}`);
    await expect(page.getByText(/damaged in the list and cannot be read/)).toBeVisible();

    renameSync(app.data, `${app.data}-away`);
    const answer = await page.request.post(`${app.url}/api/v1/jobs/${jobs[0]!.id}/entries`, {
      data: {
        id: randomUUID(),
        entry: { type: 'finding', finding: { kind: 'noise', point: null, words: 'Hisses', fault: null } },
      },
    });
    expect(answer.status()).toBe(500);
    expect(((await answer.json()) as { title: string }).title).toMatch(/removed or replaced/);
    await page.goto(app.url);
    await expect(page.getByRole('heading', { name: 'The records cannot be opened' })).toBeVisible();
    await expect(page.getByText(/removed or replaced while the application runs/)).toBeVisible();
    renameSync(`${app.data}-away`, app.data);
    await page.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByRole('heading', { name: 'Bench', exact: true })).toBeVisible();
  } finally {
    await app.end();
  }
});
