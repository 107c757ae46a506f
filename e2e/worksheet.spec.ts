import type { Page } from '@playwright/test';
import { enterAs, expect, expectAccessible, test } from './journey.ts';

const cell = (page: Page, row: RegExp, column: number) =>
  page.getByRole('row', { name: row }).getByRole('gridcell').nth(column);
const WHO = 0;
const FROM = 3;
const impact = (page: Page) => page.getByRole('dialog', { name: 'What this changes' });

test('many schedules are changed on the worksheet by keyboard and clipboard, while somebody else changes one of them', async ({
  page,
  browser,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/worksheet?find=life-ring&order=name');
  const grid = page.getByRole('grid');
  const lee = /Life-ring count.*Lee Quay/;
  const gannet = /Life-ring count.*Gannet Quay/;
  await grid.focus();
  await expect(page.getByRole('row', { name: gannet })).toBeVisible();
  // What can't be read stays as typed, says why, and what may be meant.
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('evry Tue');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: 'Look at what it changes' })).toBeDisabled();
  await page.getByRole('button', { name: 'every Tue', exact: true }).click();
  await expect(page.getByRole('gridcell', { name: 'every week on Tue' }).first()).toBeVisible();
  await grid.focus();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/cells? in/)).toBeHidden();
  // One text goes into all chosen cells.
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Control+Shift+ArrowDown');
  await page.keyboard.type('715');
  await page.keyboard.press('Enter');
  await expect(cell(page, lee, FROM)).toHaveText('07:15');
  await expect(cell(page, gannet, FROM)).toHaveText('07:15');
  await expectAccessible(page);

  // Beside it, in another browser, one of them gets another time.
  const nextDoor = await (await browser.newContext()).newPage();
  await enterAs(nextDoor, 'Ines Calloway');
  await nextDoor.goto('/schedules/worksheet?find=life-ring+lee');
  await cell(nextDoor, lee, FROM).dblclick();
  await nextDoor.keyboard.press('Control+a');
  await nextDoor.keyboard.type('6:30');
  await nextDoor.keyboard.press('Enter');
  await nextDoor.getByRole('button', { name: 'Look at what it changes' }).click();
  await impact(nextDoor)
    .getByRole('button', { name: /^Change \d/ })
    .click();
  await expect(nextDoor.getByText('Saved 1 schedule.')).toBeVisible();
  await nextDoor.context().close();

  await expect(page.getByText('1 cell was changed by someone else meanwhile')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Look at what it changes' })).toBeDisabled();
  await page.getByRole('button', { name: 'Take theirs' }).click();
  await expect(cell(page, lee, FROM)).toHaveText('06:30');
  await page.keyboard.press('Control+Enter');
  await expect(impact(page)).toContainText('07:15');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Saved \d+ schedules?\./)).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(cell(page, gannet, FROM)).not.toHaveText('07:15');
});

test('words are found and replaced in all cells, and a block is pasted from a spreadsheet', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/worksheet?find=lifts');
  await page.getByLabel('Words to find').fill('Bram Hollis');
  await page.getByLabel('Words in their place').fill('Kit Sorrell');
  await page.getByRole('button', { name: /^Replace in/ }).click();
  await expect(cell(page, /Lifts of the day.*Crane 1/, WHO)).toHaveText('Kit Sorrell');
  const grid = page.getByRole('grid');
  await grid.focus();
  await page.evaluate(() => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', 'Nadia Orme\tevery weekday\nKit\tevery Friday\n');
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }));
  });
  await expect(cell(page, /Lifts of the day.*Crane 2/, 1)).toHaveText(/every week(day| on Fri)/);
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(impact(page)).toContainText('changed on the worksheet');
  await impact(page).getByRole('button', { name: 'Go back' }).click();
  // What is not saved is there again after a detour.
  await page.getByRole('link', { name: 'Table' }).click();
  await page.getByRole('link', { name: 'Worksheet' }).click();
  await expect(page.getByText(/cells in 2 schedules/)).toBeVisible();
  await page.getByRole('button', { name: 'Put all back' }).click();
  await expect(cell(page, /Lifts of the day.*Crane 1/, WHO)).toHaveText('Bram Hollis');
});

test('clients are put on a plan by a word in their column, once what each would have was looked at', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/worksheet?find=certificate&order=name');
  const plans = (row: RegExp) => page.getByRole('row', { name: row }).getByRole('gridcell').last();
  await expect(plans(/Guillemot/)).toHaveText('none');
  await page.getByRole('grid').focus();
  await page.keyboard.press('End');
  await page.keyboard.type('Resident bert');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowUp');
  await page.getByRole('button', { name: 'Resident berth', exact: true }).click();
  await page.getByRole('grid').focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.getByRole('button', { name: 'Fill down' }).click();
  await expect(page.getByText('2 cells in 2 schedules')).toBeVisible();
  await page.getByRole('button', { name: 'Put 2 clients on Resident berth …' }).click();
  await expect(page.getByRole('heading', { name: 'Put 2 clients on a plan' })).toBeVisible();
  await page.getByRole('button', { name: /^Put 2 clients on it, (make|no task)/ }).click();
  await expect(page.getByRole('heading', { name: 'Resident berth' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText(/as it was before|as they were before/)).toBeVisible();
  // Whoever is not on it any more is still to be put on it by the sheet.
  await page.goto('/schedules/worksheet?find=certificate&order=name');
  await expect(page.getByRole('button', { name: 'Put 2 clients on Resident berth …' })).toBeEnabled();
  await page.getByRole('button', { name: 'Put all back' }).click();
  await expect(plans(/Guillemot/)).toHaveText('none');
});

test('chosen schedules have their dates skipped and are deleted together, and come back', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?find=visitor+berth&order=who');
  // The first is the list of weekends: those after it are of weekdays.
  await page
    .getByRole('checkbox', { name: /^Choose Visitor/ })
    .nth(1)
    .click();
  await page
    .getByRole('checkbox', { name: /^Choose Visitor/ })
    .nth(3)
    .click({ modifiers: ['Shift'] });
  const bar = page.getByRole('region', { name: 'The chosen schedules' });
  await expect(bar).toContainText('3 schedules chosen');
  await bar.getByRole('button', { name: 'Skip or move dates …' }).click();
  await bar.getByLabel('First day').fill('7 Dec 2026');
  await bar.getByLabel('Last day').fill('8 Dec 2026');
  await bar.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(impact(page)).toContainText('3 schedules: the dates from Mon 7 Dec to Tue 8 Dec skipped');
  await impact(page).getByRole('button', { name: 'Take back 6 tasks' }).click();
  await expect(page.getByText('6 taken back')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('3 schedules are as they were before.')).toBeVisible();

  // By keyboard: two are chosen from the row on, and deleted.
  const rows = page.getByRole('link', { name: 'Visitor berth turnover' });
  await rows.first().focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(bar).toContainText('2 schedules chosen');
  await bar.getByRole('button', { name: 'Delete …' }).click();
  await bar.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(impact(page)).toContainText('2 schedules: deleted');
  await page.keyboard.press('Enter');
  await expect(rows).toHaveCount(3);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(rows).toHaveCount(5);
});
