import type { StoredJob, StoredRun } from '../src/core/records/views';
import { App, expect, test } from './app';
import { newRun, Technician } from './technician';
import { pick } from './pick';

test('the foot-switch captures and starts waits, from any focus but another field, ignoring bounce', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'FOOT', { hold_s: 3, settle_s: 1 });
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  const tape = page.getByRole('list', { name: 'Tape' });
  await technician.until('switch.input');
  await expect(tape.getByText('Bench fluid: Yes, that fluid')).toBeVisible();
  await expect(tape.getByText('Stop-lamp switch at rest: Open')).toBeVisible();

  // A reading: what stands in the field is captured; a second press within 300 ms is bounce and takes nothing.
  await expect(page.locator('#reading')).toBeFocused();
  await page.keyboard.type('4.0');
  const { count } = await technician.next();
  await page.waitForTimeout(850);
  // With the focus on another choice it is that choice's key, not a capture.
  await page.getByRole('combobox', { name: 'Read on' }).focus();
  await page.keyboard.press('F8');
  await page.waitForTimeout(300);
  expect((await technician.next()).count).toBe(count);
  await page.getByRole('button', { name: /^Skip/ }).focus();
  await page.evaluate(() => {
    for (let i = 0; i < 3; i++)
      window.dispatchEvent(new KeyboardEvent('keydown', { key: 'F8', bubbles: true, cancelable: true }));
  });
  await expect(tape.getByText(/In 4\.0/)).toBeVisible();
  await page.waitForTimeout(400);
  expect((await technician.next()).count).toBe(count + 1);

  await technician.until('residual.wait');
  await page.waitForTimeout(850);
  await page.keyboard.press('F8');
  await expect(page.getByRole('button', { name: /End early/ })).toBeVisible();
  await page.reload();
  // The countdown survives a reload: it goes on from where it was.
  await expect(page.getByRole('timer')).toHaveText(/^0:0[0-5]$/);
});

test('a wait counts on every screen, and says when it is over', async ({ page }) => {
  const app = await App.start({ demo: true });
  try {
    const { run } = await newRun(app, 'WAIT', { hold_s: 20, settle_s: 1 });
    await page.goto(`${app.url}/runs/${run.id}`);
    const technician = await Technician.at(app, page, run.id);
    await technician.until('hold.wait');
    await page.keyboard.press('Escape');
    await page.goto(`${app.url}/jobs`);
    const waits = page.getByRole('status', { name: 'Waits' });
    await expect(waits).toContainText(/WAIT holding 0:\d\d/);
    await expect(waits).toContainText('over: read now');
    await page.goto(app.url);
    await expect(page.getByRole('main').getByText('Holding over: read now')).toBeVisible();
    await waits.getByRole('link').click();
    await expect(page.getByText('Read the output again.')).toBeVisible();
  } finally {
    await app.end();
  }
});

test('places, search and help by key; a page that is not there; the theme is kept', async ({ app, page }) => {
  await page.goto(app.url);
  await expect(page.getByRole('button', { name: /Keys/ })).toBeVisible();
  await expect(async () => {
    await page.keyboard.press('j');
    await expect(page.getByRole('heading', { name: 'Jobs', exact: true })).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.keyboard.press('/');
  await page.keyboard.type('fire tender');
  await expect(page.getByRole('link', { name: 'GF-0418' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'GF-0412' })).toBeHidden();
  await page.keyboard.type(' zebra');
  await expect(page.getByText('No job here has all of these words.')).toBeVisible();
  await page.getByRole('button', { name: 'Dark' }).focus();
  await page.keyboard.press('s');
  await expect(page.getByRole('heading', { name: 'Shelf', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Dark' }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Light' })).toBeVisible();
  await page.goto(`${app.url}/runs/nothing`);
  await expect(page.getByRole('heading', { name: 'Nothing here' })).toBeVisible();
});

test('a line of the tape opens its reading, to be read again or struck; a close call is settled by the gauge advised', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  try {
    const { run } = await newRun(app, 'CLOSE', { hold_s: 3, settle_s: 1 });
    await page.goto(`${app.url}/runs/${run.id}`);
    // A residual of 0.5 bar with a limit of 0.5 bar: nothing about the unit can be said with G-21.
    const technician = await Technician.at(app, page, run.id);
    await technician.until('residual.output');
    await page.keyboard.type('0.5');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Too close to call').first()).toBeVisible();
    await expect(page.getByText('Probability of keeping to the limit: 50 %')).toBeVisible();
    await expect(page.getByText(/What would settle it: Nothing on this shelf can settle it/)).toBeVisible();
    const tape = page.getByRole('list', { name: 'Tape' });
    const line = tape.getByRole('button', { name: /Out 0\.50/ });
    await line.click();
    await expect(line).toHaveAttribute('aria-pressed', 'true');
    await expect(page.getByText(/on G-21, \d\d:\d\d:\d\d, typed “0\.5”/)).toBeVisible();
    await page.getByRole('button', { name: 'Read it again' }).click();
    await expect(page.getByText('Read the residual output.')).toBeVisible();
    await page.getByRole('combobox', { name: 'Read on' }).click();
    await pick(page, { name: 'T-05' });
    await page.locator('#reading').fill('0.05');
    await page.locator('#reading').press('Enter');
    await expect(tape.getByText('T-05')).toBeVisible();
    const { events } = await app.get<StoredRun>(`/runs/${run.id}`);
    expect(events.filter((e) => e.type === 'captured' && e.item === 'residual.output')).toHaveLength(2);
  } finally {
    await app.end();
  }
});

test('a unit that came in with another fluid is told of where fluid is handled', async ({ app, page }) => {
  const { job } = await newRun(app, 'MIXED');
  const wrong = await app.post<{ id: string }>('/jobs', { ...job.body, tag: 'MIXED-2', fluid: 'dot5' });
  const run = await app.post<StoredRun>(`/jobs/${wrong.id}/runs`, {});
  await page.goto(`${app.url}/runs/${run.id}`);
  const warning = page.getByText(/came in with DOT 5 \(silicone\), and its profile names DOT 4 \(glycol\)/);
  await expect(warning).toBeVisible();
  const technician = await Technician.at(app, page, run.id);
  await technician.until('switch-rest');
  await expect(warning).toBeHidden();
});

test('a job is changed, and its sheet shows the tape of its visit', async ({ page }) => {
  const app = await App.start({ demo: true });
  try {
    const jobs = (await app.get<{ jobs: StoredJob[] }>('/jobs')).jobs;
    const job = jobs.find(({ body }) => body.tag === 'GF-0421')!;
    await page.goto(`${app.url}/jobs/${job.id}/edit`);
    await page.getByLabel('From').fill('Snow-clearing loader, the green one');
    await page.getByRole('button', { name: /Save/ }).click();
    await expect(page.getByText('From Snow-clearing loader, the green one')).toBeVisible();
    await page.getByRole('button', { name: 'Unroll the tape' }).click();
    const tape = page.getByRole('list', { name: 'Tape' });
    await expect(tape.getByText('Gauges vented')).toBeVisible();
    await expect(tape.getByText(/Holding: 6\d s/)).toBeVisible();
    await page.getByRole('button', { name: 'Roll up the tape' }).click();
    await expect(tape).toBeHidden();
  } finally {
    await app.end();
  }
});
