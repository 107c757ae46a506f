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

test('the schedule bench: changes by hand, a phrase put right, a rehearsal', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/schedules?find=payroll');
  await page.getByRole('link', { name: 'Payroll run' }).click();
  const phrase = page.getByLabel('When, in words');
  await phrase.fill('every Friday, or the workign day before');
  await take(page, 'schedule-bench-phrase');
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
