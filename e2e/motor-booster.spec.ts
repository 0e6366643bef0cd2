import { FAMILIES } from '../src/core/families/registry';
import { expect, test } from './app';
import { runOn, Technician } from './technician';

const family = FAMILIES.electromechanical;

test('a booster with a motor on a poor feed, by keyboard: its fuse first, volts under load, tracks at rest, the foot alone, report', async ({
  app,
  page,
}) => {
  const { run } = await runOn(app, 'MOTOR', 'Tollan MB-2 on the bench', {});
  const poor = family.faults.find(({ id }) => id === 'feed-poor')!;
  const bench = await Technician.at(app, page, run.id, {
    parameters: poor.apply(family.healthy(run.context.profile).values, 0.8),
  });
  await page.goto(`${app.url}/runs/${run.id}`);
  await expect(page.getByText(/A brake that wakes as a door is opened/)).toBeVisible();
  // Nothing is connected before the fuse is out: Enter, pressed by habit, answers nothing.
  await bench.until('fuse-out');
  const before = (await bench.next()).count;
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/fuse of the motor’s feed out and kept by you/)).toBeVisible();
  expect((await bench.next()).count).toBe(before);
  const cautionsOf = async (step: string) => {
    for (;;) {
      const { action } = await bench.next();
      if (action.kind === 'acknowledge' && action.step.id === step) return;
      await bench.doNext();
    }
  };
  await cautionsOf('hold');
  await expect(page.getByText(/held at its full force overheats/)).toBeVisible();
  await cautionsOf('tracks');
  await expect(page.getByText(/A pierced lead corrodes/)).toBeVisible();
  await bench.until('done');
  await page.goto(`${app.url}/runs/${run.id}/report`);
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByText('The battery with its feed fails')).toBeVisible();
  await expect(report.getByRole('row', { name: /^Lost in the feed under load/ })).toContainText('Fails');
  await expect(report.getByRole('row', { name: /^Lost in the earth under load/ })).toContainText('Meets');
  // The booster, asked at the volts that it was left, is cleared: runout early, as it must be there.
  await expect(report.getByRole('row', { name: /^Runout/ })).toContainText('Meets');
  await expect(report.getByText(/Within its limits so far: the booster/)).toBeVisible();
});
