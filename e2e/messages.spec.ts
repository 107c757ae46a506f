import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test(`the summary of a day is looked at, its time chosen, and sent at once; each of its lines lands where it is done ${BUILT}`, async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/messages');
  const paper = page.getByRole('article', { name: 'What the summary says' });
  await expect(paper.getByRole('heading', { level: 3 })).toHaveText(/^Tue 24 Nov: \d+ late, /);
  const subject = await paper.getByRole('heading', { level: 3 }).innerText();
  await expectAccessible(page);
  await page.getByLabel('When the summary comes').fill('06:45');
  await page.getByLabel('When the summary comes').press('Tab');
  await expect(page.getByText('The summary comes at 06:45 on your working days.')).toBeVisible();
  await page.getByRole('button', { name: 'Send it to me now' }).click();
  await expect(page.getByText('It is on its way to ines@ternquay.example.')).toBeVisible();
  await page.goto('/post?q=late');
  await page
    .getByRole('button', { name: new RegExp(subject.slice(0, 18)) })
    .first()
    .click();
  const mail = page.getByRole('complementary');
  await mail.getByRole('tab', { name: 'as plain text' }).click();
  // That of the morning went by the usual wish, this one by the new: whichever was delivered last stands first.
  await expect(mail).toContainText(/You get this at (06:45|07:30) on your working days\./);
  // The address of a line, as whoever has the mail alone would open it: it asks who is there, and lands at the task.
  const address = /(\/tasks\/task\/[0-9a-f-]{36}\?due=any)/.exec(await mail.innerText())?.[1] ?? '';
  await page.context().clearCookies();
  await page.goto(address);
  await expect(page.getByRole('button', { name: /^Ines Calloway/ })).toBeVisible();
  await page.getByRole('button', { name: /^Ines Calloway/ }).click();
  await expect(page).toHaveURL(new RegExp(address.split('?')[0] ?? 'x'));
  await expect(page.getByRole('complementary').first()).toBeVisible();
});

test('on a phone a member finds the choice below the bell, and no summary comes unless it is asked for', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await enterAs(page, 'Nadia Orme');
  await page.goto('/day-sheet');
  await page.getByRole('button', { name: /^Bell/ }).click();
  await page.getByRole('link', { name: 'Choose what reaches you' }).click();
  await expect(page.getByLabel('On which days the summary comes')).toHaveValue('none');
  await expectAccessible(page);
  await page.getByLabel('On which days the summary comes').selectOption('every day');
  await expect(page.getByText('The summary comes at 07:30 every day.')).toBeVisible();
});

test('what is given to somebody rings for them at once, leads there, and comes by mail as they wish it', async ({
  page,
  browser,
  baseURL,
}) => {
  await enterAs(page, 'Ines Calloway');
  const context = await browser.newContext({ ...(baseURL ? { baseURL } : {}) });
  const other = await context.newPage();
  await enterAs(other, 'Nadia Orme');
  await other.goto('/day-sheet');
  const bell = other.getByRole('button', { name: /^Bell/ });
  await bell.click();
  await other.keyboard.press('Escape');
  await expect(bell).toHaveAccessibleName('Bell');
  await page.goto('/day-sheet/together?role=dock+crew');
  const line = page.locator('[data-task^="Life-ring count"]').last();
  await expect(line).toContainText('Kit Sorrell');
  await line.getByRole('link').press('Space');
  await page.getByRole('button', { name: 'Give to …' }).click();
  await page.getByRole('combobox', { name: 'Who does them' }).selectOption({ label: 'Nadia Orme' });
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  await page.getByRole('button', { name: 'Change 1 task' }).click();
  await expect(line).toContainText('Nadia Orme');
  // Without asking anew, whatever page is open.
  await expect(bell).toHaveAccessibleName('Bell, 1 new');
  await bell.click();
  const happened = other.getByRole('dialog', { name: 'What happened' });
  // Another journey may have given it to and fro before.
  const told = happened
    .getByRole('link', { name: /^Life-ring count.*, new.*yours now, due .*, from Ines Calloway/ })
    .first();
  await expect(told).toBeVisible();
  await expectAccessible(other);
  await told.click();
  await expect(other).toHaveURL(/\/tasks\/task\//);
  await expect(other.getByRole('complementary').first()).toContainText('Life-ring count');
  await expect(bell).toHaveAccessibleName('Bell');
  // Of changed hands Nadia hears by mail unless it is turned off; of what is new in work only here.
  await other.goto('/messages');
  await expect(other.getByRole('checkbox', { name: 'Changed hands, my own work: by mail' })).toBeChecked();
  const moved = other.getByRole('checkbox', { name: 'Another day, my own work: here' });
  await moved.press('Space');
  // Kept once the server has it; whoever goes on by keyboard stays there.
  await expect(moved).not.toBeChecked();
  await expect(moved).toBeFocused();
  await other.reload();
  await expect(moved).not.toBeChecked();
  await page.goto('/post');
  const mail = page
    .getByRole('listitem')
    .filter({ hasText: 'Nadia Orme' })
    .filter({ hasText: 'Changed hands: Life-ring count' })
    .first();
  // Gathered for a minute or two, so that a burst is one mail.
  await expect(async () => {
    await page.reload();
    await expect(mail).toBeVisible({ timeout: 5_000 });
  }).toPass({ timeout: 180_000 });
  await mail.getByRole('button').click();
  await expect(page.getByRole('complementary')).toContainText('Nadia Orme');
  await context.close();
});
