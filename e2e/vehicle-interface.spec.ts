import type { Page } from '@playwright/test';
import { USUAL_MAP } from '../src/core/shop/identifier-map';
import { VehicleLink } from '../src/devices/vehicle/client';
import { violations } from './accessible';
import { App, expect, test } from './app';
import { onSimulatedBench, readSoFar } from './technician';

/** A van with an electric pump, everything read before the step of its thresholds, standing there with its ignition on. */
async function atThePump(app: App, page: Page, tag: string) {
  const { run } = await readSoFar(app, 'Esk & Moor Quiet Van', tag, ['hose-blocked', 0], 'switch.off');
  await page.goto(`${app.url}/runs/${run}`);
  await page.getByRole('button', { name: 'Logger is on this vehicle' }).click();
  const hands = await onSimulatedBench(app, page, run);
  await hands({ key: 'ignition' });
  const pane = page.getByRole('region', { name: 'From the vehicle' });
  await expect(pane.getByText('Its own sensors: no reading of the test.')).toBeVisible();
  return { run, hands, pane };
}

test('an electric vacuum pump through the interface: seen to stop and start, had to run, given back as asked and as the screen is left', async ({
  page,
}) => {
  const app = await App.start({ demo: true, live: true });
  try {
    const { run, hands, pane } = await atThePump(app, page, 'GF-IFACE91');
    await expect(pane.getByText('Stops at', { exact: true })).toBeVisible();
    await expect(pane.getByText('stands', { exact: true })).toBeVisible();
    await expect(pane.getByText(/Starts at: The pump does not start by itself/)).toBeVisible();
    // Light presses until it starts.
    await expect(async () => {
      await hands({ pedal_N: 120, press_NPerS: 2000 });
      await page.waitForTimeout(700);
      await hands({ pedal_N: 0, press_NPerS: 2000 });
      await page.waitForTimeout(700);
      await expect(pane.getByText('runs', { exact: true })).toBeVisible({ timeout: 100 });
    }).toPass();
    await expect(pane.getByText('Starts at', { exact: true })).toBeVisible();
    await expect(pane.getByText('stands', { exact: true })).toBeVisible();

    // A key pressed by habit has nobody's pump run.
    const take = pane.getByRole('button', { name: 'Have the pump run' });
    await page.locator('#reading').focus();
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await expect(take).toBeVisible();
    // Before it is taken: what is under control is given back after 30 s, however slow the machine looks.
    expect(await violations(page)).toEqual([]);
    await take.click();
    const back = pane.getByRole('button', { name: 'Give it back' });
    await expect(back).toBeVisible();
    await expect(pane.getByText('runs', { exact: true })).toBeVisible();
    await back.click();
    await expect(pane.getByText('Given back: the unit has its own way again.')).toBeVisible();
    await expect(pane.getByText('stands', { exact: true })).toBeVisible();

    await take.click();
    await expect(back).toBeVisible();
    const csv = await (await fetch(`${app.url}/api/v1/vehicle/log.csv?run=${run}`)).text();
    expect(csv).toMatch(/Time \(s\),Vacuum pump,/);
    expect(csv).toMatch(/,On,.*,pump\r\n/);
    await page.goto(`${app.url}/shelf/vehicle`);
    await expect(page.getByText('Reading.')).toBeVisible();
    await expect(page.getByRole('row', { name: /4B02/ })).toContainText('Off');
    expect(await violations(page)).toEqual([]);
    await page.goto(`${app.url}/runs/${run}`);
    await expect(
      pane.getByText('The screen of this test was left, so control was given back.'),
    ).toBeVisible();

    // An interface that refuses: the sentence, and the way by hand.
    await app.hand({ vehicle: { around: { speed_mPerS: 3 } } });
    await take.click();
    await expect(pane.getByText('The vehicle moves: nothing is controlled.')).toBeVisible();
    await app.hand({ vehicle: { around: { speed_mPerS: 0 }, mischief: { instead: 'half' } } });
    await expect(pane.getByText(/Go on by hand, as the step says/)).toBeVisible();
    await expect(take).toBeDisabled();
    await app.hand({ vehicle: { mischief: {} } });
    await expect(take).toBeEnabled();
  } finally {
    await app.end();
  }
});

test('kill −9 with the pump under control: it stops by its own session, and the screen says what happened', async ({
  page,
}) => {
  const app = await App.start({ demo: true, live: true });
  try {
    const { pane } = await atThePump(app, page, 'GF-IFACE92');
    await expect(pane.getByText('stands', { exact: true })).toBeVisible();
    await pane.getByRole('button', { name: 'Have the pump run' }).click();
    // It may run by itself as well: only this says that it was taken.
    await expect(pane.getByRole('button', { name: 'Give it back' })).toBeVisible();
    await expect(pane.getByText('runs', { exact: true })).toBeVisible();
    await app.kill();
    const ids = { tester: parseInt(USUAL_MAP.tester, 16), unit: parseInt(USUAL_MAP.unit, 16) };
    const opened = await VehicleLink.open({ host: '127.0.0.1', port: app.vehicle, ...ids });
    if (!opened.ok) throw new Error(opened.why);
    const pump = async () => {
      const replied = await opened.link.ask({ service: 'read', identifier: 0x4b02 });
      return replied.ok ? replied.answer.data[0] : null;
    };
    await expect.poll(pump).toBe(0);
    await opened.link.close();
    await app.up();
    await page.reload();
    await expect(pane.getByRole('alert')).toContainText(
      'The application was ended while “Vacuum pump” was told “On”',
    );
    await pane.getByRole('button', { name: 'I have looked' }).click();
    await expect(pane.getByRole('alert')).toBeHidden();
  } finally {
    await app.end();
  }
});

test('trouble codes are read into the job, and cleared only once they are saved', async ({ page }) => {
  const app = await App.start({ demo: true, live: true });
  try {
    await app.hand({ vehicle: { around: { codes: [{ code: 'C12A1-62', status: 0x89 }] } } });
    const { jobs } = await app.get<{ jobs: { id: string }[] }>('/jobs?q=GF-0440');
    await page.goto(`${app.url}/jobs/${jobs[0]!.id}`);
    const open = page.getByRole('button', { name: /^Trouble codes/ });
    await open.click();
    const dialog = page.getByRole('dialog', { name: 'Trouble codes' });
    await expect(dialog.getByRole('button', { name: 'Clear what was saved' })).toBeHidden();
    expect(await violations(page)).toEqual([]);
    await dialog.getByRole('button', { name: 'Read and save' }).click();
    const read = page.getByRole('region', { name: 'Trouble codes read' });
    await expect(read).toContainText('C12A1-62: failed when last tested, confirmed, asks for the lamp');
    await open.click();
    await dialog.getByRole('button', { name: 'Clear what was saved' }).click();
    await expect(page.getByRole('region', { name: 'Trouble codes cleared' })).toContainText('None stored.');
  } finally {
    await app.end();
  }
});
