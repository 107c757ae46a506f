import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('signing in is accessible in both themes', async ({ page }) => {
  await page.goto('/sign-in');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expectAccessible(page);
});

for (const [name, address, landmark] of [
  ['the schedules', '/schedules', 'row'],
  ['the schedule bench', '/schedules/new?like=payroll', 'form'],
  ['the templates', '/templates', 'row'],
  ['a new template', '/templates/new', 'form'],
  ['the account page', '/account', 'list'],
  ['the labels', '/clients/own/labels', 'list'],
] as const) {
  test(`${name} are accessible in both themes`, async ({ page }) => {
    await enterAs(page, 'Ines Calloway');
    await page.goto(address);
    await expect(page.getByRole(landmark).first()).toBeVisible();
    await expectAccessible(page);
  });
}

test('a template with its schedules, and a task beside its day, are accessible in both themes', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates');
  await page.getByRole('link', { name: 'Pontoon inspection' }).click();
  await expect(page.getByRole('complementary', { name: 'What uses it' })).toContainText('Pontoon C');
  await expectAccessible(page);
  await page.goto('/day-sheet');
  await page.locator('[data-row]').first().click();
  await expect(page.getByRole('complementary').getByText('Earlier ones')).toBeVisible();
  await expectAccessible(page);
});

test('the phone has the whole of the doing, without a line too wide', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await stepIn(page, 'Nadia Orme');
  await expect(page.locator('[data-row]').first()).toBeVisible();
  const overflow = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(await overflow()).toBeLessThanOrEqual(0);
  await expectAccessible(page);
  await page
    .locator('[data-line]', { has: page.getByRole('img', { name: 'Under way' }) })
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Finish' })).toBeInViewport();
  expect(await overflow()).toBeLessThanOrEqual(0);
  await expectAccessible(page);
});
