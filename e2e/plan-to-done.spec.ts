import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

const PHRASE = 'last working day of each month, or the working day before';

test('by mouse: from a template over a schedule to a task done, and the next one there', { tag: BUILT }, async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');

  await page.getByRole('link', { name: 'Templates' }).click();
  await page.getByRole('button', { name: 'New template' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Petty cash');
  await page.getByLabel('Title pattern').fill('Petty cash, ');
  await page.getByRole('button', { name: /^Put in month/ }).click();
  await expect(page.locator('output')).toHaveText('Petty cash, November');
  await page.getByLabel('Instructions').fill('Count it twice.');
  await page.getByLabel('Estimate').fill('25 min');
  await page.getByLabel('Category').selectOption('money');
  await page.getByRole('button', { name: 'Add a check line' }).click();
  await page.getByLabel('Check line 1', { exact: true }).fill('Counted');
  await page.getByLabel('Check line 1', { exact: true }).press('Enter');
  await page.getByLabel('Check line 2', { exact: true }).fill('Booked');
  await page.getByRole('button', { name: 'Save the template' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Petty cash');

  await page.getByRole('link', { name: 'Set a schedule' }).click();
  await page.getByLabel('The rule: how often').selectOption({ label: 'monthly, 12 a year' });
  await page.getByLabel('The rule: day 1').selectOption({ label: 'last working day' });
  await page.getByLabel('On a day off').selectOption({ label: 'the working day before' });
  await page.getByLabel('Appears, how many days').fill('6');
  await page.getByRole('button', { name: /^Who does it/ }).click();
  await page.getByPlaceholder('type a name').fill('ines');
  await page.getByPlaceholder('type a name').press('Enter');
  const preview = page.getByRole('region', { name: 'What this makes' });
  await expect(preview.getByRole('heading')).toHaveText(`L${PHRASE.slice(1)}`);
  await expect(preview).toContainText('12a year');
  await expect(preview).toContainText('5 ha year');
  await expect(preview.getByRole('row').nth(1)).toContainText('Mon30Nov');
  await expect(preview.getByRole('row').nth(1)).toContainText('at once');
  await page.getByRole('button', { name: /^Save and make \d tasks?$/ }).click();
  await expect(page.getByRole('status').filter({ hasText: 'is scheduled' })).toContainText(/\d tasks? made/);

  await page.getByRole('link', { name: 'Day sheet' }).click();
  await page.getByRole('link', { name: 'Petty cash, November' }).click();
  const sheet = page.getByRole('complementary', { name: 'Petty cash, November' });
  await expect(sheet).toContainText('Count it twice.');
  await sheet.getByRole('button', { name: 'Start' }).click();
  await expect(sheet).toContainText('Under way since 10:40');
  await expect(sheet).toContainText('Still missing: Counted and Booked');
  await sheet.getByRole('checkbox', { name: 'Counted' }).check();
  await sheet.getByRole('checkbox', { name: 'Booked' }).check();
  await sheet.getByLabel('Note').fill('Two pounds over.');
  await sheet.getByLabel('Note').blur();
  await expect(sheet.getByText('kept', { exact: true })).toBeVisible();
  await sheet.getByRole('button', { name: 'Finish' }).click();
  await expect(sheet).toContainText('Done 10:40 by Ines Calloway');
  await expect(sheet).toContainText('Next one: Thu 31 Dec');

  await page.locator('[data-toast]', { hasText: 'Finished' }).getByRole('button', { name: 'Undo' }).click();
  await expect(sheet).toContainText('Under way since 10:40');
  await sheet.getByRole('button', { name: 'Finish' }).click();
  await page.reload();
  await expect(sheet).toContainText('Done 10:40 by Ines Calloway');
});

test('by keyboard alone: the same way', async ({ page }) => {
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').focus();
  await page.keyboard.type('ines@ternquay.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('ternquay');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Start a template' })).toBeVisible();
  // Only then do the keys of the page work.
  await expect(page.getByRole('slider')).toBeVisible();
  // On a busy machine the first press may come before the keys listen.
  await expect(async () => {
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('dialog', { name: 'Jump to' })).toBeVisible({ timeout: 3_000 });
  }).toPass();
  await page.keyboard.type('templates');
  await expect(chosen(page)).toContainText('Templates');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Templates' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page).toHaveURL(/\/templates\/new$/);
  await tabTo(page, 'Name');
  await page.keyboard.type('Till check');
  await tabTo(page, 'Title pattern');
  await page.keyboard.type('Till check {quarter}');
  await tabTo(page, 'Add a check line');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Check line 1', { exact: true })).toBeFocused();
  await page.keyboard.type('Counted');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Till check');

  await tabTo(page, 'Set a schedule');
  await page.keyboard.press('Enter');
  await tabTo(page, 'The rule: how often');
  await page.keyboard.type('monthly');
  await tabTo(page, 'The rule: day 1');
  await page.keyboard.type('last working');
  await tabTo(page, 'On a day off');
  await page.keyboard.type('the working day before');
  await tabTo(page, 'Appears, how many days');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('9');
  await tabTo(page, /^Who does it/);
  await page.keyboard.press('Enter');
  await page.keyboard.type('ines');
  await expect(chosen(page)).toContainText('Ines Calloway');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'What this makes' }).getByRole('heading')).toHaveText(
    `L${PHRASE.slice(1)}`,
  );
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Schedules' })).toBeVisible();

  await page.keyboard.press('Control+k');
  await page.keyboard.type('ines');
  await expect(chosen(page)).toContainText('Ines Calloway');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Till check Q4' })).toBeVisible();
  await page.getByRole('link', { name: 'Till check Q4' }).focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('link', { name: 'Till check Q4' })).toBeFocused();
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('complementary', { name: 'Till check Q4' });
  await expect(sheet).toBeFocused();
  await tabTo(page, 'Counted');
  await page.keyboard.press('Space');
  await expect(sheet).toContainText('1 of 1');
  await tabTo(page, 'Finish');
  await page.keyboard.press('Enter');
  await expect(sheet).toContainText('Done 10:40 by Ines Calloway');
  await expect(sheet).toContainText('Next one: Thu 31 Dec');
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
});

