import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * The accessibility rules that a page breaks, each with the places. What passes is not told, and a page without frames is
 * judged in itself: that takes a fraction of the time and changes nothing of what is found.
 */
export const violations = (page: Page): Promise<string[]> => brokenOn(page, null);

/** The same by the rules that hang on colours: those that a page in another scheme can break once it has kept all. */
export const colourViolations = (page: Page): Promise<string[]> =>
  brokenOn(page, ['color-contrast', 'link-in-text-block']);

async function brokenOn(page: Page, rules: string[] | null): Promise<string[]> {
  expect(page.frames(), 'a frame would not be judged').toHaveLength(1);
  const axe = new AxeBuilder({ page })
    .options({ resultTypes: ['violations'], ...(rules && { runOnly: rules }) })
    .setLegacyMode(true);
  const { violations: found } = await axe.analyze();
  return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
}
