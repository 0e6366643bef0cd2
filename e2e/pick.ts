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
