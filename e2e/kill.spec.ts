import type { StoredRun } from '../src/core/records/views';
import { App, expect, test } from './app';
import { newRun, Technician } from './technician';

test('kill −9 of the server at every step: nothing acknowledged is lost, and the run stands where it stood', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  try {
    const { run } = await newRun(app, 'KILL', { hold_s: 3, settle_s: 1 });
    const where = `${app.url}/runs/${run.id}`;
    await page.goto(where);
    const technician = await Technician.at(app, page, run.id);
    const struckAt = new Set<string>();
    for (;;) {
      const step = await technician.doNext();
      if (step === 'done') break;
      if (struckAt.has(step)) continue;
      struckAt.add(step);
      const before = (await app.get<StoredRun>(`/runs/${run.id}`)).events;
      await app.kill();
      await app.up();
      // Reload on some steps, leave and come back with the back button on the others.
      if (struckAt.size % 2 === 0) await page.reload();
      else {
        await page.goto(`${app.url}/jobs`);
        await page.goBack();
      }
      const { events } = await app.get<StoredRun>(`/runs/${run.id}`);
      // A wait that ran out meanwhile may have been closed by the screen: nothing else may differ.
      expect(events.slice(0, before.length)).toEqual(before);
      expect(events.slice(before.length).filter(({ type }) => type !== 'wait-ended')).toEqual([]);
      await technician.settled();
    }
    const { context } = await app.get<StoredRun>(`/runs/${run.id}`);
    expect([...struckAt].sort()).toEqual([...context.procedure.steps.map(({ id }) => id), 'finish'].sort());
  } finally {
    await app.end();
  }
});

test('while the server is down an entry is kept and said not to be recorded; sent again it is recorded once', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  try {
    const { run } = await newRun(app, 'DOWN');
    await page.goto(`${app.url}/runs/${run.id}`);
    const technician = await Technician.at(app, page, run.id);
    await technician.until('bypass.1.input');
    const { count } = await technician.next();
    await app.kill();
    await page.locator('#reading').fill('20.2 bar');
    await page.keyboard.press('Enter');
    await expect(page.getByText('The server does not answer, so this is not recorded yet.')).toBeVisible();
    await expect(page.locator('#reading')).toHaveValue('20.2 bar');
    await app.up();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('list', { name: 'Tape' }).getByText(/In 20\.2/)).toBeVisible();
    expect((await technician.next()).count).toBe(count + 1);
  } finally {
    await app.end();
  }
});
