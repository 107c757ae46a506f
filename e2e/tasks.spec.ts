import type { Page } from '@playwright/test';
import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('all tasks are filtered, grouped, opened, and those that fit are moved by three days and put back', async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Tasks' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Tasks');
  await expect(page.getByRole('rowheader', { name: /^Tern Quay itself/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Show all \d+ of Tern Quay itself/ }).click();
  await expect(page.getByText(/are shown|^all \d+ tasks/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Grouping' }).selectOption({ label: 'grouped by person' });
  await expect(page.getByRole('rowheader', { name: /^Nadia Orme/ })).toBeVisible();
  const told = page.getByRole('status').filter({ hasText: /\d+ tasks/ });
  const thisWeek = (await told.textContent()) ?? '';
  await page.getByRole('combobox', { name: 'Due' }).selectOption({ label: 'due on any day' });
  await expect(told).not.toHaveText(thisWeek);
  const anyDay = (await told.textContent()) ?? '';
  await page.getByRole('combobox', { name: 'Who' }).selectOption({ label: 'role dock crew' });
  await expect(told).not.toHaveText(anyDay);
  await page.getByRole('combobox', { name: 'Grouping' }).selectOption({ label: 'not grouped' });
  await expect(page.getByRole('rowheader')).toHaveCount(0);
  const count = Number(/\d+/.exec((await told.textContent()) ?? '')?.[0]);
  expect(count).toBeGreaterThan(60);
  // By keyboard: down the list, and what is open beside it.
  await page.getByRole('row').nth(1).getByRole('link').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary')).toBeVisible();
  await expectAccessible(page.getByRole('complementary'));
  await page.keyboard.press('Escape');
  await expect(page.getByRole('complementary')).toBeHidden();
  // What waits to be checked stays; this one goes.
  const overdue = page.getByRole('row').filter({ hasText: 'Washrooms and showers' }).first();
  await expect(overdue).toContainText('4 days late');
  await page.getByRole('checkbox', { name: `Choose all ${count}` }).click();
  await expect(page.getByText(`${count} tasks chosen`)).toBeVisible();
  await page.getByRole('button', { name: 'Move …' }).click();
  await page.getByRole('textbox', { name: 'By how many' }).fill('3');
  await page.getByRole('combobox', { name: 'Days or working days' }).selectOption({ label: 'days' });
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toBeVisible();
  await impact.getByRole('button', { name: /^Change \d+ tasks/ }).click();
  const toast = page.locator('[data-toast]', { hasText: 'moved 3 days later' });
  await expect(toast).toBeVisible();
  await expect(overdue).toContainText('1 day late');
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(overdue).toContainText('4 days late');
  await page.getByRole('searchbox', { name: 'Find tasks' }).fill('nothing is called so');
  await expect(page.getByText('No task fits.')).toBeVisible();
  await expectAccessible(page);
});

test('a view is kept, shared, begun with, and opened by somebody else; the record of what it names is had on paper', async ({
  page,
  browser,
  baseURL,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/tasks');
  await page.getByRole('combobox', { name: 'State' }).selectOption('late');
  await page.getByRole('combobox', { name: 'Due' }).selectOption('due on any day');
  // With a column more, which is put before the last by keyboard.
  await page.getByRole('button', { name: 'Columns', exact: true }).click();
  await page.getByRole('button', { name: 'Put in last eight' }).click();
  const heads = (of: Page) => of.getByRole('columnheader').filter({ hasText: /^(estimate|last eight)/ });
  await expect(heads(page)).toHaveText(['estimate', 'last eight']);
  const handle = page.getByRole('button', { name: 'Move last eight' });
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('last eight is over place 9 of 9.')).toBeAttached();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByText('last eight is over place 8 of 9.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(heads(page)).toHaveText(['last eight', 'estimate']);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep as a view' }).click();
  await page.getByRole('textbox', { name: 'The name of the view' }).fill('What slips');
  await page.getByRole('checkbox', { name: 'for everybody' }).check();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const kept = page.getByRole('button', { name: /^What slips \d+/ });
  await expect(kept).toHaveAttribute('aria-current', 'true');
  await page.getByRole('button', { name: 'Begin with it' }).click();
  await expect(page.getByRole('button', { name: 'Begin with it no longer' })).toBeVisible();
  const late = await page.getByRole('status').filter({ hasText: 'tasks' }).textContent();
  await page.goto('/');
  await expect(page).toHaveURL(/\/tasks\?.*view=/);
  await expect(page.getByRole('status').filter({ hasText: 'tasks' })).toHaveText(late ?? '');
  await expect(kept).toHaveAttribute('aria-current', 'true');
  await expectAccessible(page);

  const other = await (await browser.newContext({ baseURL: baseURL ?? '' })).newPage();
  await enterAs(other, 'Maud Ferrier');
  await other.goto('/tasks');
  await other.getByRole('button', { name: /^What slips \d+.*shared by Ines/ }).click();
  await expect(other.getByRole('status').filter({ hasText: 'tasks' })).toHaveText(late ?? '');
  await expect(heads(other)).toHaveText(['last eight', 'estimate']);
  await other.context().close();

  // Dropped, nobody begins with it any more.
  await page.getByRole('button', { name: 'Drop' }).click();
  await expect(kept).toHaveCount(0);
  await page.goto('/');
  await expect(page).toHaveURL(/\/overview/);
  await page.goto('/account');
  await page.getByRole('combobox', { name: 'What you begin with' }).selectOption('the morning page, as usual');
  await page.goto('/logbook?by=asset');
  await expect(page.getByRole('link', { name: 'PDF record' })).toHaveCount(0);
  await page
    .getByRole('button', { name: /Pontoon A/ })
    .first()
    .click();
  const record = await page.getByRole('link', { name: 'PDF record' }).getAttribute('href');
  const paper = await page.request.get(record ?? '');
  expect(paper.headers()['content-type']).toContain('application/pdf');
  expect((await paper.body()).subarray(0, 5).toString()).toBe('%PDF-');
});
