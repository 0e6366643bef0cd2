import type { StoredInstrument, StoredRun } from '../src/core/records/views';
import { violations } from './accessible';
import { App, expect, test } from './app';
import { pick } from './pick';

test('a shop without any data is led in order to its first test, with a unit to practise on from the first minute', async ({
  page,
}) => {
  const app = await App.start({ demo: false });
  try {
    await page.goto(app.url);
    const steps = page.getByRole('region', { name: 'Setting up this shop' });
    await expect(steps.getByRole('listitem')).toHaveCount(5);
    await expect(steps.getByRole('link', { name: 'Begin: Gauges' })).toBeVisible();
    await expect(steps.getByText('needs gauges and a profile')).toBeVisible();
    await expect(page.getByText(/every job has been tested/i)).toHaveCount(0);
    expect(await violations(page)).toEqual([]);

    // Practice needs none of it, and leaves nothing on the Shelf but its profile.
    await steps.getByRole('button', { name: 'Practise on the simulated bench' }).click();
    await expect(page).toHaveURL(/\/runs\//);
    await expect(page.getByText('Simulated bench reads')).toBeVisible();
    await expect(page.getByRole('heading', { level: 1, name: /Practice 1/ })).toBeVisible();
    expect(await app.get<StoredInstrument[]>('/instruments')).toEqual([]);
    const begun = await app.post<StoredRun>('/practice', {});
    expect(page.url()).toContain(begun.id);

    // Another kind is practised on from the same place, with what it is read by.
    await page.goto(app.url);
    await steps.getByRole('combobox', { name: 'What to practise on' }).click();
    await pick(page, { name: 'Dual pedal valve', exact: true });
    await steps.getByRole('button', { name: 'Practise on the simulated bench' }).click();
    await expect(page.getByRole('heading', { level: 1, name: /Practice 2/ })).toBeVisible();
    await expect(page.getByText('Simulated bench reads')).toBeVisible();
    for (const tag of ['A-81', 'A-82', 'C-84', 'C-85'])
      await expect(page.getByText(tag, { exact: true }).first()).toBeVisible();
    expect(await app.post('/live/hands', { hands: { treadle_m: 0.004 } })).toMatchObject({ ok: true });

    // The first of the steps leads to what it names, and is done once it is.
    await page.goto(app.url);
    await steps.getByRole('link', { name: 'Begin: Technicians' }).click();
    await page.getByLabel('Name').fill('Pell Tarn');
    await page.getByLabel('PIN').fill('471100');
    await page.getByRole('button', { name: /Add/ }).click();
    await expect(page.getByText('Pell Tarn').first()).toBeVisible();
    await page.goto(app.url);
    await expect(steps.getByRole('link', { name: 'Look at: Technicians' })).toBeVisible();
    await steps.getByRole('link', { name: /Letterhead/ }).click();
    await page.getByLabel('Name on the letterhead').fill('Brake room at the quay');
    await page.getByRole('button', { name: /Save/ }).click();
    await expect
      .poll(async () => (await app.get<{ body: { shopName: string } }>('/settings')).body.shopName)
      .toBe('Brake room at the quay');
    await page.goto(app.url);
    await expect(steps.getByText('3 of 5 done')).toBeVisible();
  } finally {
    await app.end();
  }
});
