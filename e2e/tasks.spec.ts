import { expect, expectAccessible, stepIn, test } from './journey.ts';

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
  await expectAccessible(page);
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
