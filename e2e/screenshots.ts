import type { Page } from '@playwright/test';
import { expect, stepIn, test } from './journey.ts';

/** One current picture of each main view, from the demo on a fixed day: npm run screenshots. */

const FOLDER = 'docs/screenshots';

async function take(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(600);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
}

async function wear(page: Page, theme: 'daybreak' | 'nightwatch'): Promise<void> {
  await page.addInitScript((name) => localStorage.setItem('jolly-rota.theme', name), theme);
}

test('sign in', async ({ page }) => {
  await page.goto('/sign-in');
  await expect(page.getByRole('button', { name: /Ines Calloway/ })).toBeVisible();
  await take(page, 'sign-in');
});

for (const theme of ['daybreak', 'nightwatch'] as const) {
  test(`the schedule bench, ${theme}`, async ({ page }) => {
    await wear(page, theme);
    await stepIn(page, 'Ines Calloway');
    await page.goto('/schedules?find=payroll');
    await page.getByRole('link', { name: 'Payroll run' }).click();
    await page.getByLabel('Appears, how many days').fill('5');
    // At night it is asked which of three things was meant.
    // By day a rule that is counted from other days.
    await page
      .getByLabel('When, in words')
      .fill(
        theme === 'nightwatch'
          ? 'monthly on Fridays'
          : '3 working days before month end and the Friday before the 15th',
      );
    await take(page, `schedule-bench-${theme}`);
  });
}

test('the schedule bench: changes by hand, a rehearsal', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/schedules?find=payroll');
  await page.getByRole('link', { name: 'Payroll run' }).click();
  const phrase = page.getByLabel('When, in words');
  await phrase.fill('every week on Fri, or the working day before, not in Jan');
  const year = page.getByRole('application', { name: /^The year/ });
  const onDay = async (keys: readonly string[], act: string) => {
    await year.focus();
    for (const key of keys) await page.keyboard.press(key);
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: act }).press('Enter');
  };
  const times = (n: number, key: string) => Array.from({ length: n }, () => key);
  await onDay(['ArrowDown', ...times(10, 'ArrowRight')], 'Skip this one');
  await onDay(times(4, 'ArrowRight'), 'Add one on this day');
  await onDay([...times(3, 'ArrowDown'), ...times(6, 'ArrowLeft')], 'Pause from here');
  await onDay([...times(14, 'ArrowRight')], 'Run again from here');
  await onDay([...times(3, 'ArrowDown'), ...times(14, 'ArrowLeft')], 'Another rule from here on');
  await phrase.fill('first and third Tuesday of each month');
  await year.focus();
  await page.keyboard.press('ArrowDown');
  for (const key of times(17, 'ArrowRight')) await page.keyboard.press(key);
  await page.keyboard.press('Enter');
  await take(page, 'schedule-bench-by-hand');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Rehearse any span' }).click();
  await take(page, 'rehearsal');
});

test('schedules and templates', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await take(page, 'schedules');
  await page.goto('/templates');
  await take(page, 'templates');
  await page.getByRole('link', { name: 'Gas and shore power' }).click();
  await expect(page.getByRole('textbox', { name: 'Instructions' }).locator('img')).toBeVisible();
  await take(page, 'template');
  await page
    .locator('fieldset')
    .first()
    .evaluate((form) => form.scrollTo(0, 760));
  await take(page, 'template-steps');
  await page.getByLabel('Task 5: how many days').fill('10');
  await page.getByLabel('Task 5: when').selectOption({ label: 'working days before' });
  await page.getByRole('button', { name: 'Save the change' }).click();
  await expect(page.getByRole('button', { name: /^Change \d+ tasks/ })).toBeVisible();
  await take(page, 'impact');
  await page.keyboard.press('Escape');
  await page.goto('/fill');
  await expect(page.getByRole('button', { name: /^Make \d+ tasks/ })).toBeVisible();
  await take(page, 'fill');
});

test('starting a template, and one line that becomes a task', async ({ page }) => {
  await wear(page, 'nightwatch');
  await stepIn(page, 'Ines Calloway');
  await page.keyboard.press('s');
  const start = page.getByRole('dialog', { name: 'Start now' });
  await start.getByRole('button', { name: /^Template/ }).click();
  await page.getByPlaceholder('type a name').fill('new berth');
  await page.getByPlaceholder('type a name').press('Enter');
  await start.getByRole('button', { name: /^For whom/ }).click();
  await page.getByPlaceholder('type a name').fill('dunlin');
  await page.getByPlaceholder('type a name').press('Enter');
  await start.getByLabel('The set’s date').fill('1 Dec 2026');
  await start.getByRole('checkbox', { name: /Dinghy rack/ }).uncheck();
  await start.getByLabel('Special this time').fill('Arrives by road, no dinghy.');
  await take(page, 'start-now');
  await page.keyboard.press('Escape');
  await wear(page, 'daybreak');
  await page.reload();
  await page.keyboard.press('c');
  await page.keyboard.type('ring the crane firm friday 10:00 for Crane 1 20 min to Bram');
  await take(page, 'capture');
});

test('the day sheet', async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  await page.getByRole('link', { name: 'Pontoon C inspection' }).first().click();
  await take(page, 'day-sheet');
});

test('work that waits to be checked', async ({ page }) => {
  await stepIn(page, 'Bram Hollis');
  await page
    .getByRole('button', { name: /^Check: / })
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Sign it off' })).toBeVisible();
  await take(page, 'to-check');
});

test('the worksheet at night', async ({ page }) => {
  await wear(page, 'nightwatch');
  await stepIn(page, 'Ines Calloway');
  await page.goto('/schedules/worksheet?category=inspection');
  const grid = page.getByRole('grid');
  await expect(grid.getByRole('gridcell').first()).toBeVisible();
  await grid.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('evry week on Tue');
  for (const key of ['Enter', 'ArrowRight', 'ArrowRight', 'Shift+ArrowDown', 'Shift+ArrowDown', 'Shift+ArrowDown'])
    await page.keyboard.press(key);
  await page.keyboard.type('715');
  await page.keyboard.press('Enter');
  await take(page, 'worksheet-nightwatch');
});

test('on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await stepIn(page, 'Nadia Orme');
  await take(page, 'day-sheet-phone');
  await page
    .locator('[data-band]', { hasText: 'coming' })
    .getByRole('link', { name: /Gas and shore power/ })
    .first()
    .click();
  const sheet = page.getByRole('complementary');
  await sheet.getByRole('button', { name: 'Start' }).click();
  await sheet.getByRole('textbox', { name: 'Pressure drop in five minutes' }).fill('1');
  const loop = sheet.getByRole('textbox', { name: 'Earth loop at the socket', exact: true });
  await loop.fill('1.12');
  await sheet.getByRole('textbox', { name: 'Remark on Earth loop at the socket' }).fill('Post 12 shut off.');
  await loop.scrollIntoViewIfNeeded();
  await take(page, 'task-phone');
});

test('the settings, Saturdays about to be worked', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/settings');
  await page.getByRole('button', { name: 'Saturday' }).click();
  await take(page, 'settings');
});
