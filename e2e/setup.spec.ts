import { expect, expectAccessible, test } from './journey.ts';

test('a workspace of one’s own begins beside the demo, by keyboard alone, and is entered again', async ({ page }) => {
  await page.goto('/sign-in');
  await page.getByRole('link', { name: 'Start a workspace of your own' }).focus();
  await page.keyboard.press('Enter');
  const year = page.getByRole('region', { name: 'The year that this makes' });
  await expect(year.getByRole('row', { name: /^Dec/ })).toBeVisible();
  const days = async () => Number(/(\d+)\s*days a year/.exec((await year.innerText()).replaceAll('\n', ' '))?.[1]);
  await page.keyboard.type('Saltmarsh Landing');
  const before = await days();
  await page.getByRole('button', { name: 'Saturday' }).focus();
  await page.keyboard.press('Space');
  // Some fifty Saturdays more, but for those that are holidays.
  await expect.poll(days).toBeGreaterThan(before + 45);
  await page.getByRole('button', { name: 'Open Saltmarsh Landing' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Your name is missing.')).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Your name').focus();
  await page.keyboard.type('Edda Polglase');
  await page.keyboard.press('Tab');
  await page.keyboard.type('edda@saltmarsh.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('long and plain enough');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Nothing is planned yet.' })).toBeVisible();
  await page.goto('/settings');
  await expect(page.getByRole('textbox', { name: 'Name of the workspace' })).toHaveValue('Saltmarsh Landing');
  await page.getByRole('button', { name: /Sign out/ }).click();
  await page.getByLabel('E-mail').fill('edda@saltmarsh.example');
  await page.getByLabel('Password', { exact: true }).fill('long and plain enough');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Edda Polglase' })).toBeVisible();
});
