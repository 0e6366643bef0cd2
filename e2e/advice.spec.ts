import { FAMILIES } from '../src/core/families/registry';
import { violations } from './accessible';
import { expect, test } from './app';
import { advised, quickVan, readSoFar, replacePart, runOn, Technician } from './technician';

const VAN = 'Tollan Mail Van 3';

test('led by the advice: the test that tells the most is taken by keyboard, and the cause stands out', async ({
  app,
  page,
}) => {
  const { run, truth } = await readSoFar(app, VAN, 'ADVICE-1', ['torn-diaphragm', 0.6], 'with.1.input');
  const pane = await advised(app, page, run);
  await expect(pane.getByRole('status')).toContainText('Not decided yet.');
  const technician = await Technician.at(app, page, run, truth);
  const top = pane.getByRole('listitem').first();
  const at = async () => {
    const { action } = await technician.next();
    return 'step' in action ? action.step.id : null;
  };
  for (let taken = 0; taken < 3; taken += 1) {
    const atHand = pane.getByText(/: at hand$|behind what is at hand$/);
    if (!(await atHand.isVisible())) {
      // The one button of the pane with minutes on it: the test that tells the most.
      await pane
        .getByRole('button', { name: /\d (s|min)/ })
        .first()
        .focus();
      await page.keyboard.press('Enter');
      await expect(atHand).toBeVisible();
    }
    await technician.settled();
    await page
      .locator('#reading')
      .focus({ timeout: 1000 })
      .catch(() => undefined);
    const begun = await at();
    while (begun !== null && (await at()) === begun) await technician.doNext();
    await expect(pane.getByRole('progressbar')).toBeHidden();
    if ((await top.innerText()).startsWith('Torn diaphragm')) break;
  }
  await expect(top).toContainText('Torn diaphragm');
  await expect(top).toContainText(/For/);
  // A reading that speaks for a cause or against it leads to its line on the tape.
  await pane
    .getByRole('list', { name: 'Causes' })
    .getByRole('button', { name: /^Two forces, with assist/ })
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Read it again' })).toBeVisible();
  // One key puts it away again.
  await page.keyboard.press('#');
  await expect(pane).toBeHidden();
});

test('two causes that no test here tells apart are said so, and what would tell them', async ({
  app,
  page,
}) => {
  const { run } = await readSoFar(app, VAN, 'ADVICE-2', ['torn-diaphragm', 0.6], 'safe.pedal');
  const pane = await advised(app, page, run);
  await expect(pane.getByRole('status')).toContainText(
    'These cannot be told apart by the tests that can be done here: torn diaphragm, control-valve vacuum seat leak',
  );
  await expect(pane.getByRole('status')).toContainText('A part opened would tell');
  for (const scheme of ['light', 'dark'] as const) {
    // Else colours go over into each other for a moment, and on a busy machine that is what is looked at.
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    await expect.poll(() => violations(page)).toEqual([]);
  }
});

test('two readings that contradict each other are both kept, and the one to repeat is named', async ({
  app,
  page,
}) => {
  // Somebody writes 9 bar where the gauge showed some 98: the pressure at the heavier force.
  const { run } = await readSoFar(app, VAN, 'ADVICE-3', ['timing', 0.05], 'airtight.input', (event) =>
    event.type === 'captured' && event.item === 'with.2.pressure'
      ? { ...event, value_SI: event.value_SI / 10, confirmedUnlikely: true }
      : event,
  );
  const pane = await advised(app, page, run);
  await expect(pane.getByText(/“Two forces, with assist”.* do(es)? not go/)).toBeVisible();
  await pane.getByRole('button', { name: 'Repeat it' }).first().click();
  await expect(page.getByRole('heading', { name: /^Two forces/ })).toBeVisible();
});

test('what nothing known explains is said so', async ({ app, page }) => {
  // Every pressure twice what it was: no fault of the library, and no two that are met together, do that.
  const { run } = await readSoFar(app, VAN, 'ADVICE-4', ['timing', 0.05], 'airtight.input', (event) =>
    event.type === 'captured' && event.item.endsWith('.pressure')
      ? { ...event, value_SI: event.value_SI * 2, confirmedUnlikely: true }
      : event,
  );
  const pane = await advised(app, page, run);
  await expect(pane.getByRole('status')).toContainText('None of the known faults explains this');
  // The reading to take again is named, by name.
  await expect(pane.getByText(/“.*” (clashes most|.*do(es)? not go)/).first()).toBeVisible();
});

