import { expect, test } from './app';
import { newRun, Technician } from './technician';

/** G-22 reads 8 % too much: more than it and G-12 may be apart. */
const APART = { gauges: { 'G-22': { scale: 1.08 } } };

test('two gauges that disagree are told in the bypass step, and what settles it is done there', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'APART');
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id, APART);
  const notice = page.getByRole('group', { name: 'Two gauges disagree' });
  await technician.until('bypass.2.input');
  await expect(notice).toBeHidden();
  while ((await notice.count()) === 0) await technician.doNext();
  await expect(notice).toContainText('G-12 and G-22 disagree by more than their classes allow.');
  await notice.getByRole('button', { name: 'Settle it now' }).click();
  await expect(notice).toBeHidden();

  const settling = await Technician.at(app, page, run.id, APART);
  for (;;) {
    const { action } = await settling.next();
    const heading = 'step' in action ? action.step.id : '';
    if (action.kind === 'item' && !heading.startsWith('exchange') && !heading.startsWith('bypass')) break;
    await settling.doNext();
  }
  await expect(page.getByText(/T-05 agrees with G-12: G-22 is out of its class/).first()).toBeVisible();
});
