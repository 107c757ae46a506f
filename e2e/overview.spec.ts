import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

/** Work of its own, so that no other journey has done it: due so long ago, or so soon, that it stands first. */
async function captured(page: Page, title: string, who: string | null, on: string): Promise<string> {
  return page.evaluate(
    async ([what, name, day]) => {
      const { people } = await (await fetch('/api/workspace')).json();
      const one = people.find((person: { name: string }) => person.name === name);
      const answer = await fetch('/api/tasks', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({
          ...{ title: what, on: day, dueOn: day, startTime: null, dueTime: null, estimateMinutes: 20 },
          ...{ assigneeId: one?.id ?? null, clientId: null, assetId: null },
        }),
      });
      return (await answer.json()).tasks[0].id as string;
    },
    [title, who, on] as const,
  );
}

test(`the manager's morning: from the page to the one next thing of every kind of line ${BUILT}`, async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/Tuesday\s*24\s*November/);
  const band = (name: string) => page.getByRole('region').or(page.locator('[data-band]')).filter({ hasText: name });
  const line = (title: string) =>
    page.getByRole('listitem').filter({ has: page.getByRole('link', { name: title, exact: true }) });
  await captured(page, 'Boathook count', 'Nadia Orme', '2026-01-05');
  await captured(page, 'Fender rack, paint', null, '2026-11-24');
  const held = await captured(page, 'Capstan grease', 'Selwyn Dace', '2026-01-05');
  await page.evaluate(
    (id) =>
      fetch(`/api/tasks/${id}/hold-up`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ reason: 'none in stock', until: '2026-11-27' }),
      }),
    held,
  );
  await page.reload();
  await expect(band('late').first()).toBeVisible();
  await expectAccessible(page);
  // Late: whoever has it is reminded.
  await page.getByRole('button', { name: 'Nudge Nadia Orme about Boathook count' }).click();
  await expect(page.locator('[data-toast]', { hasText: 'Nudged Nadia Orme.' })).toBeVisible();
  await expect(line('Boathook count')).toContainText('nudged 10:40');
  // Nobody yet: somebody gets it.
  await page.getByRole('button', { name: 'Assign Fender rack, paint' }).click();
  await page.keyboard.type('wilf');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-toast]', { hasText: 'is Wilf Ardley’s now' })).toBeVisible();
  await expect(line('Fender rack, paint')).toBeHidden();
  // To check: signed off in the sheet beside the page.
  const check = page.getByRole('link', { name: /^Check / }).first();
  const checked = ((await check.getAttribute('aria-label')) ?? '').replace('Check ', '');
  await check.click();
  await page.getByRole('complementary').getByRole('button', { name: 'Sign it off' }).click();
  await expect(page.locator('[data-toast]', { hasText: 'Signed off' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(line(checked)).toBeHidden();
  // Held up: it can go on before its day.
  await page.getByRole('link', { name: 'Capstan grease' }).click();
  const sheet = page.getByRole('complementary');
  await expect(sheet).toContainText('Held up until Fri 27 Nov: none in stock');
  await expectAccessible(sheet);
  await sheet.getByRole('button', { name: 'It can go on now' }).click();
  await page.keyboard.press('Escape');
  // From then on it counts as late again.
  await expect(line('Capstan grease')).toContainText('days late');
  // A figure opens its list.
  const toStart = page.getByRole('link', { name: /^\d+ to start$/ });
  const count = Number(/\d+/.exec((await toStart.textContent()) ?? '')?.[0]);
  await toStart.click();
  await expect(page).toHaveURL(/\/tasks\?due=today&are=open$/);
  await expect(page.getByRole('status').filter({ hasText: `${count} tasks` })).toBeVisible();
  await page.goBack();
  // What nobody is foreseen for: its schedule says who.
  await page
    .getByRole('link', { name: /^Say who does / })
    .first()
    .click();
  await expect(page).toHaveURL(/\/schedules\/[0-9a-f-]+$/);
});

test('work is held up, talked about and nudged, and the bell rings for whoever is meant, live', async ({
  page,
  browser,
  baseURL,
}) => {
  await stepIn(page, 'Nadia Orme');
  const other = await (await browser.newContext({ ...(baseURL ? { baseURL } : {}) })).newPage();
  await stepIn(other, 'Ines Calloway');
  const bell = other.getByRole('button', { name: /^Bell/ });
  // Its sign stands before it is known what is new.
  const unread = await other.evaluate(async () => (await (await fetch('/api/bell')).json()).unread as number);
  await captured(page, 'Gangway hinge pin', 'Nadia Orme', '2026-01-05');
  await page.goto('/day-sheet');
  await page.getByRole('link', { name: 'Gangway hinge pin' }).first().click();
  const sheet = page.getByRole('complementary');
  await sheet.getByRole('button', { name: 'Say what holds it up' }).click();
  await page.keyboard.type('the gangway is being mended');
  await sheet.getByRole('button', { name: 'Hold it up' }).click();
  await expect(sheet).toContainText('Held up until Thu 26 Nov: the gangway is being mended');
  // Late no more, and told of to whoever plans.
  await expect(other.getByRole('listitem').filter({ hasText: 'the gangway is being mended' })).toBeVisible();
  const comment = sheet.getByRole('textbox', { name: 'A comment' });
  await comment.fill('Ready on Thursday, ');
  await comment.press('End');
  await page.keyboard.type('@in');
  await expect(sheet.getByRole('list', { name: 'Whom @ names' })).toContainText('Ines Calloway');
  await page.keyboard.press('Enter');
  await expect(sheet).toContainText('Ines Calloway will hear of it.');
  // What is written outlives a reload.
  await page.reload();
  await expect(comment).toHaveValue(/^Ready on Thursday, @Ines Calloway/);
  await expectAccessible(sheet);
  await sheet.getByRole('button', { name: 'Say it' }).click();
  await expect(sheet.getByRole('listitem').filter({ hasText: 'Ready on Thursday' })).toBeVisible();
  // Of what holds it up as well.
  await expect(bell).toHaveAccessibleName(`Bell, ${unread + 2} new`);
  await bell.click();
  const line = other.getByRole('link', { name: /^Gangway hinge pin ?, new.*Nadia Orme named you: Ready on Thursday/ });
  await expect(bell).toHaveAccessibleName('Bell');
  await expectAccessible(other);
  await line.click();
  await expect(other.getByRole('complementary')).toContainText('Held up until Thu 26 Nov');
  await other.context().close();
});

test('the logbook tells what was on time, opens what a figure stands for, and is had as a file', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Logbook' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Logbook');
  await expect(page.getByText(/^\d+%$/).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: /^Sun\s*22/ })).toBeVisible();
  await expectAccessible(page);
  const told = page.getByRole('status').filter({ hasText: 'entries' });
  await page.getByRole('combobox', { name: 'Week shown' }).selectOption('2026-11-09');
  await expect(told).toContainText('in the week chosen');
  await expect(page.getByRole('heading', { name: /^Sun\s*15/ })).toBeVisible();
  // By keyboard into an entry and out of it.
  await page.locator('[data-row]').first().focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('complementary')).toBeHidden();
  await page.getByRole('button', { name: 'skipped' }).click();
  await expect(page.getByRole('img', { name: 'Done', exact: true })).toHaveCount(0);
  await page.getByRole('combobox', { name: 'What' }).selectOption({ label: 'everything' });
  await page.getByRole('combobox', { name: 'Shown', exact: true }).selectOption({ label: 'by template' });
  const row = page.getByRole('row').filter({ hasText: 'Pontoon inspection' });
  await expect(row).toContainText('%');
  await expectAccessible(page);
  await row.getByRole('button').click();
  await expect(page.getByRole('button', { name: 'Pontoon inspection: show all' })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Pontoon . inspection$/ }).first()).toBeVisible();
  const coming = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as CSV' }).click();
  const file = await (await coming).path();
  const lines = (await readFile(file, 'utf8')).trim().split('\r\n');
  expect(lines[0]).toContain('due,due at,what');
  expect(lines.slice(1).every((text) => text.includes('Pontoon'))).toBe(true);
});

