import { expect, expectAccessible, stepIn, test } from './journey.ts';

test('a contact answers a mail: it stands with the task and its client, is told, and what nobody is known for is placed', async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/post');
  const answered = page.getByRole('region', { name: /answered/ });
  await expect(answered.or(page.locator('section').filter({ hasText: 'answered' })).first()).toBeVisible();
  await expectAccessible(page);
  // As whoever received it: over SMTP, to the address that the mail carries.
  await page.getByRole('link', { name: 'The mail they answer' }).first().click();
  await page.getByRole('button', { name: /^Answer as / }).click();
  const words = `Two o’clock is fine, ${Date.now()}`;
  await page.getByRole('textbox', { name: /answers$/ }).fill(words);
  // A mail in a frame without a place of its own is none that can be looked into.
  await page.getByRole('tab', { name: 'as plain text' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Send it' }).click();
  await expect(page.getByText('It is on its way, as a mail of theirs.')).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByText(words)).toBeVisible({ timeout: 20_000 });
  // It rings for whoever it concerns, and leads to the task.
  await page.getByRole('button', { name: /^Bell/ }).click();
  await expect(page.getByRole('dialog', { name: 'What happened' })).toContainText(`answered: ${words}`);
  await page.keyboard.press('Escape');
  // What machines write stands apart.
  await page.getByRole('link', { name: 'The mail they answer' }).first().click();
  await page.getByRole('button', { name: /^Answer as / }).click();
  const away = `Away until Monday, ${Date.now()}`;
  await page.getByRole('textbox', { name: /answers$/ }).fill(away);
  await page.getByRole('checkbox', { name: /a machine writes it/ }).check();
  await page.getByRole('button', { name: 'Send it' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByText(away)).toBeVisible({ timeout: 20_000 });
  // On the page of the task, and in its history as of the contact.
  const line = page.locator('li').filter({ hasText: words });
  const title = await line.getByRole('link').nth(1).textContent();
  await line
    .getByRole('link', { name: title ?? '' })
    .first()
    .click();
  await expect(page.getByText('Answers by mail')).toBeVisible();
  await expect(page.getByText(words)).toBeVisible();
  await expect(page.getByText(away)).toHaveCount(0);
  await expectAccessible(page);
  // The one that nobody is known for.
  await page.goto('/post');
  await page.getByRole('button', { name: 'It is of Quentin Brindle' }).click();
  await expect(page.getByText('The answer of Quentin Brindle stands with Quentin Brindle.')).toBeVisible();
  await expect(page.getByText('to place')).toHaveCount(0);
  await page
    .locator('li')
    .filter({ hasText: 'when is the crane free' })
    .getByRole('button', { name: 'Say which task' })
    .click();
  await page.getByRole('option').first().click();
  await expect(page.getByText(/^The answer of Quentin Brindle stands with “/)).toBeVisible();
  await page.getByRole('button', { name: 'Take insurance page 1.pdf into the task' }).click();
  await expect(page.getByText('“insurance page 1.pdf” is with the task now.')).toBeVisible();
});

test('a contact wants no more mails: asked on a page without an account, told on the client’s page, and taken back', async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/post');
  await page.getByRole('link', { name: 'The mail they answer' }).last().click();
  await page.getByRole('tab', { name: 'as it was sent' }).click();
  const raw = (await page.locator('pre').textContent()) ?? '';
  expect(raw.replace(/\r?\n\s+/g, ' ')).toContain('List-Unsubscribe-Post: List-Unsubscribe=One-Click');
  const [, key] = /\/api\/no-mails\/([0-9a-f]{32})/.exec(raw.replace(/\r?\n\s+/g, '')) ?? [];
  const name = (await page.locator('dl').getByRole('definition').first().textContent())?.split(',')[0] ?? '';
  await page.context().clearCookies();
  await page.goto(`/api/no-mails/${key}`);
  await expect(page.getByRole('heading', { name: /^No more mails to / })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'No more mails' }).click();
  await expect(page.getByRole('heading', { name: 'No more mails', exact: true })).toBeVisible();
  await page.goto('/no-mails#cut');
  await expect(page.getByRole('heading', { name: 'This opens nothing' })).toBeVisible();
  await stepIn(page, 'Ines Calloway');
  await page.goto(`/clients?find=${encodeURIComponent(name)}`);
  await page.getByRole('link', { name, exact: true }).first().click();
  await expect(page.getByText(/wants no mails since/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Mails go to .* again$/ }).click();
  await expect(page.getByText(/^Mails go to .* again\.$/)).toBeVisible();
  await expect(page.getByText(/wants no mails since/)).toHaveCount(0);
});
