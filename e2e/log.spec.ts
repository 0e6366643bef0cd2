import { blended } from '../src/core/vehicle/blend';
import { expect, test } from './app';
import { pick } from './pick';

test('a log in a unit that is not known is not read before its unit is chosen or the column left out', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/traces/new`);
  const rows = Array.from({ length: 40 }, (_, i) => `${i},${i * 2},${i * 7},${20}`);
  await page.locator('input[type=file]').setInputFiles({
    name: 'north quay.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['t_s,Input [bar],Output [furlong],Pull [kip]', ...rows, ''].join('\n')),
  });
  const read = page.getByRole('button', { name: 'Read and analyse' });
  await expect(page.getByText('“Output” is in “furlong”, a unit that is not known here')).toBeVisible();
  await expect(read).toBeDisabled();
  await page.getByRole('button', { name: 'Leave “Pull” out' }).click();
  await expect(read).toBeDisabled();
  await page.getByRole('combobox', { name: /^Unit/ }).nth(1).click();
  await pick(page, { name: 'bar', exact: true });
  await expect(page.getByText(/not known here/)).toHaveCount(0);
  await read.click();
  await expect(page.getByRole('heading', { name: 'north quay' })).toBeVisible();
});

test('a stop that a machine shares is imported and reconciled: what was taken back, and friction that did not follow', async ({
  app,
  page,
}) => {
  const car = {
    mass_kg: 1600,
    tyre_m: 0.31,
    frontShare: 0.7,
    driven: 'front',
    front_NmPerPa: 4.65e-4,
    rear_NmPerPa: 1.76e-4,
    contact_Pa: 0.4e5,
    most_Pa: 160e5,
  } as const;
  const machine = { most_Nm: 800, power_W: 40_000, fadesTo_mPerS: 1.5, fadesFrom_mPerS: 3.5 };
  const rows = Array.from({ length: 400 }, (_, i) => {
    const t = i / 50;
    const speed_mPerS = Math.max(0, 20 - 2.5 * t);
    // For a second a full battery grants nothing, and the front does not follow.
    const refuses = t > 3 && t < 4;
    const asked = { deceleration_mPerS2: 2.5, speed_mPerS, fastMore: 0 };
    const of = blended(car, machine, { ...asked, grants_Nm: refuses ? 0 : Infinity });
    const pressed = refuses ? blended(car, machine, { ...asked, grants_Nm: Infinity }) : of;
    const wobble = (by: number) => by * Math.sin(37 * i);
    return [
      t.toFixed(2),
      (3.6 * speed_mPerS).toFixed(2),
      (of.total_Nm + wobble(3)).toFixed(1),
      of.requested_Nm.toFixed(1),
      of.granted_Nm.toFixed(1),
      (pressed.front_Pa / 1e5 + wobble(0.03)).toFixed(3),
      (of.rear_Pa / 1e5).toFixed(3),
    ].join(',');
  });
  const head =
    't_s,Speed [km/h],Torque asked [Nm],Regeneration asked [Nm],Regeneration granted [Nm],Front [bar],Rear [bar]';
  await page.goto(`${app.url}/traces/new`);
  await page.locator('input[type=file]').setInputFiles({
    name: 'hill stop.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([head, ...rows, ''].join('\n')),
  });
  await page.getByRole('button', { name: 'Read and analyse' }).click();
  await expect(page.getByRole('heading', { name: 'hill stop' })).toBeVisible();
  await expect(page.getByText('Blend of a stop').first()).toBeVisible();
  await expect(
    page.getByText(/accounted for neither by what was granted nor by the pressures/),
  ).toBeVisible();
  await expect(page.getByText(/friction did not make up/)).toBeVisible();
  await expect(page.getByText(/nobody measured it/)).toBeVisible();
});
