import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { enterAs, expect, expectAccessible, test } from './journey.ts';

test.beforeEach(async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/new');
});

const preview = (page: Page) => page.getByRole('region', { name: 'What this makes' });
const phrase = (page: Page) => page.getByLabel('When, in words');
const heading = (page: Page) => preview(page).getByRole('heading').first();
const year = (page: Page) => page.getByRole('application', { name: /^The year/ });

/** Clicks a day of the year, by its place on its month's line. */
async function dayAt(page: Page, month: number, firstWeekday: number, date: number) {
  const box = await page.getByRole('img', { name: /^The year in dates/ }).boundingBox();
  if (!box) throw new Error('the year is not drawn');
  const cell = (box.width - 86) / 37;
  return { x: box.x + 44 + cell * (firstWeekday - 1 + date - 1) + cell / 2, y: box.y + 18 + 20 * month + 10 };
}
/** December 2026 is the second line and begins on a Tuesday. */
const december = (page: Page, date: number) => dayAt(page, 1, 2, date);

test('a phrase sets the controls, and the controls set the phrase', async ({ page }) => {
  await phrase(page).fill(
    'last working day of every quarter, or the nearest working day, not in Jan until 30 Sep 2027',
  );
  await expect(heading(page)).toHaveText(
    'Last working day of every quarter, or the nearest working day, not in Jan until 30 Sep 2027',
  );
  await expect(page.getByLabel('The rule: day 1')).toHaveValue('workingDay -1');
  await expect(page.getByLabel('On a day off')).toHaveValue('nearest');
  await expect(page.getByLabel('Closed seasons')).toHaveValue('Jan');
  await expect(page.getByLabel('Ends on')).toHaveValue('30 Sep 2027');
  await page.getByLabel('The rule: day 1').selectOption({ label: '15th' });
  await expect(phrase(page)).toHaveValue(
    '15th of Mar, Jun, Sep and Dec, or the nearest working day, not in Jan until 30 Sep 2027',
  );
});

test('what is typed stays as it is typed until the field is left', async ({ page }) => {
  await phrase(page).fill('');
  await phrase(page).pressSequentially('fortnightly on  Mondays', { delay: 5 });
  await expect(phrase(page)).toHaveValue('fortnightly on  Mondays');
  await expect(heading(page)).toHaveText('Every 2 weeks on Mon');
  await phrase(page).blur();
  await expect(phrase(page)).toHaveValue('every 2 weeks on Mon');
});

test('what can’t be read is marked, explained and kept; a suggestion puts it right', async ({ page }) => {
  await phrase(page).fill('every tusdy');
  await expect(page.getByText('“tusdy” is not understood after “every”')).toBeVisible();
  await expect(heading(page)).toHaveText('Every week on Tue');
  await phrase(page).blur();
  await expect(phrase(page)).toHaveValue('every tusdy');
  await page.getByRole('button', { name: 'Did you mean every tuesday?' }).click();
  await expect(page.getByText('is not understood')).toBeHidden();
  await phrase(page).fill('every monday at 8am and 4pm');
  await expect(page.getByText('make another schedule for each further time')).toBeVisible();
  await page.getByRole('button', { name: 'Put the phrase back' }).click();
  await expect(phrase(page)).toHaveValue('every week on Tue');
  await expectAccessible(page);
});

