import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('work goes into a calendar: as a file, and at an address that any program asks, until it is withdrawn', async ({
  page,
  playwright,
}) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/clients');
  await page.getByRole('link', { name: 'Quentin Brindle' }).first().click();
  await page.getByRole('button', { name: 'Calendar' }).click();
  const box = page.getByRole('dialog', { name: 'As a calendar' });
  await expect(box).toContainText('foreseen within a year');
  const saved = page.waitForEvent('download');
  await box.getByRole('link', { name: 'Save a file' }).click();
  expect((await saved).suggestedFilename()).toBe('Quentin Brindle.ics');
  await box.getByRole('button', { name: 'Make a private address' }).click();
  const address = await box.getByRole('textbox', { name: /told this once/ }).inputValue();
  await expectAccessible(box);
  // As a program: no cookie, no page.
  const program = await playwright.request.newContext();
  const first = await program.get(address);
  expect(await first.text()).toContain('SUMMARY:Gas and shore power');
  const mark = first.headers()['etag'] ?? '';
  expect((await program.get(address, { headers: { 'If-None-Match': mark } })).status()).toBe(304);
  await page.goto('/account');
  await expect(page.getByText('the client Quentin Brindle')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Withdraw the address of the client Quentin Brindle' }).click();
  await expect(page.getByText('That address opens nothing any more.')).toBeVisible();
  expect((await program.get(address)).status()).toBe(404);
  await program.dispose();
});

test('a program is let in by a token, asks by what is described, and is shut out again', async ({
  page,
  playwright,
  baseURL,
}) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/account');
  await page.getByRole('button', { name: 'Let a program in' }).click();
  // By keyboard alone: what it is for, how far, made.
  await page.keyboard.type('wall screen');
  await page.getByRole('combobox', { name: 'How far it goes' }).selectOption('read');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Make the token' }).press('Enter');
  const token = await page.getByRole('textbox', { name: /told this once/ }).inputValue();
  const program = await playwright.request.newContext({
    ...(baseURL ? { baseURL } : {}),
    extraHTTPHeaders: { Authorization: `Bearer ${token}` },
  });
  expect((await program.get('/api/lists/tasks?are=late&as=json')).ok()).toBe(true);
  expect((await program.post('/api/tasks', { data: {} })).status()).toBe(403);
  await page.getByRole('link', { name: 'What they can ask' }).click();
  await page.getByRole('searchbox', { name: 'Find an operation' }).fill('lists tasks');
  await page.getByRole('button', { name: /\/lists\/tasks/ }).click();
  await expect(page.getByText('A token that may read is enough.')).toBeVisible();
  await expectAccessible(page);
  await page.goBack();
  await page.getByRole('button', { name: 'Withdraw the token for wall screen' }).click();
  await expect(page.getByText('No program asks in your name.')).toBeVisible();
  expect((await program.get('/api/overview')).status()).toBe(401);
  await program.dispose();
});

test('a backup is written, fetched and dropped by a manager; lists are taken out as they are narrowed', async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/settings');
  await page.getByRole('link', { name: 'Backups' }).click();
  await page.getByRole('button', { name: 'Back up now' }).click();
  const fetched = page.getByRole('link', { name: /^Fetch the backup/ });
  await expect(fetched).toBeVisible({ timeout: 30_000 });
  await expectAccessible(page);
  const saved = page.waitForEvent('download');
  await fetched.click();
  expect((await saved).suggestedFilename()).toMatch(/^tern-quay-2026-11-24-.*\.tar\.gz$/);
  await page.getByRole('button', { name: /^Drop the backup/ }).click();
  await page.getByRole('button', { name: /^Yes: Drop the backup/ }).press('Enter');
  await expect(page.getByText('None is written yet.')).toBeVisible();
  await page.goto('/tasks?are=late&due=any');
  const taken = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV' }).click();
  expect((await taken).suggestedFilename()).toBe('Tern Quay tasks 2026-11-24.csv');
  await enterAs(page, 'Nadia Orme');
  await page.goto('/settings/backups');
  await expect(page.getByText(/Only a manager/)).toBeVisible();
});

test('a client who is archived is erased for good, told before and written down', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/clients/new');
  await page.getByRole('textbox', { name: 'Name', exact: true }).first().fill('Osric Quillfeather');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Osric Quillfeather' })).toBeVisible();
  await page.getByRole('button', { name: 'Archive Osric Quillfeather' }).click();
  await page.getByRole('button', { name: 'Erase Osric Quillfeather' }).click();
  const box = page.getByRole('dialog', { name: 'Erase Osric Quillfeather' });
  await expect(box).toContainText('No undo brings it back');
  const deed = box.getByRole('button', { name: 'Erase for good' });
  await box.getByRole('textbox').fill('Osric');
  await expect(deed).toBeDisabled();
  await expectAccessible(box);
  await box.getByRole('textbox').fill('Osric Quillfeather');
  await deed.click();
  await expect(page.getByRole('heading', { level: 1, name: 'Client who was erased' })).toBeVisible();
});
