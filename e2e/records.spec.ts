import { readFileSync, writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import type { StoredJob } from '../src/core/records/views';
import { violations } from './accessible';
import { App, expect, test, type Site } from './app';
import { pick } from './pick';

const jobOf = async (app: Site, tag: string) =>
  (await app.get<{ jobs: StoredJob[] }>(`/jobs?q=${tag}`)).jobs.find(({ body }) => body.tag === tag)!;

async function choose(page: Page, label: string, option: string) {
  await page.getByRole('combobox', { name: label }).click();
  await pick(page, { name: option, exact: true });
}

test('a failed unit: finding, photo, part changed, told what to test again, signed and corrected', async ({
  app,
  page,
}, info) => {
  const job = await jobOf(app, 'GF-0421');
  await page.goto(`${app.url}/jobs/${job.id}`);
  await expect(async () => {
    await page.keyboard.press('f');
    await expect(page.getByRole('dialog', { name: 'Finding' })).toBeVisible({ timeout: 1000 });
  }).toPass();
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('Finding: write a few words.')).toBeVisible();
  await choose(page, 'What was noticed', 'Feel');
  await choose(page, 'Fault it points to', 'slave cup bypass');
  await page.getByLabel('In words').fill('Pedal creeps under a steady foot');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('Pedal creeps under a steady foot')).toBeVisible();
  await expect(page.getByText(/Repair: Renew the slave cup/)).toBeVisible();

  await page.keyboard.press('i');
  const text = info.outputPath('not-a-photo.jpg');
  writeFileSync(text, 'words');
  await page.getByLabel('Photo', { exact: true }).setInputFiles(text);
  await page.getByRole('button', { name: 'Add the photo' }).click();
  await expect(page.getByText(/not a picture that can be read here/)).toBeVisible();
  const picture = info.outputPath('cup.png');
  await sharp({ create: { width: 300, height: 200, channels: 3, background: '#445566' } })
    .png()
    .toFile(picture);
  await page.getByLabel('Photo', { exact: true }).setInputFiles(picture);
  await choose(page, 'Where on the unit', 'End cap');
  await page.getByLabel('What it shows').fill('Lip of the cup');
  await page.getByRole('button', { name: 'Add the photo' }).click();
  await expect(page.getByRole('img', { name: 'Lip of the cup' }).first()).toBeVisible();

  // What it was said to be: nothing is decided by a key pressed by habit.
  await page.keyboard.press('o');
  const said = page.getByRole('dialog', { name: 'Said to be, found to be' });
  await expect(said).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await choose(page, 'Unit or part', 'Slave cup');
  await said.getByLabel('Said to be').fill('Renewed last month by another garage');
  await said.getByLabel('Found to be').fill('The first one, worn through at its lip');
  await said.getByRole('button', { name: 'Write it down' }).click();
  await expect(said.getByText('What comes of it: choose one.')).toBeVisible();
  await choose(page, 'What comes of it', 'Refused');
  await said.getByLabel('Decided by').fill('Pell Tarn');
  await choose(page, 'Photo that shows it', '1: Lip of the cup');
  await said.getByRole('button', { name: 'Write it down' }).click();
  const identity = page.getByRole('region', { name: 'Slave cup: not what it was said to be' });
  await expect(identity).toContainText('Refused by Pell Tarn');
  await expect(identity.getByRole('link', { name: 'Photo that shows it' })).toBeVisible();

  await page.keyboard.press('w');
  await expect(page.getByText(/flies apart when its clamp is undone/)).toBeVisible();
  await choose(page, 'Part or line', 'Slave cup');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByRole('status')).toContainText('Since the last test: Slave cup.');
  await expect(page.getByRole('status')).toContainText('Boost ratio');
  await expect(page.getByRole('button', { name: /Start the re-test/ })).toBeVisible();

  // Taken back by mistake, and undone.
  await page
    .getByRole('region', { name: /Slave cup: replaced/ })
    .getByRole('button', { name: 'Take back' })
    .click();
  await expect(page.getByRole('status')).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('status')).toBeVisible();

  await page.getByRole('button', { name: /^Sign/ }).click();
  await page.getByLabel('PIN').fill('9999');
  await page.getByRole('dialog').getByRole('button', { name: 'Sign' }).click();
  await expect(page.getByText(/not this technician’s PIN/).first()).toBeVisible();
  await page.getByLabel('PIN').fill('246810');
  await page.getByRole('dialog').getByRole('button', { name: 'Sign' }).click();
  await expect(page.getByRole('heading', { name: 'Signed by Ottoline Brack' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Finding/ })).toBeHidden();
  await expect(async () => {
    await page.keyboard.press('c');
    await expect(page.getByRole('dialog', { name: 'Correction' })).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.getByRole('textbox', { name: 'Correction' }).fill('The cup was batch 7.');
  await page.getByLabel('PIN').fill('246810');
  await page.getByRole('button', { name: 'Add the correction' }).click();
  await expect(page.getByText('The cup was batch 7.')).toBeVisible();
});

