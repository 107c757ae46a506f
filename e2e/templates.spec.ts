import { enterAs, expect, stepIn, test } from './journey.ts';

test('a template refuses what can’t be, in place, and keeps what was typed', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates/new');
  await page.getByLabel('Name', { exact: true }).fill('x'.repeat(130));
  await page.getByLabel('Title pattern').fill('Payroll {mounth}');
  await page.getByLabel('Estimate').fill('0');
  await expect(page.getByText('The name may have 120 characters at most.')).toBeVisible();
  await expect(page.getByText('Did you mean {month}?')).toBeVisible();
  await expect(page.getByText('An estimate is 1 minute or more')).toBeVisible();
  await page.getByRole('button', { name: 'Save the template' }).click();
  await expect(page).toHaveURL(/\/templates\/new$/);
  await page.reload();
  await expect(page.getByLabel('Title pattern')).toHaveValue('Payroll {mounth}');
  await page.getByLabel('Title pattern').fill('y'.repeat(100_000));
  await expect(page.getByText('The title may have 200 characters at most.')).toBeVisible();
});

test('check lines can be pasted as a list and moved by keyboard', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates/new');
  await page.getByRole('button', { name: 'Add a check line' }).click();
  await page.getByLabel('Check line 1', { exact: true }).evaluate((input) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', '- Gates\n2. Lights\n• Ladders\n');
    input.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  });
  const texts = () =>
    page
      .getByRole('textbox', { name: /^Check line/ })
      .evaluateAll((inputs) => inputs.map((input) => (input as HTMLInputElement).value));
  await expect.poll(texts).toEqual(['Gates', 'Lights', 'Ladders']);
  await page.getByLabel('Check line 3', { exact: true }).press('Alt+ArrowUp');
  await expect.poll(texts).toEqual(['Gates', 'Ladders', 'Lights']);
  await page.getByRole('button', { name: 'Move check line 1' }).press('Space');
  const heard = page.locator('[id^=DndLiveRegion]');
  await expect(heard).toContainText('“Gates” is over place 1 of 3');
  await page.keyboard.press('ArrowDown');
  await expect(heard).toContainText('“Gates” is over place 2 of 3');
  await page.keyboard.press('Space');
  await expect.poll(texts).toEqual(['Ladders', 'Gates', 'Lights']);
});

test('its page shows what uses it, and staff see it without being able to change it', async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  await page.getByRole('link', { name: 'Templates' }).click();
  await page.getByLabel('Find templates').fill('pontoon');
  await page.getByRole('link', { name: 'Pontoon inspection' }).click();
  await expect(page.getByRole('complementary', { name: 'What uses it' })).toContainText('6schedules');
  await expect(page.getByRole('button', { name: 'Save the change' })).toBeHidden();
  await expect(page.getByLabel('Name', { exact: true })).toBeDisabled();
});

test('who does it by default: a new schedule begins with that, and one started by hand is offered so', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates');
  await page.getByRole('link', { name: 'Bank reconciliation' }).click();
  await page.getByRole('button', { name: /^Who does it by default/ }).click();
  await page.getByPlaceholder('type a name').fill('each of office');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Who does it by default: each of office$/ }).click();
  await page.getByPlaceholder('type a name').fill('any of yard');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /^One set/ }).locator('..')).toContainText('any of yard');
  await page.keyboard.press('Control+Enter');
  // No task that is made has another: there is nothing to look at first.
  await expect(page.getByText('Saved “Bank reconciliation”.')).toBeVisible();
  await page.getByRole('link', { name: 'Set a schedule' }).click();
  await expect(page.getByRole('radio', { name: 'any one of several' })).toBeChecked();
  await expect(page.getByRole('region', { name: 'What this makes' })).toContainText('any of yard');
  await page.goBack();
  await page.getByRole('button', { name: 'Start now' }).last().click();
  const start = page.getByRole('dialog', { name: 'Start now' });
  await expect(start.getByLabel('Who has the set')).toHaveValue('nobody');
  await expect(start.getByLabel('Who has the set').locator('option:checked')).toHaveText('any of yard');
  await start.getByRole('button', { name: 'Make 1 task' }).click();
  await expect(page.getByText(/^Made 1 task/)).toBeVisible();
  await page.goto('/day-sheet');
  await page.getByRole('combobox', { name: 'Whose day sheet' }).selectOption({ label: 'Bram Hollis' });
  await expect(page.locator('[data-band]').filter({ hasText: 'to take' })).toContainText('Bank reconciliation');
});
