import type { DayView } from '../src/core/planning/day-view';
import { violations } from './accessible';
import { App, expect, test } from './app';

test('the day is planned on Bench: put in order by keyboard, given to somebody who goes home, and let go again', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  try {
    const began = await app.get<DayView>('/day');
    const tagOf = (view: DayView, id: string) => view.tasks.find((one) => one.id === id)!.tag;
    await page.goto(app.url);
    const rows = page.getByRole('list', { name: 'Jobs of the day' }).getByRole('listitem');
    await expect(rows).toHaveCount(began.tasks.length);
    expect(await violations(page)).toEqual([]);

    // What is under way is not moved; the last that is not goes up by one, by keyboard alone.
    const handles = page.getByRole('button', { name: /^Move GF-/ });
    const open = began.tasks.filter(({ begun }) => !begun);
    await expect(handles).toHaveCount(open.length);
    const last = handles.last();
    const tag = (await last.getAttribute('aria-label'))!.replace('Move ', '');
    await last.focus();
    await page.keyboard.press('Space');
    await page.waitForTimeout(500);
    await page.keyboard.press('ArrowUp');
    await page.waitForTimeout(500);
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: 'Let it find the order' })).toBeVisible();
    const moved = await app.get<DayView>('/day');
    expect(moved.body.order).toHaveLength(open.length);
    expect(moved.body.order.map((id) => tagOf(moved, id))).toContain(tag);
    const kept = moved.plan.order.filter((id) => moved.body.order.includes(id));
    expect(kept).toEqual(moved.body.order);

    // Who goes home early is planned with, and what was fixed by hand stays.
    await page.getByRole('button', { name: 'Who is here' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Benches').fill('0');
    await dialog.getByRole('button', { name: 'Plan the day' }).click();
    await expect(dialog.getByText('Benches: one at least.')).toBeVisible();
    await dialog.getByLabel('Benches').fill('3');
    await dialog.getByRole('button', { name: 'Plan the day' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(page.getByText('3 benches')).toBeVisible();
    expect((await app.get<DayView>('/day')).body.order).toEqual(moved.body.order);

    // A promise that cannot be kept says which and by how much: it stands at the day, and on its job's row.
    const row = page.getByRole('button', { name: new RegExp(`^${tag}: promised`) });
    await row.click();
    await page.getByRole('dialog').getByLabel('Promised at').fill('10:30');
    await page.getByRole('dialog').getByRole('button', { name: 'Plan the day' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    const promised = await app.get<DayView>('/day');
    expect(Object.values(promised.body.promised)).toEqual(['10:30']);

    await page.getByRole('button', { name: 'Let it find the order' }).click();
    await expect(page.getByRole('button', { name: 'Let it find the order' })).toHaveCount(0);
    const calendar = await page.request.get(`${app.url}/api/v1/day.ics`);
    expect((await calendar.text()).match(/BEGIN:VEVENT/g)).toHaveLength(began.tasks.length);
  } finally {
    await app.end();
  }
});
