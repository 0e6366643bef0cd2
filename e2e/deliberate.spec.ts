import { answerKeys } from '../src/ui/run/answer-keys';
import type { StoredRun } from '../src/core/records/views';
import { expect, test } from './app';
import { newRun, Technician } from './technician';

/** A prompt has stood long enough for keys to count, ms. */
const STOOD_MS = 850;

test('a key pressed by habit writes nothing: not on a caution, a look, a source or a wait', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'HABIT', { hold_s: 20, settle_s: 20 });
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  const { keyboard } = page;
  const count = async () => (await technician.next()).count;
  /** Presses Enter twice and the foot-switch once, by habit, and finds that nothing was recorded. */
  const byHabit = async () => {
    const before = await count();
    await page.waitForTimeout(STOOD_MS);
    for (const key of ['Enter', 'Enter', 'F8', '1']) await keyboard.press(key);
    await page.waitForTimeout(300);
    expect(await count()).toBe(before);
  };
  await expect(page.getByText('Read the cautions above.')).toBeVisible();
  await byHabit();
  await technician.doNext();
  await expect(page.getByText(/the fluid this profile names\?/)).toBeVisible();
  await byHabit();

  // Enter acts on what has the focus, and on nothing else.
  await page.getByRole('button', { name: /^Another fluid/ }).focus();
  await page.waitForTimeout(STOOD_MS);
  await keyboard.press('Enter');
  await expect(page.getByText(/^Stopped: bench fluid/)).toBeVisible();
  await expect(page.getByText(/Drain and flush the bench/)).toBeVisible();
  await byHabit();
  await expect(page.getByRole('button', { name: /Go on for a reason/ })).toHaveCount(0);

  // F9 takes back the last thing done: here an answer.
  await keyboard.press('F9');
  await expect(page.getByText(/the fluid this profile names\?/)).toBeVisible();
  await expect(page.getByRole('list', { name: 'Tape' }).getByText(/no longer counts/)).toBeVisible();
  await technician.until('hold.settle');
  await expect(page.getByRole('timer')).toBeVisible();
  await byHabit();
  await keyboard.press('e');
  const early = page.getByRole('dialog', { name: 'End the wait early?' });
  await expect(early.getByText(/the wider the doubt/)).toBeVisible();
  // The focus is on going on waiting: Enter by habit ends nothing.
  const waiting = await count();
  await keyboard.press('Enter');
  await expect(early).toBeHidden();
  expect(await count()).toBe(waiting);
  await keyboard.press('e');
  await early.getByRole('button', { name: 'End it early' }).click();
  await expect(page.getByText('Read the output: the hold starts here.')).toBeVisible();
});

test('a weeping unit goes no higher: mended and looked at again it does, or the test ends there and is made safe', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'WEEPS');
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  const { keyboard } = page;
  await technician.until('seep-first');
  await page.waitForTimeout(STOOD_MS);
  await keyboard.press('w');
  await expect(page.getByText(/The pressure does not go up on a unit that weeps/)).toBeVisible();
  const refused = await app.post<{ title: string }>(`/runs/${run.id}/events`, {
    expectedVersion: (await technician.next()).count,
    events: [
      {
        id: crypto.randomUUID(),
        at: new Date().toISOString(),
        type: 'captured',
        item: 'bypass.2.input',
        value_SI: 5e6,
        typed: '50',
        by: 'typed',
        instrument: 'G-12',
        confirmedUnlikely: true,
      },
    ],
  });
  expect(refused.title).toMatch(/The test is stopped/);
  await page.waitForTimeout(STOOD_MS);
  await keyboard.press('m');
  await expect(page.getByText(/the whole unit dry\?/)).toBeVisible();
  await page.waitForTimeout(STOOD_MS);
  await keyboard.press('w');
  await expect(page.getByText(/^Stopped: seep look/)).toBeVisible();
  // What is shown is drawn a moment before its keys work.
  await page.waitForTimeout(STOOD_MS);
  await keyboard.press('e');
  const dialog = page.getByRole('dialog', { name: 'End the test here' });
  await dialog.getByLabel('Reason').fill('End cap weeps, no seal in stock');
  await keyboard.press('Enter');
  await technician.until('safe.input');
  await expect(page.getByText(/Fluid in: read G-12, which no cock can shut off/)).toBeVisible();
  await technician.until(null);
  await page.getByRole('link', { name: 'Open the report' }).click();
  await expect(page.getByText(/Test ended: End cap weeps, no seal in stock/).first()).toBeVisible();
});

test('a typed bench test takes at most 160 keys, and none of them is a short way at a gate', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'KEYS', { settle_s: 1, hold_s: 4 });
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  let keys = 0;
  /** Types as few keys as a technician would: no unit, no digit that the gauge does not show. */
  const type = async (text: string) => {
    await page.keyboard.type(text);
    keys += text.length;
  };
  const press = async (key: string) => {
    await page.keyboard.press(key);
    keys += key.split('+').length;
  };
  for (;;) {
    const { action, count } = await technician.next();
    if (action.kind === 'done') break;
    await technician.settled();
    const stood = () => page.waitForTimeout(STOOD_MS);
    if (action.kind === 'acknowledge') await stood().then(() => press('u'));
    else if (action.kind === 'source') await stood().then(() => press('v'));
    else if (action.kind === 'finish') {
      await expect(page.getByRole('button', { name: /^Close the run/ })).toBeEnabled();
      await stood().then(() => press('c'));
    } else if (action.kind === 'item' && action.item.kind === 'observation') {
      await stood();
      const all = await page.getByRole('button', { name: /^All \d+ dry/ }).count();
      await press(all > 0 ? 'a' : answerKeys(action.item.answers.map(({ label }) => label))[0]!);
    } else if (action.kind === 'item' && action.item.kind === 'reading') {
      const { item } = action;
      // Lines ask for the same in the same words: what tells them apart is the aim.
      if (item.measures === 'input' && item.target_Pa)
        await expect(page.getByText(`Aim for ${(item.target_Pa / 1e5).toFixed(1)} bar`)).toBeVisible();
      await expect(page.locator('#reading')).toBeFocused();
      const { items } = action.step;
      const line = items[items.indexOf(item) + 1];
      if (item.gate) await expect(page.getByText('F6', { exact: true })).toHaveCount(0);
      if (item.measures === 'zero' && !item.gate) await stood().then(() => press('F6'));
      else if (item.measures === 'input' && line?.kind === 'reading' && line.inputFrom === item.id) {
        await type(technician.short(line.id, line.quantity));
        await press('Shift+Enter');
      } else if (item.measures === 'input' && item.target_Pa) await stood().then(() => press('F6'));
      else {
        await type(technician.short(item.id, item.quantity));
        await press('Enter');
      }
    } else if (action.kind === 'item' && action.item.kind === 'wait' && action.item.starts === 'key') {
      if ((await page.getByRole('button', { name: /^Start/ }).count()) > 0)
        await stood().then(() => press('s'));
    }
    await expect
      .poll(async () => (await technician.next()).count, { intervals: [50] })
      .toBeGreaterThan(count);
  }
  expect(keys).toBeLessThanOrEqual(160);
  const { events } = await app.get<StoredRun>(`/runs/${run.id}`);
  const said = events.flatMap((event) =>
    event.type === 'captured' && event.by !== 'typed' ? [event.item] : [],
  );
  expect(said.length).toBeGreaterThan(5);
  expect(said.filter((item) => item.startsWith('safe.'))).toEqual([]);
});
