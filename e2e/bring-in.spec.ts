import { enterAs, expect, expectAccessible, test } from './journey.ts';

const LIST = [
  'Holder;Boat;Berth;Email;Tel;Adviser;Insured until',
  'Quentin Brindle;Grey Wagtail;berth A 2;quentin.brindle@berth.example;01632 961 118;;',
  'Verity Carrow-Lee;Lady Grebe;E 5;verity@carrow.example;;Ayesha;31/02/2027',
  ';Saltwhistle;E 8;;01632 960 555;Tomas;28/02/2027',
  'Nell Iddonby;Bosun Gannet;D 14;nell at iddonby;;Kit;',
  'Edda Marlowe-Finch;Oak Gall;C 4;verity@carrow.example;;Ayesha;',
  'Fergus Lanyard;Nutshell Two;B 2;fergus@lanyard.example;;Ayesha;31/03/2027',
].join('\n');

test('a list of clients is read, told, mended, brought in, found, and taken out again', async ({ page }) => {
  await enterAs(page, 'Maud Ferrier');
  await page.goto('/clients');
  await page.getByRole('link', { name: 'Bring in a list' }).click();
  await expect(page.getByText('Known columns:')).toBeVisible();
  await page
    .getByLabel('The file')
    .setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('PKzip') });
  await expect(page.getByText(/It is a spreadsheet, not a CSV file/)).toBeVisible();
  await expectAccessible(page);
  await page
    .getByLabel('The file')
    .setInputFiles({ name: 'berths.csv', mimeType: 'text/csv', buffer: Buffer.from(LIST) });
  await expect(page.getByRole('button', { name: 'Bring in 3, leave 3' })).toBeVisible();
  await expect(page.getByText('“31/02/2027”: there is no 31 February 2027')).toBeVisible();
  await expect(page.getByText('The client is missing')).toBeVisible();
  await expect(page.getByText('“nell at iddonby” is no mail address')).toBeVisible();
  await expectAccessible(page);
  // It is left and found again.
  await page.getByRole('link', { name: 'Templates' }).click();
  await page.goto('/bring-in');
  await page.getByRole('link', { name: 'berths.csv' }).click();
  await page.getByRole('textbox', { name: 'Insured until of line 2' }).fill('28/02/2027');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Line 2 has the same mail under another name')).toBeVisible();
  await page.getByRole('textbox', { name: 'Holder of line 3' }).fill('Salt Whistlers');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Bring in 4, leave 2' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Who is meant by “Tomas”' }).selectOption({ label: 'Joss Penhale' });
  await page.getByRole('button', { name: 'leave Quentin Brindle, line 1' }).click();
  const deed = page.getByRole('button', { name: 'Bring in 3, leave 3' });
  await expect(deed).toBeEnabled();
  await deed.click();
  await expect(page.getByText('Brought in 3 lines of clients.')).toBeVisible();
  await page.getByRole('link', { name: 'Show the clients' }).click();
  await page.getByRole('searchbox', { name: 'Find a client' }).fill('saltwhistle');
  await expect(page.getByRole('link', { name: 'Salt Whistlers' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Salt Whistlers' })).toContainText('Joss Penhale');
  await page.goBack();
  await page.getByRole('button', { name: 'Take it out again' }).click();
  await expect(page.getByText('3 clients of berths.csv are taken out again.')).toBeVisible();
  await page.goto('/clients?find=saltwhistle');
  await expect(page.getByText('No client of these words.')).toBeVisible();
});
