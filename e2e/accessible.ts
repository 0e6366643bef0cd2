import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * The accessibility rules that a page breaks, each with the places. What passes is not told, and a page without frames is
 * judged in itself: that takes a fraction of the time and changes nothing of what is found.
 */
export async function violations(page: Page): Promise<string[]> {
  expect(page.frames(), 'a frame would not be judged').toHaveLength(1);
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode(true);
  const { violations: found } = await axe.analyze();
  return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
}
