import type { Browser, Page } from '@playwright/test';
import { expect, test } from './journey.ts';

const LIST = [
  'Holder,Boat,Email,Adviser',
  'Piran Lusk,Storm Petrel,piran@lusk.example,Perrin',
  ',Nameless,,',
  'Tegan Rowe,Little Tern,tegan at rowe,',
  'Morwen Hext,Dotterel,piran@lusk.example,Perrin',
  'Piran Lusk,Storm Petrel,piran@lusk.example,',
  'Jory Pask,Whimbrel,jory@pask.example,Tomas',
].join('\n');

async function invite(page: Page, name: string, email: string): Promise<void> {
  await page.goto('/team/new');
  const sheet = page.getByRole('complementary', { name: 'Somebody new' });
  await sheet.getByRole('textbox', { name: 'Name' }).fill(name);
  await sheet.getByRole('textbox', { name: 'Mail' }).fill(email);
  await sheet.getByRole('button', { name: 'Add and invite by mail' }).click();
  await expect(page.getByText(`Invited to ${email}`)).toBeVisible();
}

/** Opens the link of the mail on a phone, and begins. */
async function begun(page: Page, browser: Browser, name: string): Promise<Page> {
  await page.goto('/post');
  await page.getByRole('listitem').filter({ hasText: name }).getByRole('button').first().click();
  const mail = page.getByRole('complementary');
  await expect(mail.getByText(/^Delivered/)).toBeVisible({ timeout: 15_000 });
  const link = mail.frameLocator('iframe').getByRole('link', { name: 'Choose a password and begin' });
  const address = new URL((await link.getAttribute('href')) ?? '');
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await phone.goto(new URL(`${address.pathname}${address.hash}`, page.url()).toString());
  await phone.getByLabel('A password, 10 characters or more').fill('herring gulls at dawn');
  await phone.keyboard.press('Enter');
  await expect(phone.getByRole('combobox', { name: 'Whose day sheet' })).toBeVisible();
  return phone;
}

test('the first day of a workspace: begun, people invited, clients brought in, work on somebody’s phone', async ({
  page,
  browser,
}) => {
  test.slow();
  await page.goto('/sign-in');
  await page.getByRole('link', { name: 'Start a workspace of your own' }).click();
  await page.getByLabel('What the workspace is called').fill('Curlew Landing');
  await page.getByLabel('Hours on Fridays').fill('4');
  await page.getByLabel('Your name').fill('Senara Voss');
  await page.getByLabel('Your mail').fill('senara@curlew.example');
  await page.getByLabel(/^A password/).fill('long and plain enough');
  await page.getByRole('button', { name: 'Open Curlew Landing' }).click();
  await expect(page.getByRole('link', { name: 'Senara Voss' })).toBeVisible();

  await invite(page, 'Perrin Vale', 'perrin@curlew.example');
  await invite(page, 'Una Wick', 'una@curlew.example');
  await invite(page, 'Tam Vole', 'tam@curlew.example');
  const phone = await begun(page, browser, 'Perrin Vale');

  await page.goto('/bring-in');
  await page
    .getByLabel('The file')
    .setInputFiles({ name: 'holders.csv', mimeType: 'text/csv', buffer: Buffer.from(LIST) });
  await expect(page.getByText('The client is missing')).toBeVisible();
  await expect(page.getByText('“tegan at rowe” is no mail address')).toBeVisible();
  await expect(page.getByText('Line 1 has the same mail under another name')).toBeVisible();
  await expect(page.getByText('asked', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 2, leave 4' }).click();
  await expect(page.getByText('Brought in 2 lines of clients.')).toBeVisible();

  await page.goto('/templates/new');
  await page.getByLabel('Name', { exact: true }).fill('Mooring lines');
  await page.getByLabel('Title pattern').fill('Mooring lines');
  await page.getByLabel('Estimate').fill('20 min');
  await page.getByRole('button', { name: 'Save the template' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mooring lines');
  await page.goto('/clients?find=petrel');
  await page.getByRole('link', { name: 'Piran Lusk' }).click();
  await page.getByRole('link', { name: 'New schedule' }).click();
  await page.getByRole('button', { name: /^Template/ }).click();
  await page.getByPlaceholder('type a name').fill('mooring');
  await page.getByPlaceholder('type a name').press('Enter');
  await page.getByLabel('When, in words').fill('every day');
  await page.getByRole('button', { name: /^Who does it/ }).click();
  await page.getByPlaceholder('type a name').fill('perrin');
  await page.getByPlaceholder('type a name').press('Enter');
  await page.getByRole('button', { name: /^Save and make \d+ tasks?$/ }).click();
  await expect(page.getByRole('status').filter({ hasText: 'is scheduled' })).toBeVisible();

  const task = phone.getByRole('link', { name: /^Mooring lines/ }).first();
  await expect(task).toBeVisible();
  await task.click();
  const sheet = phone.getByRole('complementary');
  await sheet.getByRole('button', { name: 'Start', exact: true }).click();
  await sheet.getByRole('button', { name: 'Finish', exact: true }).click();
  await expect(sheet).toContainText(/by Perrin Vale/);
  await page.goto('/clients?find=petrel');
  await page.getByRole('link', { name: 'Piran Lusk' }).click();
  await expect(page.getByRole('heading', { name: /over/ })).toContainText('1');
  await phone.close();
});