test('a re-test stands at the stale steps only, on the carried tape', async ({ app, page }) => {
  const job = await jobOf(app, 'GF-0412');
  const work = { part: 'switch', did: 'replaced', reason: '', provenance: 'new', serial: '' };
  const entry = { type: 'work', work };
  await page.request.post(`${app.url}/api/v1/jobs/${job.id}/entries`, {
    data: { id: crypto.randomUUID(), entry },
  });
  await page.goto(`${app.url}/jobs/${job.id}`);
  await page.getByRole('button', { name: /Start the re-test/ }).click();
  await page.waitForURL(/\/runs\//);
  const tape = page.getByRole('list', { name: 'Tape' });
  await expect(
    tape.getByText(/Stop-lamp switch: readings that this can have moved no longer count/),
  ).toBeVisible();
  await expect(tape.getByText('· stale').first()).toBeAttached();
  await expect(page.getByText(/Read the cautions/).first()).toBeVisible();
});

test('a job goes to another shop and reads the same; an altered file is refused', async ({
  app,
  page,
}, info) => {
  const other = await App.start({ demo: false });
  try {
    const job = await jobOf(app, 'GF-0418');
    await page.goto(`${app.url}/jobs/${job.id}`);
    const saving = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Job file for another shop' }).click();
    const file = info.outputPath('job.json');
    await (await saving).saveAs(file);
    const text = readFileSync(file, 'utf8');

    const altered = info.outputPath('altered.json');
    writeFileSync(altered, text.replace('Hissing', 'Kissing'));
    await page.goto(`${other.url}/jobs/import`);
    await page.getByLabel('Job file').setInputFiles(altered);
    await expect(
      page.getByText(/altered: entry 1 is not as it was written. Nothing was taken in/),
    ).toBeVisible();
    await page.getByLabel('Job file').setInputFiles(file);
    await page.waitForURL(`${other.url}/jobs/${job.id}`);
    await expect(page.getByText('Hissing under the floor')).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Signed in the file, by Ottoline Brack' })).toBeVisible();
    await expect(page.getByRole('img', { name: /Edge of the old diaphragm/ }).first()).toBeVisible();
    const again = await page.request.get(`${other.url}/api/v1/jobs/${job.id}/file`);
    expect(await again.text()).toBe(text);
    const large = await page.request.post(`${other.url}/api/v1/job-files`, { data: 'x'.repeat(101_000_000) });
    expect([large.status(), ((await large.json()) as { title: string }).title]).toEqual([
      413,
      'That is too large: 100 MB at the most. Nothing was taken in.',
    ]);
  } finally {
    await other.end();
  }
});

test('before and after names what moved; the report comes as PDF, CSV and pictures', async ({
  app,
  page,
}) => {
  const job = await jobOf(app, 'GF-0418');
  await page.goto(`${app.url}/jobs/${job.id}`);
  await page.getByRole('link', { name: 'Before and after' }).click();
  const came = page.getByRole('group', { name: 'What the repair came to' });
  await expect(came.getByRole('row', { name: /^Passage between the sides .*changed$/ })).toBeVisible();
  await expect(page.getByText('Nothing else changed beyond the noise of the readings.')).toBeVisible();
  const run = job.runs.at(-1)!.id;
  const file = async (path: string) => page.request.get(`${app.url}/api/v1/runs/${run}/${path}`);
  expect((await (await file('report.pdf')).body()).subarray(0, 5).toString()).toBe('%PDF-');
  expect((await (await file('report.pdf?paper=letter')).body()).toString('latin1')).toContain(
    '[0 0 612 792]',
  );
  expect((await sharp(await (await file('chart.png')).body()).metadata()).width).toBe(1280);
  expect(await (await file('chart.svg')).text()).not.toContain('var(');
  expect(await (await file('readings.csv')).text()).toMatch(/^\uFEFFTime,Step/);
});

test('search finds a word in a finding; a job is deleted, undone, archived', async ({ app, page }) => {
  await page.goto(`${app.url}/jobs`);
  await expect(async () => {
    await page.keyboard.press('/');
    await page.keyboard.type('hiss clamp');
    await expect(page.getByRole('row')).toHaveCount(2, { timeout: 2000 });
  }).toPass();
  // Opened while the search is still being typed: the list does not call back who has left it.
  await page.keyboard.type(' ');
  await page.getByRole('link', { name: 'GF-0418' }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Delete' })).toBeVisible();
  await page.getByRole('button', { name: 'Archive', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Take out of the archive' })).toBeVisible();
  await page.goto(`${app.url}/jobs?show=archived`);
  await page.getByRole('link', { name: 'GF-0418' }).click();
  await page.getByRole('button', { name: 'Take out of the archive' }).click();
  await expect(page.getByRole('button', { name: 'Archive', exact: true })).toBeVisible();
});

test('the shelf: a calibration with a table, a gauge taken off and put back, records verified', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/shelf`);
  await page.getByRole('link', { name: 'T-05' }).click();
  await expect(async () => {
    await page.getByLabel(/Correction table/).fill('0; 0,1\n10; 10,3\n5; 20');
    await page.getByLabel(/Uncertainty on the certificate/).fill('0,1');
    await page.getByRole('button', { name: 'Record the calibration' }).click();
    await expect(page.getByText(/row 3: the reference value must be above/)).toBeVisible({ timeout: 1500 });
  }).toPass();
  await page.getByLabel(/Correction table/).fill('0; 0,1\n10; 10,3\n20; 20,2');
  await page.getByLabel('Certificate', { exact: true }).fill('C-77');
  await page.getByRole('button', { name: 'Record the calibration' }).click();
  await expect(page.getByText(/certificate C-77 · correction table of 3 points/)).toBeVisible();
  await page.getByRole('button', { name: 'Take off the shelf' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  // The words of the first time go out slowly: only the button says that it happened again.
  await page.getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(page.getByRole('button', { name: 'Take off the shelf' })).toBeDisabled();
  await page.goto(`${app.url}/shelf/removed`);
  await page.getByRole('button', { name: /Put T-05 .*back/ }).click();
  await expect(page.getByText(/T-05 .*is on the shelf again/)).toBeVisible();
  await expect(page.getByText('Nothing. What is taken off')).toBeVisible();
  await page.goto(`${app.url}/shelf/records`);
  await page.getByRole('button', { name: /Verify all records/ }).click();
  await expect(page.getByText(/are as they were written/)).toBeVisible();
  const backup = await page.request.get(`${app.url}/api/v1/backup`);
  expect((await backup.body()).subarray(0, 15).toString()).toBe('SQLite format 3');
  await page.goto(`${app.url}/shelf/workings`);
  await page.getByLabel('Supply, inHg').fill('20');
  await expect(page.getByText('100.8 bar')).toBeVisible();
  await page.getByLabel('Supply, inHg').fill('20 apples');
  await expect(page.getByText(/apples/)).toBeVisible();
});

test('a date is typed in the reader’s own order, or pasted as it stands in a table', async ({
  app,
  browser,
}) => {
  for (const [locale, keys] of [
    ['en-GB', '03112027'],
    ['en-US', '11032027'],
    ['en-US', null],
  ] as const) {
    const context = await browser.newContext({ locale, permissions: ['clipboard-read', 'clipboard-write'] });
    const page = await context.newPage();
    await page.goto(`${app.url}/jobs/new`);
    const promised = page.getByRole('group', { name: 'Promised for' });
    await expect(promised).toHaveText(locale === 'en-GB' ? /DD\/MM\/YYYY/ : /MM\/DD\/YYYY/);
    await promised.getByRole('spinbutton').first().click();
    if (keys) await page.keyboard.type(keys);
    else {
      await page.evaluate(() => navigator.clipboard.writeText('2027-11-03'));
      await page.keyboard.press('Control+v');
    }
    await page.getByLabel('Job tag').fill(`DATE-${locale}-${keys}`);
    await page.getByRole('button', { name: /Take it in/ }).click();
    await expect(page.getByText('promised for 2027-11-03')).toBeVisible();
    await context.close();
  }
});

test('lists are narrowed by day, kind, verdict and technician, sorted by their heads, and keep their columns', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/jobs`);
  const rows = page.getByRole('grid', { name: 'Jobs' }).getByRole('row');
  await choose(page, 'Verdict', 'Weak supply');
  // Other journeys share this server: what else has a weak supply is theirs.
  await expect(rows.filter({ hasText: 'GF-0412' })).toHaveCount(0);
  await expect(rows.filter({ hasText: 'GF-0415' })).toHaveCount(1);
  await choose(page, 'Kind of unit', 'Rod-acting vacuum servo with tank');
  await expect(page.getByText('No job fits all of this.')).toBeVisible();
  await page.reload();
  await expect(page.getByText('No job fits all of this.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all again' }).click();
  await expect(rows.nth(3)).toBeVisible();
  await choose(page, 'Tested by', 'Ottoline Brack');
  await expect(page).toHaveURL(/technician=Ottoline/);
  await page.getByRole('button', { name: 'Show all again' }).click();
  await page.getByRole('columnheader', { name: 'Tag' }).click();
  await expect(page).toHaveURL(/sort=tag/);
  const from = page.getByRole('group', { name: 'From' });
  await from.getByRole('spinbutton').first().click();
  await page.keyboard.type('01012099');
  await expect(page.getByText('No job fits all of this.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all again' }).click();
  await expect(from).toHaveText(/YYYY/);

  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('checkbox', { name: 'Tested by' }).check();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('columnheader', { name: 'Tested by' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('columnheader', { name: 'Tested by' })).toBeVisible();
  expect(await violations(page)).toEqual([]);

  // By keyboard: a cell is come to with the arrows, Enter opens what it is of.
  await page.getByRole('gridcell').first().click();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/jobs\/[0-9a-f-]{36}$/);
});

test('what is asked of a list while it still looks is added to what was asked before', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/jobs`);
  await expect(page.getByRole('grid', { name: 'Jobs' })).toBeVisible();
  let answer = () => {};
  const held = new Promise<void>((resolve) => (answer = resolve));
  await page.route(/\/jobs\?/, async (route) => {
    await held;
    await route.continue();
  });
  await choose(page, 'Verdict', 'Weak supply');
  await choose(page, 'Tested by', 'Ottoline Brack');
  await page.getByRole('columnheader', { name: 'Tag' }).click();
  // Nothing was answered yet, and what was chosen stands there.
  await expect(page.getByRole('combobox', { name: 'Verdict' })).toHaveText('Weak supply');
  answer();
  await expect(page).toHaveURL(/sort=tag/);
  expect(page.url()).toContain('verdict=weak-supply');
  expect(page.url()).toContain('technician=Ottoline');
});

test('the shop’s own logo heads its report, and the customer’s page fits one sheet from the browser', async ({
  page,
}, info) => {
  const app = await App.start({ demo: true });
  try {
    await page.goto(`${app.url}/shelf/settings`);
    const text = info.outputPath('not-a-logo.png');
    writeFileSync(text, 'words');
    const logo = page.getByRole('group', { name: 'Logo' });
    await logo.getByLabel('Logo').setInputFiles(text);
    await expect(logo.getByText(/not a picture that can be read here/)).toBeVisible();
    const picture = info.outputPath('logo.png');
    await sharp({ create: { width: 300, height: 120, channels: 3, background: '#0e5a63' } })
      .png()
      .toFile(picture);
    await logo.getByLabel('Logo').setInputFiles(picture);
    await expect(logo.getByRole('img', { name: 'Logo' })).toBeVisible();
    await page.getByLabel('Name on the letterhead').fill('Brake room');
    await page.getByRole('button', { name: /Save the settings/ }).click();
    await expect(page.getByText(/Saved\. Runs already started/)).toBeVisible();

    const job = await jobOf(app, 'GF-0418');
    await page.goto(`${app.url}/runs/${job.runs.at(-1)!.id}/report`);
    const report = page.getByRole('article', { name: 'Report' });
    await expect(report.getByText('Brake room')).toBeVisible();
    await expect(report.getByText(/What failed before the repair/).first()).toBeVisible();
    const widths = await report
      .locator('img')
      .evaluateAll((images) => images.map((image) => (image as HTMLImageElement).naturalWidth));
    expect(widths.length).toBeGreaterThan(1);
    expect(Math.min(...widths)).toBeGreaterThan(0);
    // Letter less the browser's own margins of 1 cm, at 96 pixels to the inch.
    await page.setViewportSize({ width: 740, height: 980 });
    await page.emulateMedia({ media: 'print' });
    const { height } = (await report.locator('> div').first().boundingBox())!;
    expect(height).toBeLessThan(980);
  } finally {
    await app.end();
  }
});

test('who tests is chosen beside the button that starts the test', async ({ app, page }) => {
  const [{ id: technician }] = await app.get<[{ id: string }]>('/technicians');
  const by = { technician, pin: '246810' };
  await app.post('/technicians', { name: 'Pell Tarn', pin: '471100', by });
  const job = await jobOf(app, 'GF-0425');
  await page.goto(`${app.url}/jobs/${job.id}`);
  await expect(page.getByRole('combobox', { name: 'Tested by' })).toHaveText('Ottoline Brack');
  await choose(page, 'Tested by', 'Pell Tarn');
  await page.getByRole('button', { name: /Start the bench test/ }).click();
  await page.waitForURL(/\/runs\//);
  await page.goto(`${page.url()}/report`);
  await expect(page.getByText('Pell Tarn')).toBeVisible();
});

test('a long list is turned by key and by button, and a new order begins at its first page', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  try {
    const { body } = await jobOf(app, 'GF-0425');
    for (let i = 0; i < 50; i += 1) await app.post('/jobs', { ...body, tag: `LONG-${i}` });
    await page.goto(`${app.url}/jobs`);
    await expect(page.getByText('1–50 of 81')).toBeVisible();
    await page.keyboard.press(']');
    await expect(page.getByText('51–81 of 81')).toBeVisible();
    await expect(page.getByRole('link', { name: 'GF-0412' })).toBeVisible();
    await page.reload();
    await expect(page.getByText('51–81 of 81')).toBeVisible();
    await page.keyboard.press('[');
    await expect(page.getByText('1–50 of 81')).toBeVisible();
    await page.getByRole('button', { name: /next page/i }).click();
    await expect(page.getByText('51–81 of 81')).toBeVisible();
    await page.getByRole('columnheader', { name: 'Tag' }).click();
    await expect(page.getByText('1–50 of 81')).toBeVisible();
    await expect(page).toHaveURL(/sort=tag/);
  } finally {
    await app.end();
  }
});
