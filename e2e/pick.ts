import { expect, type Page } from '@playwright/test';

/**
 * Picks from the list that has just opened. A click that comes while it still opens can be lost on a busy machine, and the list then
 * stays and covers the page: it is looked at again until it is gone.
 */
export async function pick(
  page: Page,
  named: { readonly name: string | RegExp; readonly exact?: boolean },
): Promise<void> {
  const option = page.getByRole('option', named);
  await expect(option).toBeVisible();
  await expect(async () => {
    if (await option.isVisible()) await option.click({ timeout: 2000 });
    await expect(page.getByRole('listbox')).toBeHidden({ timeout: 2000 });
  }).toPass();
}

/** Most options that are walked over. */
const MOST_OPTIONS = 400;

/**
 * The same by keyboard alone, in the list that has the focus: one down until the option stands there. Letters typed ahead are no way on a
 * busy machine: they count as one word only while they follow each other quickly.
 */
export async function pickByKeys(page: Page, named: { readonly name: string | RegExp }): Promise<void> {
  const option = page.getByRole('option', named);
  await expect(option).toBeVisible();
  for (let n = 0; n < MOST_OPTIONS; n += 1) {
    if (await option.evaluate((one) => one === document.activeElement)) break;
    await page.keyboard.press('ArrowDown');
  }
  await expect(option).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listbox')).toBeHidden();
}
