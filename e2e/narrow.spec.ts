import type { Locator, Page } from '@playwright/test';
import { enterAs, expect, stepIn, test } from './journey.ts';

/** What is cut off, covered or pushed out where there is little room: on a phone, magnified, on paper. */

const PHONE = { width: 390, height: 844 };
/** A desk at 200 %. */
const MAGNIFIED = { width: 640, height: 400 };
/** A4 at 96 dots an inch. */
const PAGE = { width: 794, height: 1123 };

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

async function boxes(all: Locator): Promise<Box[]> {
  return all.evaluateAll((elements) =>
    elements
      .map((element) => element.getBoundingClientRect())
      .filter(({ width }) => width > 0)
      .map(({ left, right, top, bottom }) => ({ left, right, top, bottom })),
  );
}

function overlaps(of: readonly Box[], by = 0.5): number {
  return of.filter((one, i) =>
    of
      .slice(i + 1)
      .some(
        (other) =>
          one.left + by < other.right &&
          other.left + by < one.right &&
          one.top + by < other.bottom &&
          other.top + by < one.bottom,
      ),
  ).length;
}

/** How many of these show less than they hold. */
async function cut(all: Locator): Promise<number> {
  return all.evaluateAll(
    (elements) => elements.filter(({ scrollWidth, clientWidth }) => scrollWidth > clientWidth + 1).length,
  );
}

async function capture(page: Page, words: string): Promise<void> {
  await page.keyboard.press('c');
  await page.getByRole('textbox', { name: /^What is to be done/ }).fill(words);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Added for/)).toBeVisible();
  await page.keyboard.press('Escape');
}

test('on a phone names are read whole, Save is reached, and no word lies over another', async ({ page }) => {
  await page.setViewportSize(PHONE);
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates');
  const names = page.locator('tbody tr[data-row], tbody [data-row]');
  await expect(names.first()).toBeVisible();
  expect(await names.count()).toBeGreaterThan(8);
  expect(await cut(names)).toBe(0);

  await page.getByRole('link', { name: 'Payroll run' }).first().click();
  const name = page.getByLabel('Name', { exact: true });
  await expect(name).toHaveValue('Payroll run');
  await expect(name).toBeInViewport({ ratio: 1 });
  await expect(page.getByRole('button', { name: /^Save/ })).toBeInViewport({ ratio: 1 });
});

test('on a phone what was done is told beside the way out, not over it', async ({ page }) => {
  await page.setViewportSize(PHONE);
  await stepIn(page, 'Nadia Orme');
  await page
    .getByRole('button', { name: /^Start: / })
    .first()
    .click();
  const close = page.getByRole('button', { name: 'Close' });
  const finish = page
    .getByRole('button', { name: 'Skip' })
    .or(page.getByRole('button', { name: /Finish/ }))
    .first();
  await expect(close).toBeVisible();
  const toast = page.locator('[data-toast]').first();
  await expect(toast).toBeVisible();
  await expect(finish).toBeVisible();
  expect(overlaps([...(await boxes(toast)), ...(await boxes(close))])).toBe(0);
});

test('on a phone and magnified, months and days stand apart', async ({ page }) => {
  await page.setViewportSize(MAGNIFIED);
  await stepIn(page, 'Ines Calloway');
  const days = page.getByRole('slider').locator('text');
  await expect(days.first()).toBeVisible();
  expect(overlaps(await boxes(days))).toBe(0);
  await page.setViewportSize(PHONE);
  await expect.poll(async () => overlaps(await boxes(days))).toBe(0);

  await page.goto('/schedules?find=payroll');
  await page
    .getByRole('link', { name: /^Payroll/ })
    .first()
    .click();
  const phrase = page.getByLabel('When, in words');
  await phrase.fill('every month on the 10th');
  await page.getByRole('button', { name: 'Save the change' }).click();
  const months = page.getByRole('region', { name: /^The coming year/ }).locator('span.absolute');
  await expect(months).toHaveCount(12);
  expect(overlaps(await boxes(months.locator('span')))).toBe(0);
});

test('a word without end stays within its sheet, its line and its page', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/day-sheet');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const endless = 'Mooringchain'.repeat(12);
  await capture(page, endless);
  await page.getByRole('link', { name: endless }).click();
  const sheet = page.getByRole('complementary', { name: endless });
  await expect(sheet).toBeVisible();
  expect(await cut(sheet)).toBe(0);
  expect((await sheet.boundingBox())?.width).toBeLessThanOrEqual(620);
  await page.getByRole('button', { name: 'Close' }).click();

  // Whoever works in the dark prints on white paper too.
  const theme = page.locator('html');
  await page.evaluate(() => document.documentElement.setAttribute('data-theme', 'nightwatch'));
  await page.emulateMedia({ media: 'print' });
  await expect(theme).toHaveAttribute('data-theme', 'daybreak');
  await page.emulateMedia({ media: 'screen' });
  await expect(theme).toHaveAttribute('data-theme', 'nightwatch');
  await page.emulateMedia({ media: 'print' });
  await page.setViewportSize(PAGE);
  await expect(page.getByRole('button', { name: /^(Start|Carry on|Finish)/ }).first()).toBeHidden();
  const lines = page.locator('[data-line]');
  const cells = await lines.evaluateAll((all) =>
    all.map((line) =>
      [...line.children]
        .map((cell) => {
          const range = document.createRange();
          range.selectNodeContents(cell);
          return range.getBoundingClientRect();
        })
        .filter(({ width }) => width > 0)
        .map(({ left, right, top, bottom }) => ({ left, right, top, bottom })),
    ),
  );
  expect(cells.length).toBeGreaterThan(3);
  for (const line of cells) expect(overlaps(line)).toBe(0);
  expect(Math.max(...cells.flat().map(({ right }) => right))).toBeLessThanOrEqual(PAGE.width);
});

test('each new schedule is a draft of its own, by what it is begun from', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  const phrase = page.getByLabel('When, in words');
  await page.goto('/schedules/new?like=friday');
  await phrase.fill('every month on the 10th');
  await page.goto('/schedules/new?like=payroll');
  await expect(phrase).toHaveValue(/15th and the last working day/);
  await page.goto('/schedules/new?like=friday');
  await expect(phrase).toHaveValue('10th of each month');
});
