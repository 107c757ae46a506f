import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('another browser sees the work without reloading', { tag: BUILT }, async ({ page, browser }) => {
  await stepIn(page, 'Nadia Orme');
  const other = await browser.newPage();
  await enterAs(other, 'Ines Calloway');
  await other.goto(new URL(page.url()).pathname);
  const line = (of: typeof page) => of.locator('[data-task="Visitor berths, Tuesday"]').first();
  await expect(line(other).getByRole('img', { name: 'Open' })).toBeVisible();
  await line(page)
    .getByRole('button', { name: /^Start/ })
    .click();
  await expect(line(other).getByRole('img', { name: 'Under way' })).toBeVisible();
  await other.close();
});

test('the tideline drives the day sheet, by mouse and by keys', { tag: BUILT }, async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  const tide = page.getByRole('slider', { name: 'Day shown, by work due' });
  await tide.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page).toHaveURL(/date=2026-11-25/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('25 November');
  await expect(tide).toHaveAttribute('aria-valuetext', /^Wed 25 Nov: .* to do/);
  await page.keyboard.press('t');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('24 November');
  await page.keyboard.press(']');
  await page.keyboard.press(']');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('26 November');
  const box = await tide.boundingBox();
  await tide.click({ position: { x: (box?.width ?? 0) - 40, y: 30 } });
  await expect(page.getByText('not made yet').last()).toBeVisible();
  await page.getByRole('button', { name: 'Fold the tideline away' }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Unfold the tideline' })).toBeVisible();
});

test('the day of everyone on shift, of a role and of a site, and a task given on from there', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/day-sheet');
  await page.getByRole('combobox', { name: 'Whose day sheet' }).selectOption({ label: 'everyone on shift' });
  const people = page.getByRole('list', { name: 'Who, and how full the day is' });
  await expect(people).toContainText('Nadia Orme');
  await expectAccessible(page);
  await page.keyboard.press('ControlOrMeta+k');
  await page.getByRole('combobox', { name: 'Jump to' }).fill('dock crew');
  await page.getByRole('option', { name: /^Role dock crew/ }).click();
  await expect(page).toHaveURL(/together\?role=dock\+crew/);
  // Of the role, and not on shift today.
  await expect(people).toContainText('Tamsin Wray');
  const line = page.locator('[data-task^="Life-ring count"]').last();
  await expect(line).toContainText('Kit Sorrell');
  await line.getByRole('link').press('Space');
  await page.getByRole('button', { name: 'Give to …' }).click();
  await page.getByRole('combobox', { name: 'Who does them' }).selectOption({ label: 'Nadia Orme' });
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  await page.getByRole('button', { name: 'Change 1 task' }).click();
  await expect(line).toContainText('Nadia Orme');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(line).toContainText('Kit Sorrell');
  await page.keyboard.press(']');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('25 November');
  const search = page.getByRole('combobox', { name: 'At an asset or a site' });
  // A list that comes anew under the pointer takes no click, and one that has become shorter takes it as one beside it.
  await expect(async () => {
    // Each step has its end, so that one that finds nothing is begun again: the picker may close under it.
    if (!(await search.isVisible()))
      await page.getByRole('button', { name: 'At an asset or a site' }).click({ timeout: 3_000 });
    await search.fill('gannet q', { timeout: 3_000 });
    await page.getByRole('option', { name: /all at Gannet Quay/ }).click({ timeout: 3_000 });
    await expect(page.getByRole('combobox', { name: 'Whose day sheet' })).toHaveValue(/^site /, { timeout: 3_000 });
  }).toPass();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('25 November');
});

test('a month opens whole, and an open task prints on a page', { tag: BUILT }, async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  await page.getByRole('button', { name: /choose from a month/ }).click();
  await expect(page.getByRole('grid')).toBeInViewport({ ratio: 1 });
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await page.getByText('Pontoon C inspection').first().click();
  await expect(page.getByRole('heading', { name: 'Instructions' })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  // A4 at 96 dots an inch.
  await page.setViewportSize({ width: 794, height: 1123 });
  await expect(page.getByRole('button', { name: 'Change this one' })).toBeHidden();
  const widest = () =>
    page.evaluate(() =>
      Math.max(...[...document.querySelectorAll('main *')].map((part) => part.getBoundingClientRect().right)),
    );
  await expect.poll(widest).toBeLessThanOrEqual(794);
});

test('a span on the tideline shows the schedules with a date in it', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules');
  const all = page.getByRole('row');
  await expect(page.getByText(/^2\d\d$/).first()).toBeVisible();
  await page.getByRole('slider').focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page).toHaveURL(/from=2026-11-24&to=2026-11-25/);
  await expect(page.getByRole('button', { name: /from Tue 24 Nov to Wed 25 Nov/ })).toBeVisible();
  await page.getByRole('button', { name: /from Tue 24 Nov to Wed 25 Nov/ }).click();
  await expect(page).not.toHaveURL(/from=/);
  await expect(all.nth(3)).toBeVisible();
});

test('a schedule is paused and resumed in the table, with undo', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?find=deposit');
  const row = page.getByRole('row', { name: /Deposit review/ });
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  const pauseIt = async () => {
    await row.getByRole('button', { name: /^Pause/ }).focus();
    await page.keyboard.press('Enter');
    await expect(impact).toContainText('Deposit review: paused from today');
    await page.keyboard.press('Enter');
    await expect(row).toContainText('paused');
  };
  await pauseIt();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(row).not.toContainText('paused');
  await pauseIt();
  await row.getByRole('button', { name: /^Resume/ }).click();
  await expect(impact).toContainText('running again');
  await page.keyboard.press('Enter');
  await expect(row).not.toContainText('paused');
});

test('a run by hand says what it found', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules');
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByRole('status').filter({ hasText: /; \d+ (was|were) there already/ })).toBeVisible();
  await expect(page.getByText(/Last by hand, today at 10:40/)).toBeVisible();
});

test('the card of keys opens with ? and closes with Esc', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules');
  await expect(page.getByRole('row').nth(3)).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('New schedule');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeHidden();
});

test('an empty workspace offers the first step', async ({ page }) => {
  await enterAs(page, 'Ada Winn');
  await page.goto('/schedules');
  await expect(page.getByRole('heading', { name: /A schedule says when/ })).toBeVisible();
  await page.getByRole('link', { name: 'Write the first template' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('New template');
  await page.goto('/templates');
  await expect(page.getByRole('heading', { name: /A template says what/ })).toBeVisible();
  await page.goto('/day-sheet');
  await expect(page.getByText('Nothing for Ada Winn')).toBeVisible();
});

test('a wrong password, a lost address and a lost task are said in words', async ({ page }) => {
  await page.goto('/schedules');
  await expect(page).toHaveURL(/sign-in/);
  await page.getByLabel('E-mail').fill('ines@ternquay.example');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not go together');
  await expect(page.getByLabel('E-mail')).toHaveValue('ines@ternquay.example');
  await page.getByLabel('Password').fill('ternquay');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveURL(/\/schedules$/);
  await page.goto('/schedules/task/00000000-0000-4000-8000-000000000000');
  await expect(page.getByRole('alert')).toContainText('There is no such task here');
  await page.goto('/nowhere');
  await expect(page.getByRole('alert')).toContainText('Not here');
});