test('a phrase that can’t be read is not saved as the rule before it', async ({ page }) => {
  await page.getByRole('button', { name: /^Template/ }).click();
  await page.keyboard.type('Payroll');
  await page.keyboard.press('Enter');
  await phrase(page).fill('every tusdy');
  await page.getByRole('button', { name: /^Save/ }).click();
  await expect(phrase(page)).toBeFocused();
  await expect(page.getByText(/is not understood/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page).toHaveURL(/schedules\/new/);
});

test('every kind of rule can be chosen and filled in', async ({ page }) => {
  const often = page.getByLabel('The rule: how often');
  await often.selectOption({ label: 'by working days' });
  await page.getByLabel('The rule: interval').fill('10');
  await expect(heading(page)).toHaveText('Every 10 working days');
  await often.selectOption({ label: 'on listed dates' });
  await page.getByLabel('The rule: dates').fill('3 Mar 2027, 5 Apr and 6 May 2027');
  await expect(heading(page)).toHaveText('On 3 Mar 2027, 5 Apr 2027 and 6 May 2027');
  await often.selectOption({ label: 'after completion' });
  await page.getByLabel('The rule: how long after').fill('3');
  await expect(heading(page)).toHaveText('Every 3 weeks after completion');
  await expect(preview(page).getByRole('row').nth(2)).toContainText('if the last is on time');
  await often.selectOption({ label: 'as soon as the last one is …' });
  await expect(heading(page)).toHaveText('As soon as the last one is under way');
  await phrase(page).fill('RRULE:FREQ=YEARLY;BYYEARDAY=1,100');
  await expect(page.getByLabel('The rule: RRULE')).toHaveValue('FREQ=YEARLY;BYYEARDAY=1,100');
  await often.selectOption({ label: 'every four weeks, 13 a year' });
  await expect(preview(page)).toContainText('Every four weeks is 13 times a year; once a month would be 12.');
});

test('reminders, closed seasons and another clock are said in the form and seen beside it', async ({ page }) => {
  await page.getByRole('button', { name: 'Add a reminder' }).click();
  await page.getByLabel('Reminder 1, how many days').fill('14');
  await page.getByLabel('Reminder 1, which days').selectOption({ label: 'days' });
  await expect(preview(page).getByRole('row').nth(1)).toContainText('Tue 10 Nov, 09:00');
  await page.getByLabel('Closed seasons').fill('15 Dec to 10 Jan');
  await expect(preview(page)).toContainText('closed season: left out, 4 dates up to Tue 5 Jan 2027');
  await page.getByRole('button', { name: /^Time zone/ }).click();
  await page.getByPlaceholder('type a name').fill('Sydney');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Time zone: Sydney' })).toBeVisible();
});

test('by mouse: one is skipped, one dragged, one added; a pause, another rule, and all of it saved', async ({
  page,
}) => {
  await page.getByRole('button', { name: /^Template/ }).click();
  await page.getByPlaceholder('type a name').fill('Fuel meter');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Who does it/ }).click();
  await page.getByPlaceholder('type a name').fill('Rhona');
  await page.keyboard.press('Enter');
  await phrase(page).fill('every Friday');
  const eleventh = await december(page, 11);
  await page.mouse.click(eleventh.x, eleventh.y);
  await page.getByRole('button', { name: 'Skip this one' }).click();
  await expect(preview(page)).toContainText('skipped by hand');
  const [from, to] = [await december(page, 18), await december(page, 16)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await page.mouse.up();
  await expect(preview(page)).toContainText('moved from Fri 18 Dec');
  const eighth = await december(page, 8);
  await page.mouse.click(eighth.x, eighth.y);
  await page.getByRole('button', { name: 'Add one on this day' }).click();
  await expect(preview(page)).toContainText('added by hand');
  const january = await dayAt(page, 2, 5, 1);
  await page.mouse.click(january.x, january.y);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Another rule from here on' }).click();
  await phrase(page).fill('first Monday of each month');
  await expect(preview(page)).toContainText('From 1 Jan 2027: first Monday of each month.');
  await page.getByRole('button', { name: /^Save/ }).click();
  await expect(page.getByText('is scheduled')).toBeVisible();
  await page.goto('/schedules?find=fuel+meter');
  const made = page.getByRole('row', { name: /every week on Fri/ });
  await made.getByRole('link', { name: 'Fuel meter calibration' }).click();
  await expect(page.getByText('Fri 18 Dec moved to Wed 16 Dec')).toBeVisible();
  await expect(page.getByRole('button', { name: /from 1 Jan 2027: first Monday of each month/ })).toBeVisible();
});

test('by keyboard alone: a day is chosen with the arrows, skipped, and taken back', async ({ page }) => {
  await phrase(page).fill('every Tuesday');
  await year(page).focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
  for (let i = 0; i < 7; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  const menu = page.getByRole('dialog', { name: /what to change/ });
  await expect(menu).toContainText('Tue 1 Dec');
  await expect(menu.getByRole('button', { name: 'Skip this one' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(preview(page)).toContainText('skipped by hand');
  await expect(year(page)).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(menu).toBeHidden();
  await page.getByRole('button', { name: 'Take back: Tue 1 Dec skipped' }).press('Enter');
  await expect(preview(page)).not.toContainText('skipped by hand');
  await year(page).focus();
  await page.keyboard.press('PageDown');
  await expect(page.getByRole('img', { name: /to Tue 31 Oct 2028/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Another rule from here on' }).press('Enter');
  await expect(preview(page)).toContainText('From 1 Nov 2027: every week on Tue.');
  await page.getByRole('button', { name: 'This year' }).press('Enter');
});

test('a rehearsal of any span is a table to copy or save, at its own address', async ({ page }) => {
  await phrase(page).fill('15th of each month, or the working day before');
  await page.getByRole('button', { name: 'Rehearse any span' }).click();
  const sheet = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(sheet).toContainText('12 tasks to be made.');
  await sheet.getByLabel('Rehearse to').fill('31 Dec 2036');
  await expect(sheet).toContainText('121 tasks to be made.');
  await page.reload();
  await expect(sheet).toContainText('121 tasks to be made.');
  await expectAccessible(sheet);
  const csv = await Promise.all([
    page.waitForEvent('download'),
    sheet.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const lines = readFileSync(await csv[0].path(), 'utf8').split('\r\n');
  expect(lines).toHaveLength(122);
  expect(lines[6]).toBe(
    '2027-05-15,New schedule,2027-05-14,2027-05-13,2027-05-14,2027-05-14,,nobody yet,moved: day off',
  );
  const ics = await Promise.all([
    page.waitForEvent('download'),
    sheet.getByRole('button', { name: 'Save for a calendar (.ics)' }).click(),
  ]);
  const calendar = readFileSync(await ics[0].path(), 'utf8');
  expect(calendar.match(/BEGIN:VEVENT/g)).toHaveLength(121);
  expect(calendar).toContain('DTSTART;VALUE=DATE:20270514');
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
  await expect(page).toHaveURL(/\/schedules\/new$/);
});

test('staff see the year and its remarks, and can change nothing', async ({ page }) => {
  await page.getByRole('button', { name: /^Sign out/ }).click();
  await enterAs(page, 'Nadia Orme');
  await page.goto('/schedules?find=payroll');
  await page.getByRole('link', { name: 'Payroll run' }).click();
  const fifteenth = await december(page, 15);
  await page.mouse.click(fifteenth.x, fifteenth.y);
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('button', { name: /^Save/ })).toBeHidden();
});