/** What Enter would take from an open list. */
const chosen = (page: import('@playwright/test').Page) => page.locator('[cmdk-item][data-selected="true"]');

/** Presses Tab until the element of that name has the focus. */
async function tabTo(page: import('@playwright/test').Page, name: string | RegExp): Promise<void> {
  for (let presses = 0; presses < 120; presses++) {
    const said = await page.evaluate(() => {
      const element = document.activeElement;
      const label =
        element?.getAttribute('aria-label') ??
        (element instanceof HTMLInputElement ? element.labels?.[0]?.textContent : null);
      return (label ?? element?.textContent ?? '').trim();
    });
    if (typeof name === 'string' ? said === name || said.startsWith(`${name}:`) : name.test(said)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never reached ${name}`);
}

test('in a workspace that has only begun, the first schedule is said in one phrase', async ({ page }) => {
  await enterAs(page, 'Ada Winn');
  await page.goto('/templates/new');
  await page.getByLabel('Name', { exact: true }).fill('Slip wash');
  await page.getByLabel('Estimate').fill('20 min');
  await page.getByRole('button', { name: 'Save the template' }).click();
  // Where no title is said, it is the one that was shown: the name.
  await expect(page.getByLabel('Title pattern')).toHaveValue('Slip wash');
  await page.getByRole('link', { name: 'Set a schedule' }).click();
  await page.getByLabel('When, in words').fill('first and last Friday of each month, or the working day before');
  const preview = page.getByRole('region', { name: 'What this makes' });
  await expect(preview.getByRole('heading').first()).toHaveText(
    'First and last Friday of each month, or the working day before',
  );
  await expect(preview).toContainText('Nobody is to do it yet: 24 dates in the coming year.');
  await expectAccessible(preview);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('is scheduled')).toBeVisible();
  await expect(page.getByRole('row', { name: /Slip wash/ })).toContainText('first and last Friday of each month');
});
