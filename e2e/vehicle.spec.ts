import { FAMILIES } from '../src/core/families/registry';
import type { VacuumVehicleProfile } from '../src/core/families/vacuum-vehicle';
import type { Stored, StoredProfile, StoredRun } from '../src/core/records/views';
import { expect, test } from './app';
import { quickVan, replacePart, Technician } from './technician';
import { pick, pickByKeys } from './pick';

const family = FAMILIES['vacuum-vehicle'];
/** Tests that nobody does once the first of them has shown the fault. */
const LEFT = [
  'decay',
  'capped',
  'start',
  'with',
  'without',
  'airtight',
  'apply',
  'reserve',
  'standing',
  'gap',
  'sink',
  'sweep',
  'axles',
  'lamps',
  'parking',
];

test('a vehicle from complaint to verified repair by keyboard: a blocked hose that no gauge at rest shows', async ({
  app,
  page,
}) => {
  page.setDefaultTimeout(20_000);
  const { keyboard } = page;
  const profiles = await app.get<StoredProfile[]>('/profiles');
  const van = profiles.find(({ body }) => body.name === 'Tollan Mail Van 3')!;
  const body = van.body as unknown as VacuumVehicleProfile;
  const own = { ...body, ...quickVan(body), name: 'VAN profile' };
  await app.post<Stored<unknown>>('/profiles', own);

  await page.goto(`${app.url}/jobs/new`);
  await page.getByLabel('Job tag').focus();
  await keyboard.type('VAN-1');
  await keyboard.press('Tab');
  await keyboard.press('ArrowDown');
  await pickByKeys(page, { name: 'VAN profile' });
  await keyboard.press('Tab');
  await keyboard.type('Mail van 9');
  await keyboard.press('Tab');
  await keyboard.type('Pedal feels harder than it used to.');
  await keyboard.press('F8');
  await expect(page.getByRole('heading', { name: 'VAN-1 · VAN profile' })).toBeVisible();
  await keyboard.press('t');
  await page.waitForURL(/\/runs\//);

  const blocked = family.faults.find(({ id }) => id === 'hose-blocked')!;
  const { values } = family.healthy(own);
  const first = await Technician.at(app, page, page.url().split('/').at(-1)!, {
    parameters: blocked.apply(values, 0.9),
  });
  await expect(page.getByText('Running engine.')).toBeVisible();
  await first.until('rest.supply');
  // Before anything of the supply is read: what a healthy engine makes at this place.
  await expect(page.getByText(/Expect 19\.\d inHg/)).toBeVisible();
  await first.until('recovery.time');
  await expect(page.getByText('A blocked hose passes every gauge that stands still.')).toBeVisible();
  await first.until(null, { left: LEFT, why: 'Recovery shows it' });
  await expect(page.getByRole('heading', { name: 'The vacuum supply fails' })).toBeVisible();

  await page.goto(`${app.url}/jobs`);
  await page.getByRole('link', { name: /VAN-1/ }).first().click();
  await expect(
    page.getByText('Recovery of the vacuum after a release', { exact: false }).first(),
  ).toBeVisible();
  await replacePart(page, 'Hose', 'Swollen shut inside.');
  await expect(page.getByText(/Hose or tank of the vacuum: replaced/)).toBeVisible();
  await expect(page.getByRole('button', { name: /Start the re-test/ })).toBeVisible();
  await keyboard.press('t');
  await page.waitForURL(/\/runs\//);
  const second = await Technician.at(app, page, page.url().split('/').at(-1)!, { parameters: values });
  await second.until(null, { left: LEFT, why: 'As before the repair' });
  const { id, runs } = (await app.get<{ jobs: { id: string; runs: StoredRun[] }[] }>('/jobs?q=VAN-1'))
    .jobs[0]!;
  await page.goto(`${app.url}/runs/${runs.at(-1)!.id}/report`);
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByRole('heading', { name: 'Brake test report' })).toBeVisible();
  await expect(report.getByRole('row', { name: /^Recovery of the vacuum/ })).toContainText('Meets');
  await expect(report.getByText(/They do not say that a vehicle is safe to drive/).first()).toBeVisible();
  // What failed of the vehicle's own supply is told to the customer, with what it is now.
  await expect(report.getByText(/Recovery of the vacuum after a release:/)).toBeVisible();
  await expect(report.getByText(/ then, now .*: meets\./)).toBeVisible();

  await page.goto(`${app.url}/jobs/${id}/compare`);
  const came = page.getByRole('group', { name: 'What the repair came to' });
  await expect(came).toContainText(/before the repair, under 1 % behind it/);
  await expect(came).toContainText('It is gone.');
  await expect(came.getByRole('row', { name: /changed$/ }).first()).toBeVisible();
});

test('a vehicle is put together from parts of the Shelf and taken in; a part not known is said so', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/jobs/new`);
  await page.getByRole('link', { name: 'A vehicle from its parts' }).click();
  // Without a name it is refused with a sentence, and what was chosen stays.
  await page.getByLabel('What feeds it').click();
  await pick(page, { name: /Esk & Moor engine pump/ });
  await page.keyboard.press('F8');
  await expect(page.getByText('Vehicle: a name is needed.')).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'What feeds it' })).toHaveText(/Esk & Moor engine pump/);
  await page.getByLabel('Vehicle').fill('PARTS van');
  await page.getByLabel('Booster or unit').click();
  await pick(page, { name: /Varnholt Tandem 8/ });
  await page.keyboard.press('F8');
  await expect(page.getByRole('heading', { name: 'Take in a unit or a vehicle' })).toBeVisible();
  await expect(page.getByText('PARTS van · Vehicle with vacuum booster')).toBeVisible();
  const made = (await app.get<StoredProfile[]>('/profiles')).find(({ body }) => body.name === 'PARTS van')!;
  expect(made.body).toMatchObject({
    known: { source: true, unit: true, load: false },
    source: { makes: 'engine-pump' },
    unit: { chambers: 'tandem' },
  });
});