test('the logbook tells what was read over time, and who gave what to whom', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/logbook');
  await page.getByRole('combobox', { name: 'Shown', exact: true }).selectOption({ label: 'readings over time' });
  const steps = page.getByRole('region', { name: 'Readings over time' }).getByRole('listitem');
  await expect(steps.first()).toContainText('out of limits');
  await expectAccessible(page);
  await steps.first().getByRole('link').first().click();
  await expect(page.getByRole('complementary')).toContainText('Steps');
  await page.goto('/tasks?are=open&due=any&by=no&find=crane');
  await page
    .getByRole('checkbox', { name: /^Choose / })
    .nth(1)
    .check();
  await page.getByRole('button', { name: 'Give to …' }).click();
  await page.getByRole('combobox', { name: 'Who does them' }).selectOption({ label: 'Tamsin Wray' });
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  await page.getByRole('button', { name: 'Change 1 task' }).click();
  // The sheet that asked says the same: only the notice says that it is done.
  await expect(page.locator('[data-toast]', { hasText: '1 task given to Tamsin Wray.' })).toBeVisible();
  await page.goto('/logbook?span=now');
  await page.getByRole('combobox', { name: 'What' }).selectOption({ label: 'given to another' });
  // On a clock that stands, what others have given stands beside it in no order.
  await expect(page.getByRole('row').filter({ hasText: '→ Tamsin Wray' }).first()).toBeVisible();
  await expectAccessible(page);
});

test('an empty workspace is told where to begin, and a phone has the whole morning', async ({ page }) => {
  await stepIn(page, 'Ada Winn');
  await expect(page.getByRole('heading', { name: 'Nothing is planned yet.' })).toBeVisible();
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await stepIn(page, 'Ines Calloway');
  const overflow = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  await expect(page.getByRole('button', { name: /^Nudge / }).first()).toBeVisible();
  expect(await overflow()).toBeLessThanOrEqual(0);
  await expectAccessible(page);
  await page.goto('/logbook');
  await expect(page.getByRole('heading', { name: /^Sun\s*22/ })).toBeVisible();
  expect(await overflow()).toBeLessThanOrEqual(0);
  await expectAccessible(page);
});
