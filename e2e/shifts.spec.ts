import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('hours say when they lie, single days are others after a look at the work, and the clock says who is on', async ({
  page,
  browser,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/team');
  await page.getByRole('button', { name: 'Bram Hollis', exact: true }).click();
  const sheet = page.getByRole('complementary', { name: 'Bram Hollis' });
  // A shift that lies over another is told beside it, and nothing is saved.
  await sheet.getByRole('button', { name: 'Another shift' }).click();
  await sheet.getByRole('textbox', { name: 'Start of shift 2' }).fill('22:00');
  await sheet.getByRole('textbox', { name: 'End of shift 2' }).fill('09:00');
  await sheet.getByRole('group', { name: 'Weekdays of shift 2' }).getByRole('button', { name: 'Friday' }).click();
  await sheet.getByRole('group', { name: 'Weekdays of shift 2' }).getByRole('button', { name: 'Thursday' }).click();
  await expect(sheet.getByText('Two shifts lie at the same time.')).toBeVisible();
  await expectAccessible(sheet);
  await sheet.getByRole('button', { name: 'Take out shift 2' }).click();
  await sheet.getByRole('button', { name: 'Other hours on a single day' }).click();
  await sheet.getByRole('button', { name: 'Save', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: /^Other hours of Bram Hollis: Wed 25 Nov/ });
  await expect(dialog.getByText(/^1 day\. \d+ tasks? falls? in it/)).toBeVisible();
  await expectAccessible(dialog);
  await dialog.getByRole('button', { name: 'Go back' }).click();
  await expect(sheet.getByText('Not saved.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Save', exact: true }).click();
  await dialog.getByRole('button', { name: /^Save/ }).click();
  await expect(page.getByText('Saved what is known of Bram Hollis.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('Bram Hollis is as before.')).toBeVisible();

  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await stepIn(phone, 'Nadia Orme');
  await expect(phone.getByText(/^on since /)).toBeVisible();
  await phone.getByRole('button', { name: 'Clock off' }).click();
  await expect(phone.getByText('not on', { exact: true })).toBeVisible();
  await expectAccessible(phone);
  await page.goto('/team');
  await page.getByRole('button', { name: 'Nadia Orme', exact: true }).click();
  await expect(page.getByRole('complementary').getByText('not on', { exact: true })).toBeVisible();
  await phone.getByRole('button', { name: 'Take it back' }).click();
  await expect(phone.getByText(/^on since /)).toBeVisible();
  // The manager sees it without asking.
  await expect(page.getByRole('complementary').getByText(/^on since /)).toBeVisible();
  await phone.context().close();
});

test('two turns are swapped: one is asked on a phone and agrees, the manager nods, and one undo takes it back', async ({
  page,
  browser,
}) => {
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await stepIn(phone, 'Nadia Orme');
  const asked = phone.locator('[data-band]').filter({ hasText: 'swap of turns' });
  await expect(asked.getByText(/^Kit takes your turn of .*, you take Kit’s of /)).toBeVisible();
  await expectAccessible(phone);
  await asked.getByRole('button', { name: 'Agree' }).click();
  await expect(asked.getByText('agreed, waits for a planner’s nod')).toBeVisible();

  await enterAs(page, 'Ines Calloway');
  await page.goto('/team');
  const waiting = page.locator('[data-band]').filter({ hasText: 'swaps of turns' });
  await expectAccessible(page);
  const line = waiting
    .locator('div')
    .filter({ hasText: /Nadia takes Kit’s turn/ })
    .last();
  await expect(line).toBeVisible();
  await waiting
    .locator('div.flex')
    .filter({ hasText: /Nadia takes Kit’s turn/ })
    .getByRole('button', { name: 'Give the nod' })
    .click();
  await expect(page.getByText('The two turns are swapped.')).toBeVisible();
  await expect(asked.getByText('swapped', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await phone.reload();
  await expect(asked).toBeHidden();
  // Of a turn of one’s own, another one is asked for.
  await phone.goto('/day-sheet?date=2026-12-08');
  await phone
    .getByRole('link', { name: /^Life-ring count/ })
    .first()
    .click();
  const sheet = phone.getByRole('complementary');
  await sheet.getByRole('button', { name: 'Ask for a swap' }).click();
  await sheet.getByRole('button', { name: /^Ask / }).click();
  await expect(sheet.getByText(/is asked to swap it for /)).toBeVisible();
  await expectAccessible(sheet);
  await phone.context().close();
});
