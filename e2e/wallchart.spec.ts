import type { Locator, Page } from '@playwright/test';
import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

/** An asset of its own, so that no other journey changes what stands in its row. */
async function ownAsset(page: Page, name: string): Promise<void> {
  const status = await page.evaluate(async (of) => {
    const fields = { name: of, place: '', tag: null, isSite: false, siteId: null, servesFrom: null, servesUntil: null };
    const answer = await fetch('/api/assets', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ ...fields, clientId: null, fields: {} }),
    });
    return answer.status === 200 ? '' : `${answer.status} ${await answer.text()}`;
  }, name);
  expect(status).toBe('');
}

const toast = (page: Page, words: string) => page.locator('[data-toast]', { hasText: words });
/** What stands in the cell that the keys are on. */
const here = (page: Page): Locator => page.locator('[role=gridcell]');
/** From today's week so many on. */
async function goTo(page: Page, weeks: number): Promise<void> {
  await page.keyboard.press('Home');
  // Today's is the 26th from the first week of June.
  for (let week = 0; week < 25 + weeks; week++) await page.keyboard.press('ArrowRight');
}

test(`a schedule is added to rows, a mark dragged, three chosen and moved with later ones, all put back ${BUILT}`, async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');
  for (const name of ['Gig Marram', 'Gig Samphire']) await ownAsset(page, name);
  await page.goto('/wallchart?empty=yes&find=gig');
  const grid = page.getByRole('grid', { name: 'Wallchart' });
  await expect(grid.getByRole('rowheader', { name: /Gig Samphire/ })).toBeVisible();

  // The same schedule for both rows, looked at and made in one go.
  await page.getByRole('button', { name: 'Add a schedule to rows' }).click();
  await page.getByLabel('Add to Gig Marram').check();
  await page.getByLabel('Add to Gig Samphire').check();
  const sheet = page.getByRole('complementary', { name: 'Add a schedule to rows' });
  await sheet.getByRole('button', { name: /Template/ }).click();
  await page.keyboard.type('washrooms');
  await page.keyboard.press('Enter');
  await sheet.getByLabel('When, in words').fill('every week on Tue');
  await expectAccessible(sheet);
  await sheet.getByRole('button', { name: 'Look at what it makes' }).click();
  const look = page.getByRole('dialog', { name: 'What this changes' });
  await expect(look).toContainText('for 2 rows');
  await look.getByRole('button', { name: /^Add \d+ tasks/ }).click();
  await expect(toast(page, '2 schedules made')).toBeVisible();
  await expect(sheet).toBeHidden();
  await expect(grid).toBeFocused();

  // By keys: next week's is coming, far ahead nothing is made yet.
  await grid.focus();
  await goTo(page, 1);
  await expect(here(page)).toHaveAccessibleName(/^Gig Marram, week of 30 Nov: 1 (coming|open)$/);
  await goTo(page, 10);
  await expect(here(page)).toHaveAccessibleName(/^Gig Marram, week of 1 Feb: 1 not made yet$/);

  // Three of them and all later ones, a day later by their rule.
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  const foot = page.getByRole('region', { name: 'The chosen marks' });
  await expect(foot).toContainText('3 chosen');
  await expect(foot).toContainText('Tue 2 Feb 2027, Tue 9 Feb 2027 and Tue 16 Feb 2027');
  await foot.getByText('these and later').click();
  await foot.getByRole('button', { name: 'Move …' }).click();
  await foot.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(look).toContainText('and all later ones: moved 1 day later');
  await look.getByRole('button', { name: /^Save/ }).click();
  await expect(toast(page, 'moved 1 day later')).toBeVisible();
  // The keys go on in the chart.
  await expect(grid).toBeFocused();
  await goTo(page, 20);
  await page.keyboard.press('Enter');
  const cell = page.getByRole('complementary', { name: /^Gig Marram/ });
  await expect(cell).toContainText('Wed 14 Apr 2027');
  await toast(page, 'moved 1 day later').getByRole('button', { name: 'Undo' }).click();
  await expect(cell).toContainText('Tue 13 Apr 2027');
  await page.keyboard.press('Escape');
  await expect(cell).toBeHidden();

  // One is carried to the week after next by mouse; what that does is shown before it is done.
  await grid.focus();
  await goTo(page, 2);
  const from = await here(page).boundingBox();
  if (!from) throw new Error('The cell is not in view.');
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width * 1.2, from.y + from.height / 2, { steps: 3 });
  await page.mouse.move(from.x + from.width * 1.6, from.y + from.height / 2, { steps: 3 });
  await expect(page.getByText('1 week later, week of 14 Dec')).toBeVisible();
  await page.mouse.up();
  await expect(look).toContainText('moved 1 week later, to the week of 14 Dec');
  await look.getByRole('button', { name: 'Change 1 task' }).click();
  await expect(toast(page, 'moved 1 week later')).toBeVisible();
  await expect(grid).toBeFocused();
  await goTo(page, 3);
  await expect(here(page)).toHaveAccessibleName(/^Gig Marram, week of 14 Dec: 2 coming$/);
  await toast(page, 'moved 1 week later').getByRole('button', { name: 'Undo' }).click();
  await expect(here(page)).toHaveAccessibleName(/^Gig Marram, week of 14 Dec: 1 coming$/);
  // Not while the undo is offered: that is for ten seconds.
  await expectAccessible(page);
});

test('the wallchart is printed over as many sheets as it takes, and read by who may not change it', async ({
  page,
}) => {
  await enterAs(page, 'Nadia Orme');
  await page.goto('/wallchart?by=day&rows=person');
  const grid = page.getByRole('grid', { name: 'Wallchart' });
  await expect(grid.getByRole('rowheader', { name: 'Nadia Orme' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add a schedule to rows' })).toBeHidden();
  await grid.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  const foot = page.getByRole('region', { name: 'The chosen marks' });
  await expect(foot).toBeVisible();
  await expect(foot.getByRole('button', { name: 'Move …' })).toBeHidden();
  await page.evaluate(() => {
    window.print = () => document.body.setAttribute('data-printed', '');
  });
  await page.getByRole('button', { name: 'A3', exact: true }).click();
  await expect(page.locator('body[data-printed]')).toBeAttached();
  const pdf = await page.pdf({ preferCSSPageSize: true });
  const sheets = pdf.toString('latin1');
  // 365 days, 84 of them on a sheet at most: five across, of which each holds 73.
  expect(sheets.match(/\/Type\s*\/Page\b/g)).toHaveLength(5);
  // A3 on its side, in points.
  const [, width, height] = sheets.match(/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/) ?? [];
  expect([Math.round(Number(width)), Math.round(Number(height))]).toEqual([1191, 842]);
});
