import { enterAs, expect, test } from './journey.ts';

test.beforeEach(async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/new');
});

const preview = (page: import('@playwright/test').Page) => page.getByRole('region', { name: 'What this makes' });

test('the preview shows the 31st by what is done in shorter months', async ({ page }) => {
  await page.getByLabel('Starts on').fill('31 Dec 2026');
  await page.getByLabel('The rule: how often').selectOption({ label: 'monthly, 12 a year' });
  await expect(preview(page).getByRole('heading')).toHaveText('31st of each month, or the last day');
  await expect(preview(page)).toContainText('The 31st is missing in 5 of 12 months; the last day is taken instead.');
  await expect(preview(page).getByRole('row').nth(3)).toContainText('Sun28Feb 2027');
  await page.getByLabel('The rule: in a month without that day').selectOption({ label: 'left out' });
  await expect(preview(page).getByRole('row').nth(3)).toContainText('Wed31Mar 2027');
});

test('the preview shows a Sunday under each choice for a day off', async ({ page }) => {
  await page.getByLabel('Starts on').fill('28 Feb 2027');
  await page.getByLabel('The rule: how often').selectOption({ label: 'yearly' });
  const first = preview(page).getByRole('row').nth(1);
  const cases = [
    ['leave it there', 'Sun28Feb 2027', ''],
    ['the working day before', 'Fri26Feb 2027', 'moved from Sun 28 Feb 2027'],
    ['the working day after', 'Mon1Mar 2027', 'moved from Sun 28 Feb 2027'],
    ['the nearest working day', 'Mon1Mar 2027', 'moved from Sun 28 Feb 2027'],
    ['the working day after in the same month', 'Fri26Feb 2027', 'moved from Sun 28 Feb 2027'],
    ['the working day before in the same month', 'Fri26Feb 2027', 'moved from Sun 28 Feb 2027'],
    ['skip it', 'Sun28Feb 2027', 'a day off: skipped'],
  ] as const;
  for (const [choice, date, remark] of cases) {
    await page.getByLabel('On a day off').selectOption({ label: choice });
    await expect(first).toContainText(date);
    await expect(first).toContainText(remark);
  }
});

test('the preview shows 29 February in other years, and a day across the end of March', async ({ page }) => {
  await page.getByLabel('Starts on').fill('29 Feb 2028');
  await page.getByLabel('The rule: how often').selectOption({ label: 'yearly' });
  await expect(preview(page).getByRole('heading')).toHaveText('Yearly on 29 February, or the 28th');
  await expect(preview(page).getByRole('row').nth(2)).toContainText('Wed28Feb 2029');
  await page.getByLabel('Starts on').fill('28 Mar 2027');
  await page.getByLabel('The rule: how often').selectOption({ label: 'daily' });
  await page.getByLabel('Start time').fill('08:00');
  await page.getByLabel('Start time').blur();
  for (const row of [1, 2]) await expect(preview(page).getByRole('row').nth(row)).toContainText('08:00');
});

test('what can’t be is said in words, and nothing typed is lost', async ({ page }) => {
  await page.getByLabel('Ends', { exact: true }).selectOption({ label: 'a date' });
  await page.getByLabel('Ends on').fill('1 Jan 2026');
  await expect(page.getByRole('alert').first()).toContainText('It ends on 1 Jan 2026, before it starts on 24 Nov 2026');
  await expect(page.getByRole('button', { name: /^Save/ })).toBeDisabled();
  await page.getByLabel('Ends on').fill('rubbish');
  await expect(page.getByRole('alert').first()).toContainText('write it like 1 Feb 2027');
  await page.getByLabel('Ends on').fill('1 Jan 2028');
  await page.getByLabel('The rule: interval').fill('0');
  await expect(page.getByRole('alert').first()).toContainText('from 1 to 999');
  await page.getByLabel('The rule: interval').fill('3');
  await expect(preview(page).getByRole('heading')).toContainText('Every 3 weeks on Tue until 1 Jan 2028');
  await page.reload();
  await expect(preview(page).getByRole('heading')).toContainText('Every 3 weeks on Tue until 1 Jan 2028');
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(preview(page).getByRole('heading')).toHaveText('Every week on Tue');
});

test('several rules are joined and tied to the phrase by letters', async ({ page }) => {
  await page.getByRole('button', { name: 'Add a rule' }).click();
  await page.getByLabel('Rule b: day 1').selectOption({ label: 'first working day' });
  await expect(preview(page).getByRole('heading')).toContainText(
    'Every week on Tuea and first working day of each monthb',
  );
  await page.getByRole('button', { name: 'Remove rule a' }).click();
  await expect(preview(page).getByRole('heading')).toHaveText('First working day of each month');
});
