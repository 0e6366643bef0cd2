import { violations } from './accessible';
import { App, expect, test } from './app';
import { pick } from './pick';

test('who may sign is changed by one of them, with their PIN; a name is somebody’s for ever', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  const names = async () => (await app.get<{ name: string }[]>('/technicians')).map(({ name }) => name);
  try {
    await page.goto(`${app.url}/shelf/technicians`);
    await page.getByRole('button', { name: 'Take Ottoline Brack off the list' }).click();
    const off = page.getByRole('dialog', { name: 'Take Ottoline Brack off the list' });
    await expect(off).toBeVisible();
    expect(await violations(page)).toEqual([]);
    // Pressed by habit it does nothing.
    await off.getByLabel('Their PIN').press('Enter');
    await off.getByLabel('Their PIN').press('Enter');
    await expect(off.getByText('Their PIN: type it.')).toBeVisible();
    await off.getByLabel('Their PIN').fill('000000');
    await off.getByRole('button', { name: 'Take off the list' }).click();
    await expect(off.getByText('That is not this technician’s PIN.', { exact: false }).first()).toBeVisible();
    await off.getByLabel('Their PIN').fill('246810');
    await off.getByRole('button', { name: 'Take off the list' }).click();
    await expect(off.getByText('The last technician stays on the list', { exact: false })).toBeVisible();
    await off.getByRole('button', { name: 'Leave it' }).click();
    expect(await names()).toEqual(['Ottoline Brack']);

    const add = page.getByRole('region', { name: 'Add a technician' });
    await add.getByLabel('Name').fill('0ttoline  Brack');
    await add.getByLabel('PIN', { exact: true }).fill('471100');
    await add.getByLabel('Their PIN').fill('246810');
    await add.getByRole('button', { name: /Add the technician/ }).click();
    await expect(add.getByText(/looks the same/).first()).toBeVisible();
    await add.getByLabel('Name').fill('Pell Tarn');
    await add.getByRole('button', { name: /Add the technician/ }).click();
    await expect(page.getByRole('button', { name: 'Take Pell Tarn off the list' })).toBeVisible();

    await page.getByRole('button', { name: 'Take Pell Tarn off the list' }).click();
    const away = page.getByRole('dialog', { name: 'Take Pell Tarn off the list' });
    await away.getByRole('combobox', { name: 'By whom' }).click();
    await pick(page, { name: 'Ottoline Brack', exact: true });
    await away.getByLabel('Their PIN').fill('246810');
    await away.getByRole('button', { name: 'Take off the list' }).click();
    await expect(away).toBeHidden();
    expect(await names()).toEqual(['Ottoline Brack']);
    await page.goto(`${app.url}/shelf/removed`);
    await page.getByRole('button', { name: 'Put Pell Tarn back' }).click();
    const back = page.getByRole('dialog', { name: 'Put Pell Tarn back' });
    await back.getByLabel('Their PIN').fill('246810');
    await back.getByRole('button', { name: 'Put back' }).click();
    await expect(page.getByText('Pell Tarn is on the list again.')).toBeVisible();

    await page.goto(`${app.url}/shelf/technicians`);
    await page.getByRole('button', { name: 'Change the PIN of Pell Tarn' }).click();
    const change = page.getByRole('dialog', { name: 'PIN of Pell Tarn' });
    await change.getByLabel('PIN until now').fill('471100');
    await change.getByLabel('New PIN').fill('a phrase of mine');
    await change.getByRole('button', { name: 'Change the PIN' }).click();
    await expect(change).toBeHidden();
    expect(await names()).toEqual(['Ottoline Brack', 'Pell Tarn']);
  } finally {
    await app.end();
  }
});
