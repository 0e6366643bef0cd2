import { expect, test } from './app';
import { pickByKeys } from './pick';
import { newRun, Technician } from './technician';

const INHG = 3386.389;

test('from intake to a printed report by keyboard alone, on a weak supply', async ({ app, page }) => {
  const { keyboard } = page;
  await newRun(app, 'SETUP', { hold_s: 10 });
  await page.goto(app.url);
  await expect(page.getByRole('heading', { name: 'Bench', exact: true })).toBeVisible();
  await keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'Take in a unit' })).toBeVisible();
  await page.getByLabel('Job tag').focus();
  await keyboard.type('K-001');
  await keyboard.press('Tab');
  await keyboard.press('ArrowDown');
  await pickByKeys(page, { name: 'SETUP profile' });
  await keyboard.press('Tab');
  await keyboard.type('Quay tug 9');
  await keyboard.press('Tab');
  await keyboard.type('Pedal “like a stone”, says the skipper.');
  await keyboard.press('F8');
  await expect(page.getByRole('heading', { name: 'K-001 · SETUP profile' })).toBeVisible();
  await expect(page.getByText('Pedal “like a stone”, says the skipper.')).toBeVisible();
  await keyboard.press('t');
  await page.waitForURL(/\/runs\//);
  const runId = page.url().split('/').at(-1)!;
  const technician = await Technician.at(app, page, runId, { supply_Pa: 15 * INHG });

  // The first thing is a caution, and nothing can be read before it is acknowledged.
  await expect(page.getByText('Fluid under pressure.')).toBeVisible();
  await expect(page.locator('#reading')).toHaveCount(0);
  await technician.until('full.output');
  // Before the reading: what a healthy unit shows at the supply and input actually read.
  await expect(page.getByText(/Expect 85\.\d bar/)).toBeVisible();
  await expect(
    page.getByText(/With 15\.0 inHg of vacuum a healthy unit runs out at 22\.4 bar in/),
  ).toBeVisible();
  await technician.doNext();
  const result = page.getByText('Output at the test input');
  await expect(result).toBeVisible();
  await expect(page.getByText(/inside the limit/)).toBeVisible();

  await technician.until(null);
  await expect(page.getByRole('heading', { name: 'A healthy unit on a weak supply' })).toBeVisible();
  await keyboard.press('Tab');
  await page.getByRole('link', { name: 'Open the report' }).focus();
  await keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Bench test report' })).toBeVisible();
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByText(/What falls short is the supply: it reads 15\.0/).first()).toBeVisible();
  await expect(report.getByText(/24\.\d bar in is above the runout of 22\.\d bar/)).toBeVisible();
  await expect(report.getByText(/do not say that a vehicle is safe to drive/).first()).toBeVisible();
  await expect(report.getByText(/lean on a gauge past its calibration date/)).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('banner')).toBeHidden();
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(report).toBeVisible();
});

test('keys are listed on ?, an observation is answered, a reading struck, repeated and skipped with a reason', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'K-002');
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  await technician.until('bypass.1.input');
  const { keyboard } = page;
  await keyboard.press('?');
  const list = page.getByRole('dialog', { name: 'Keys that work here' });
  await expect(list.getByText('Take back the last thing done (kept, struck out)')).toBeVisible();
  await keyboard.press('Escape');
  await expect(list).toBeHidden();

  await page.locator('#reading').focus();
  await keyboard.type('20,0');
  // The foot-switch counts once the prompt has stood.
  await page.waitForTimeout(850);
  await keyboard.press('F8');
  const tape = page.getByRole('list', { name: 'Tape' });
  await expect(tape.getByText(/In 20\.0/)).toBeVisible();
  await keyboard.press('F9');
  await expect(tape.getByText(/struck/)).toBeVisible();
  await page.locator('#reading').focus();
  await keyboard.type('20.2');
  await keyboard.press('Enter');
  await expect(tape.getByText(/In 20\.2/)).toBeVisible();
  await keyboard.press('F2');
  await expect(page.getByText('Set the input and read it.')).toBeVisible();
  await keyboard.type('20.4');
  await keyboard.press('Enter');
  await expect(tape.getByText(/In 20\.4/)).toBeVisible();
  await expect(page.getByText('Read the output.')).toBeVisible();

  await keyboard.press('F4');
  const skip = page.getByRole('dialog');
  await skip.getByRole('button', { name: 'Skip the whole step' }).click();
  await expect(skip.getByText('Reason: say in a few words')).toBeVisible();
  await skip.getByLabel('Reason').fill('Output port stripped');
  await skip.getByRole('button', { name: 'Skip the whole step' }).click();
  await expect(tape.getByText('Output port stripped')).toBeVisible();
  await keyboard.press('Escape');
  await expect(page.getByText('Bench test, not finished')).toBeVisible();
});

test('the make-safe gate opens on a reading of zero, never on anything else', async ({ app, page }) => {
  const { run } = await newRun(app, 'K-003', { hold_s: 3 });
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  await technician.until('safe.input');
  await expect(page.getByRole('button', { name: 'Skip' })).toBeDisabled();
  await page.locator('#reading').focus();
  await page.keyboard.type('4');
  await page.keyboard.press('Enter');
  await expect(page.getByText('not at zero')).toBeVisible();
  await expect(page.getByText(/Fluid in: read G-12, which no cock can shut off/)).toBeVisible();
  await technician.until(null);
  await expect(page.getByText('This run is finished.')).toBeVisible();
});

test('what is asked is heard in one polite place as it changes, and describes the field', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'HEARD-1');
  await page.goto(`${app.url}/runs/${run.id}`);
  const asked = page.getByRole('group', { name: 'What is asked' });
  await expect(asked).toHaveText('Read the cautions above.');
  await expect(asked).toHaveAttribute('aria-live', 'polite');
  const place = await asked.elementHandle();
  const technician = await Technician.at(app, page, run.id);
  await technician.until('bypass.1.input');
  await expect(asked).toContainText('Set the input and read it.');
  expect(await place!.evaluate((element) => element.isConnected)).toBe(true);
  await expect(page.locator('#reading')).toHaveAccessibleDescription(/Set the input and read it.*Aim for/);
});
