import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('somebody is added and invited, and begins on a phone by the link in the mail', async ({ page, browser }) => {
  await stepIn(page, 'Ines Calloway');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Team' }).click();
  await expect(page.getByRole('button', { name: 'Nadia Orme', exact: true })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Add a person' }).click();
  const sheet = page.getByRole('complementary', { name: 'Somebody new' });
  await sheet.getByRole('button', { name: 'Add without a mail' }).click();
  await expect(sheet.getByText('The name is missing.')).toBeVisible();
  await expectAccessible(sheet);
  await sheet.getByRole('textbox', { name: 'Name' }).fill('Perrin Vale');
  await sheet.getByRole('combobox', { name: 'Another role' }).fill('rigger');
  await page.keyboard.press('Enter');
  await sheet.getByRole('textbox', { name: 'Mail' }).fill('nadia@ternquay.example');
  await sheet.getByRole('button', { name: 'Add and invite by mail' }).click();
  await expect(sheet.getByText('Nadia Orme has that address already.')).toBeVisible();
  await sheet.getByRole('textbox', { name: 'Mail' }).fill('perrin@saltmarsh.example');
  await sheet.getByRole('button', { name: 'Add and invite by mail' }).click();
  await expect(page.getByText(/Invited to perrin@saltmarsh.example; the link works until/)).toBeVisible();
  await page.goto('/post');
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Perrin Vale' })
    .getByRole('button', { name: 'Ines Calloway asks you to Tern Quay' })
    .click();
  const mail = page.getByRole('complementary');
  await expect(mail.getByText(/^Delivered/)).toBeVisible({ timeout: 15_000 });
  const link = await mail
    .frameLocator('iframe')
    .getByRole('link', { name: 'Choose a password and begin' })
    .getAttribute('href');
  // Nothing runs within a mail that is shown as it is read: not what looks for faults either.
  await mail.getByRole('tab', { name: 'as plain text' }).click();
  await expectAccessible(mail);
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 } });
  // The link names the host by which the server was reached; here it is asked under the one of this page.
  const address = new URL(link ?? '');
  await phone.goto(new URL(`${address.pathname}${address.hash}`, page.url()).toString());
  await expect(phone.getByRole('heading', { name: 'Welcome to Tern Quay, Perrin Vale' })).toBeVisible();
  await phone.getByLabel('A password, 10 characters or more').fill('short');
  await phone.getByRole('button', { name: 'Begin' }).click();
  await expect(phone.getByText('A password has 10 characters or more.')).toBeVisible();
  await phone.getByLabel('A password, 10 characters or more').fill('herring gulls at dawn');
  await phone.keyboard.press('Enter');
  await expect(phone.getByRole('combobox', { name: 'Whose day sheet' })).toHaveValue(/./);
  await expect(phone.getByText('rigger', { exact: true })).toBeHidden();
  await phone.goto(new URL(`${address.pathname}${address.hash}`, page.url()).toString());
  await phone.reload();
  await expect(phone.getByText(/was used already/)).toBeVisible();
  await phone.close();
});

test('somebody leaves: what they hold goes to others as it was shown, and comes back by one undo', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/team');
  await page.getByRole('button', { name: 'Tamsin Wray' }).click();
  await page.getByRole('link', { name: 'Hand over what Tamsin Wray holds' }).click();
  await page
    .getByRole('combobox', { name: 'Whether somebody leaves' })
    .selectOption({ label: 'leaves, with the last day on' });
  await page.getByRole('textbox', { name: 'Last day' }).fill('31 Dec 2026');
  await page.getByRole('combobox', { name: 'Who takes all of it over' }).selectOption({ label: 'Joss Penhale' });
  await page.getByRole('combobox', { name: 'Who takes over the schedules' }).selectOption({ label: 'nobody yet' });
  await expectAccessible(page);
  await page.getByRole('button', { name: 'See impact and hand over' }).click();
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText(
    /Tamsin Wray leaves on Thu 31 Dec: \d+ open tasks.* go to Joss Penhale; \d+ schedules go to nobody yet/,
  );
  await impact.getByRole('button', { name: /^Change \d+ tasks/ }).click();
  await expect(page.getByText('member, until Thu 31 Dec')).toBeVisible();
  const toast = page.locator('[data-toast]', { hasText: 'What Tamsin Wray held is handed over.' });
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('member, until Thu 31 Dec')).toBeHidden();
});

test('a colleague’s page tells how to reach them, by keyboard alone, and a planner changes no people', async ({
  page,
}) => {
  await enterAs(page, 'Maud Ferrier');
  await page.goto('/team');
  await expect(page.getByRole('link', { name: 'Add a person' })).toBeHidden();
  await page.getByRole('searchbox', { name: 'Find a person' }).focus();
  await page.keyboard.type('fuel');
  await expect(page.getByRole('button', { name: 'Nadia Orme', exact: true })).toBeHidden();
  await page.getByRole('button', { name: 'Lowri Stagg' }).focus();
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('complementary', { name: 'Lowri Stagg' });
  await expect(sheet).toContainText('01632 960 130');
  await expectAccessible(sheet);
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
  await page.goto('/post');
  await expect(page.getByText('Only a manager can read what left by mail.')).toBeVisible();
});

test('a forgotten password is asked for without being told who is there', async ({ page }) => {
  await page.goto('/sign-in');
  await page.getByRole('link', { name: 'Password forgotten' }).click();
  await page.getByLabel('Your e-mail address').fill('nowhere');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/That is no address/)).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Your e-mail address').fill('nobody@saltmarsh.example');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/If that address signs in here, a mail is on its way/)).toBeVisible();
});
