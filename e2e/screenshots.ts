import { type Page, test } from '@playwright/test';
import { stepIn } from './journey.ts';

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
  await take(page, 'sign-in');
});

for (const theme of ['daybreak', 'nightwatch'] as const) {
  test(`the schedule bench, ${theme}`, async ({ page }) => {
    await wear(page, theme);
    await stepIn(page, 'Ines Calloway');
    await page.goto('/schedules?find=payroll');
    await page.getByRole('link', { name: 'Payroll run' }).click();
    await page.getByLabel('Appears, how many days').fill('5');
    await take(page, `schedule-bench-${theme}`);
  });
}

test('schedules and templates', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await take(page, 'schedules');
  await page.goto('/templates');
  await take(page, 'templates');
  await page.getByRole('link', { name: 'Gas and shore power' }).click();
  await take(page, 'template');
});

test('the day sheet', async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  await page.getByRole('link', { name: 'Pontoon C inspection' }).first().click();
  await take(page, 'day-sheet');
});

test('the day sheet at night', async ({ page }) => {
  await wear(page, 'nightwatch');
  await stepIn(page, 'Lowri Stagg');
  await take(page, 'day-sheet-nightwatch');
});

test('on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await stepIn(page, 'Nadia Orme');
  await take(page, 'day-sheet-phone');
  await page.getByRole('link', { name: 'Pontoon C inspection' }).first().click();
  await take(page, 'task-phone');
});

test('an empty workspace', async ({ page }) => {
  await stepIn(page, 'Ada Winn');
  await take(page, 'schedules-empty');
});
