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
