import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('a client is written down with a contact and a vessel, found by its tag, changed, and put back', async ({
  page,
}) => {
  await stepIn(page, 'Maud Ferrier');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Clients' }).click();
  await expect(page.getByRole('link', { name: 'Quentin Brindle' })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('n');
  const sheet = page.getByRole('complementary', { name: 'A new client' });
  await sheet.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(sheet.getByText('The name is missing.')).toBeVisible();
  await sheet.getByRole('textbox', { name: 'Name', exact: true }).fill('Ottoline Frayne');
  await sheet.getByRole('combobox', { name: 'Usual person' }).selectOption({ label: 'Kit Sorrell' });
  await sheet.getByRole('button', { name: 'Add a contact' }).click();
  await sheet.getByRole('textbox', { name: 'Name of contact 1' }).fill('Ottoline Frayne');
  await sheet.getByRole('textbox', { name: 'Mail of contact 1' }).fill('not an address');
  await sheet.getByRole('textbox', { name: 'insured until' }).fill('31 Feb 2027');
  await page.keyboard.press('Control+Enter');
  await expect(sheet.getByText('a date, like 1 Feb 2027')).toBeVisible();
  await sheet.getByRole('textbox', { name: 'insured until' }).fill('1 Feb 2027');
  await page.keyboard.press('Control+Enter');
  await expect(sheet.getByText(/^That is no address/)).toBeVisible();
  await expectAccessible(sheet);
  // What is typed is there after a detour.
  await page.getByRole('link', { name: 'Templates' }).click();
  await page.goto('/clients/new');
  await expect(sheet.getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Ottoline Frayne');
  await sheet.getByRole('textbox', { name: 'Mail of contact 1' }).fill('otto@berth.example');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Ottoline Frayne' })).toBeVisible();
  await expect(page.getByText('otto@berth.example')).toBeVisible();
  await expect(page.getByText('1 Feb 2027')).toBeVisible();

  await page.getByRole('link', { name: 'Add one' }).click();
  const asset = page.getByRole('complementary', { name: 'A new asset' });
  await asset.getByRole('textbox', { name: 'Name', exact: true }).fill('Sallow Moth');
  await asset.getByRole('textbox', { name: 'Tag' }).fill('SM-904');
  await asset.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Sallow Moth is here.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Assets' })).toContainText('SM-904');
  await page.getByRole('region', { name: 'Assets' }).getByRole('link', { name: 'Labels' }).click();
  const labels = page.getByRole('complementary', { name: 'Labels' });
  await expect(labels).toContainText('Sallow Moth');
  await expect(labels.getByRole('link', { name: 'Make 1 sheet' })).toBeVisible();
  await expectAccessible(labels);
  await page.keyboard.press('Escape');

  await page.goto('/templates');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder(/a template, a schedule/).fill('sm-904');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Ottoline Frayne' })).toBeVisible();
  await page.keyboard.press('e');
  const edit = page.getByRole('complementary', { name: 'Ottoline Frayne' });
  await edit.getByRole('textbox', { name: 'Name', exact: true }).fill('Ottoline Frayne-Moss');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Ottoline Frayne-Moss' })).toBeVisible();
  await page.locator('[data-toast]', { hasText: 'Saved what is known' }).getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Ottoline Frayne', exact: true })).toBeVisible();
});

test('a client goes into the archive after a look at what that ends, and comes back; a member only reads', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/clients?find=grey+wagtail');
  await page.getByRole('link', { name: 'Quentin Brindle' }).click();
  await expect(page.getByRole('heading', { name: 'The year' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Archive Quentin Brindle' }).click();
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText('Quentin Brindle goes into the archive');
  await expect(impact).toContainText('In the coming year 0 tasks');
  await impact.getByRole('button', { name: /^Take back \d+ tasks/ }).click();
  await expect(page.getByText('Quentin Brindle is in the archive.')).toBeVisible();
  await expect(page.getByText('Nothing is scheduled for Quentin Brindle.')).toBeVisible();
  await page.goto('/clients');
  await page.getByRole('button', { name: '1 in the archive' }).click();
  await page.getByRole('link', { name: 'Quentin Brindle' }).click();
  await page.getByRole('button', { name: 'Bring back' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Add|^Make|tasks/ })
    .first()
    .click();
  await expect(page.getByText('Quentin Brindle is back.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Schedules' })).toContainText('Gas and shore power');
  await page.getByRole('button', { name: 'Start now for this client' }).click();
  const start = page.getByRole('dialog', { name: 'Start now' });
  await start.getByRole('button', { name: /choose a template/ }).click();
  await page.getByPlaceholder('type a name').fill('renewal letters');
  await page.keyboard.press('Enter');
  await expect(start).toContainText('Quentin Brindle');
  await page.keyboard.press('Escape');
  await page.goto('/clients/own');
  await page.getByRole('link', { name: 'Crane 1' }).click();
  await expect(page.getByRole('textbox', { name: 'Tag' })).toHaveValue('CR-1');
  await expectAccessible(page);
  await enterAs(page, 'Nadia Orme');
  await page.goto('/clients?find=grey+wagtail');
  await page.getByRole('link', { name: 'Quentin Brindle' }).click();
  await expect(page.getByRole('heading', { name: 'The year' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Change', exact: true })).toBeHidden();
});

test('on a phone a client is found, read and telephoned', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await enterAs(page, 'Nadia Orme');
  await page.goto('/clients');
  await page.getByRole('searchbox', { name: 'Find a client' }).fill('brindle');
  await page.getByRole('link', { name: 'Quentin Brindle' }).click();
  await expect(page.getByRole('link', { name: /^01632/ }).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'The year' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
  await expectAccessible(page);
});
