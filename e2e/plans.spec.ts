import type { Page } from '@playwright/test';
import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

const impact = (page: Page) => page.getByRole('dialog', { name: 'What this changes' });
const line = (page: Page, title: string) => page.locator(`[data-task="${title}"]`);
const undo = (page: Page) => page.getByRole('button', { name: 'Undo', exact: true }).first().click();

test('an edit goes to this one and later ones, seen at once in a browser beside, and is put back as a whole', async ({
  page,
  browser,
}) => {
  const nadia = await (await browser.newContext()).newPage();
  await stepIn(nadia, 'Nadia Orme');
  const beside = line(nadia, 'Fire points, Long Quay');
  await expect(beside.first()).toContainText('40 min');

  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?find=fire+points+long');
  await page.locator('[data-string] a').last().click();
  await page.getByRole('button', { name: /^Change this/ }).click();
  const form = page.getByRole('form', { name: 'Change this task' });
  await form.getByLabel('Estimate').fill('55 min');
  await form.getByLabel('this one and later ones').check();
  await form.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(impact(page)).toContainText('this one and later ones');
  await expect(impact(page)).toContainText('55 min');
  await impact(page)
    .getByRole('button', { name: /^Change \d/ })
    .click();
  await expect(page.getByText('Changed this one and the later ones.')).toBeVisible();
  await expect(beside.first()).toContainText('55 min');
  // The schedule says so from that day on.
  await page.goto('/schedules?find=fire+points+long');
  await page.getByRole('link', { name: 'Fire points' }).click();
  await expect(page.getByText('55 min', { exact: true })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Take out the rule from 25 Nov 2026' }).click();
  await page.getByRole('button', { name: 'Save the change' }).click();
  await impact(page)
    .getByRole('button', { name: /^Change \d/ })
    .click();
  await expect(page.getByText(/^Saved\./)).toBeVisible();
  await nadia.context().close();
});

test('tasks of a day are chosen by keyboard, moved together after a look, and put back with one click', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/day-sheet');
  await page.getByLabel('Whose day sheet').selectOption({ label: 'Kit Sorrell' });
  const open = page.locator('[data-line]', { has: page.getByRole('button', { name: /^Start: Visitor berths/ }) });
  await expect(open.first()).toBeVisible();
  const before = await open.count();
  const title = (await open.first().getAttribute('data-task')) ?? '';
  await open.first().getByRole('link').focus();
  await page.keyboard.press('Space');
  const foot = page.getByRole('region', { name: 'The chosen tasks' });
  await expect(foot).toContainText('1 task chosen');
  await foot.getByRole('button', { name: 'Skip …' }).click();
  await expect(foot.getByRole('button', { name: 'Look at what it changes' })).toBeDisabled();
  await foot.getByRole('button', { name: 'Give to …' }).click();
  await foot.getByLabel('Who does them').selectOption({ label: 'Bram Hollis' });
  await foot.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(impact(page)).toContainText('Bram Hollis');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 task given to Bram Hollis.')).toBeVisible();
  await expect(open).toHaveCount(before - 1);
  await undo(page);
  await expect(page.getByText('is as it was before')).toBeVisible();
  await expect(open).toHaveCount(before);
  await expect(line(page, title).first()).toBeVisible();
});

/** A schedule that is not worth a journey of its own, asked of the server as its pages do. */
const newSchedule = (page: Page, rule: object, name: string) =>
  page.evaluate(
    async ([recurrence, title]) => {
      const ask = async (path: string, body: object) =>
        (
          await fetch(`/api${path}`, {
            method: 'POST',
            headers: { 'Content-Type': 'application/json' },
            body: JSON.stringify(body),
          })
        ).json();
      const { person } = await (await fetch('/api/session')).json();
      const template = { name: title, titlePattern: title, category: null, instructions: '', estimateMinutes: 20 };
      const made = await ask('/templates', { template, like: null });
      const nothing = { amount: 0, unit: 'day' };
      const timing = { appears: nothing, starts: nothing, due: nothing, startTime: null, dueTime: null };
      const { schedule } = await ask('/schedules', {
        ...{ templateId: made.template.id, clientId: null, assetId: null },
        assignment: { v: 1, kind: 'person', personId: person.id, daysOffToo: true, cover: 'deputy' },
        ...{ recurrence, timing },
      });
      return schedule.id as string;
    },
    [rule, name] as const,
  );
const plain = { start: '2026-11-24', end: { kind: 'never' }, dayOff: 'none' };

test('finishing shows the next date and takes another this once; one schedule is run as of a day and taken back', async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');
  const follows = { kind: 'follows', reaches: 'done', amount: 2, unit: 'week' };
  await newSchedule(page, { ...plain, rules: [follows] }, 'Scrub the slip');
  await page.goto('/day-sheet');
  await line(page, 'Scrub the slip').getByRole('link').click();
  const sheet = page.getByRole('complementary', { name: 'Scrub the slip' });
  await expect(sheet.getByText('Next one, if this is done today')).toBeVisible();
  await expect(sheet.getByLabel('Day of the next one')).toHaveValue('8 Dec 2026');
  await sheet.getByLabel('Day of the next one').fill('10 Dec 2026');
  await sheet.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByText('The next one is on 10 Dec 2026.')).toBeVisible();
  await expect(sheet).toContainText('Thu 10 Dec');
  await undo(page);
  await expect(page.getByText('The next one is as before.')).toBeVisible();
  await expect(sheet.getByLabel('Day of the next one')).toHaveValue('8 Dec 2026');

  const weekly = { kind: 'weeks', every: 2, on: [5] };
  const id = await newSchedule(page, { ...plain, rules: [weekly] }, 'Rinse the hoist');
  await page.goto(`/schedules/${id}`);
  await page.getByRole('button', { name: 'Run it …' }).click();
  const run = page.getByRole('dialog', { name: 'Run this schedule' });
  await expect(run.getByRole('button', { name: 'Nothing to make' })).toBeDisabled();
  await run.getByLabel('As of').fill('15 Jan 2027');
  await expect(run.getByText('new', { exact: true })).toHaveCount(4);
  await expectAccessible(run);
  await run.getByRole('button', { name: 'Make 4 tasks' }).click();
  await expect(page.getByText('Made 4 tasks.')).toBeVisible();
  await page.goto('/fill');
  const logged = page.getByRole('row', { name: /one schedule, as of Fri 15 Jan/ });
  await logged.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('4 tasks taken back.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'The period, day by day' })).toBeVisible();
});