test('by one key the tests follow the advice, and by the same the usual order again', async ({
  app,
  page,
}) => {
  const { run, truth } = await readSoFar(app, VAN, 'ADVICE-6', ['torn-diaphragm', 0.6], 'with.1.input');
  await page.goto(`${app.url}/runs/${run}`);
  const technician = await Technician.at(app, page, run, truth);
  const usual = await technician.next();
  const pane = page.getByRole('region', { name: 'What it may be' });
  await expect(async () => {
    if (!(await pane.isVisible())) await page.keyboard.press('&');
    await expect(pane).toBeVisible({ timeout: 1000 });
  }).toPass();
  await expect(pane.getByText('In the order of what tells the most')).toBeVisible();
  // Nothing of the next test was done yet: the one that tells the most is at hand now, by itself.
  await expect(pane.getByText(/: at hand$|behind what is at hand$/)).toBeVisible();
  await page.keyboard.press('&');
  await expect(pane.getByText('In the order of what tells the most')).toBeHidden();
  await expect(pane).toBeVisible();
  expect('step' in usual.action).toBe(true);
});

test('a hard pedal, led by the advice: the hose is found, renewed, and the repair proved by testing again', async ({
  app,
  page,
}) => {
  const { job, run } = await runOn(app, 'ADVICE-7', VAN, quickVan, 'The pedal is hard.');
  const family = FAMILIES['vacuum-vehicle'];
  const { values } = family.healthy(run.context.profile);
  const blocked = family.faults.find(({ id }) => id === 'hose-blocked')!;
  await page.goto(`${app.url}/runs/${run.id}`);
  const first = await Technician.at(app, page, run.id, { parameters: blocked.apply(values, 0.9) });
  const pane = page.getByRole('region', { name: 'What it may be' });
  await expect(async () => {
    if (!(await pane.isVisible())) await page.keyboard.press('&');
    await expect(pane).toBeVisible({ timeout: 1000 });
  }).toPass();
  const standing = pane.getByRole('status');
  const stepAt = async () => {
    const { action } = await first.next();
    return 'step' in action ? action.step.id : null;
  };
  for (let taken = 0; taken < 15; taken += 1) {
    // Between two tests the advice is waited for: it brings the one that tells the most by itself.
    await expect(standing).toBeVisible();
    // Worked out is not brought yet: the step is at hand once the run has heard of it, and nothing more comes of it.
    await expect(async () => {
      const { count } = await first.next();
      await page.waitForTimeout(700);
      await expect(pane.getByRole('progressbar')).toBeHidden({ timeout: 1000 });
      expect((await first.next()).count).toBe(count);
    }).toPass();
    // Nothing tells more: the likeliest is mended first, and the test behind it has the last word.
    if (/^(One repair covers it|These cannot be told apart)/.test(await standing.innerText())) break;
    await first.settled();
    const begun = await stepAt();
    while (begun !== null && (await stepAt()) === begun) await first.doNext();
  }
  await expect(standing).toContainText(/vacuum hose blocked or narrowed/i);
  await expect(pane.getByRole('listitem').first()).toContainText(
    /^Vacuum hose blocked or narrowed, (as good as sure|probable)/,
  );
  await page.keyboard.press('&');
  await page.keyboard.press('#');
  await expect(pane).toBeHidden();

  const optional = run.context.procedure.steps.flatMap(({ id, mandatory }) => (mandatory ? [] : [id]));
  await first.until(null, { left: optional, why: 'The hose is found' });
  await page.goto(`${app.url}/jobs/${job.id}`);
  await replacePart(page, 'Hose', 'Swollen shut inside.');
  await expect(page.getByRole('button', { name: /Start the re-test/ })).toBeVisible();
  await page.keyboard.press('t');
  await page.waitForURL(/\/runs\//);
  const second = await Technician.at(app, page, page.url().split('/').at(-1)!, { parameters: values });
  const again = ['rest', 'source', 'recovery'];
  await second.until(null, { left: optional.filter((id) => !again.includes(id)), why: 'Not the hose' });
  await page.keyboard.press('#');
  const came = pane.getByRole('group', { name: 'What the repair came to' });
  await expect(came).toContainText(/before the repair, (under 1|1|2) % behind it/);
  await expect(came).toContainText(/Hose: .* then, .* now, changed/);
});
