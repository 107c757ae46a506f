import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test(`the summary of a day is looked at, its time chosen, and sent at once; each of its lines lands where it is done ${BUILT}`, async ({
  page,
}) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/messages');
  const paper = page.getByRole('article', { name: 'What the summary says' });
  await expect(paper.getByRole('heading', { level: 3 })).toHaveText(/^Tue 24 Nov: \d+ late, /);
  const subject = await paper.getByRole('heading', { level: 3 }).innerText();
  await expectAccessible(page);
  await page.getByLabel('When the summary comes').fill('06:45');
  await page.getByLabel('When the summary comes').press('Tab');
  await expect(page.getByText('The summary comes at 06:45 on your working days.')).toBeVisible();
  await page.getByRole('button', { name: 'Send it to me now' }).click();
  await expect(page.getByText('It is on its way to ines@ternquay.example.')).toBeVisible();
  await page.goto('/post?q=late');
  await page
    .getByRole('button', { name: new RegExp(subject.slice(0, 18)) })
    .first()
    .click();
  const mail = page.getByRole('complementary');
  await mail.getByRole('tab', { name: 'as plain text' }).click();
  // That of the morning went by the usual wish, this one by the new: whichever was delivered last stands first.
  await expect(mail).toContainText(/You get this at (06:45|07:30) on your working days\./);
  // The address of a line, as whoever has the mail alone would open it: it asks who is there, and lands at the task.
  const address = /(\/tasks\/task\/[0-9a-f-]{36}\?due=any)/.exec(await mail.innerText())?.[1] ?? '';
  await page.context().clearCookies();
  await page.goto(address);
  await expect(page.getByRole('button', { name: /^Ines Calloway/ })).toBeVisible();
  await page.getByRole('button', { name: /^Ines Calloway/ }).click();
  await expect(page).toHaveURL(new RegExp(address.split('?')[0] ?? 'x'));
  await expect(page.getByRole('complementary').first()).toBeVisible();
});

test('on a phone a member finds the choice below the bell, and no summary comes unless it is asked for', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await enterAs(page, 'Nadia Orme');
  await page.goto('/day-sheet');
  await page.getByRole('button', { name: /^Bell/ }).click();
  await page.getByRole('link', { name: 'Choose what reaches you' }).click();
  await expect(page.getByLabel('On which days the summary comes')).toHaveValue('none');
  await expectAccessible(page);
  await page.getByLabel('On which days the summary comes').selectOption('every day');
  await expect(page.getByText('The summary comes at 07:30 every day.')).toBeVisible();
});

test('what is given to somebody rings for them at once and leads there, and they say what reaches them', async ({
  page,
  browser,
  baseURL,
}) => {
  await enterAs(page, 'Ines Calloway');
  const context = await browser.newContext({ ...(baseURL ? { baseURL } : {}) });
  const other = await context.newPage();
  await enterAs(other, 'Nadia Orme');
  await other.goto('/day-sheet');
  const bell = other.getByRole('button', { name: /^Bell/ });
  await bell.click();
  await other.keyboard.press('Escape');
  await expect(bell).toHaveAccessibleName('Bell');
  await page.goto('/day-sheet/together?role=dock+crew');
  const line = page.locator('[data-task^="Life-ring count"]').last();
  await expect(line).toContainText('Kit Sorrell');
  await line.getByRole('link').press('Space');
  await page.getByRole('button', { name: 'Give to …' }).click();
  await page.getByRole('combobox', { name: 'Who does them' }).selectOption({ label: 'Nadia Orme' });
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  await page.getByRole('button', { name: 'Change 1 task' }).click();
  await expect(line).toContainText('Nadia Orme');
  // Without asking anew, whatever page is open.
  await expect(bell).toHaveAccessibleName('Bell, 1 new');
  await bell.click();
  const happened = other.getByRole('dialog', { name: 'What happened' });
  // Another journey may have given it to and fro before.
  const told = happened
    .getByRole('link', { name: /^Life-ring count.*, new.*yours now, due .*, from Ines Calloway/ })
    .first();
  await expect(told).toBeVisible();
  await expectAccessible(other);
  await told.click();
  await expect(other).toHaveURL(/\/tasks\/task\//);
  await expect(other.getByRole('complementary').first()).toContainText('Life-ring count');
  await expect(bell).toHaveAccessibleName('Bell');
  // Of changed hands Nadia hears by mail unless it is turned off; of another day only here.
  await other.goto('/messages');
  await expect(other.getByRole('checkbox', { name: 'Changed hands, my own work: by mail' })).toBeChecked();
  const moved = other.getByRole('checkbox', { name: 'Another day, my own work: here' });
  await moved.press('Space');
  // Kept once the server has it; whoever goes on by keyboard stays there.
  await expect(moved).not.toBeChecked();
  await expect(moved).toBeFocused();
  await other.reload();
  await expect(moved).not.toBeChecked();
  await context.close();
});

test('of every kind of thing that somebody does here the other hears at once, in words, and by mail where it is worth one', async ({
  page,
  browser,
  baseURL,
}) => {
  test.setTimeout(300_000);
  await enterAs(page, 'Ines Calloway');
  const context = await browser.newContext({ ...(baseURL ? { baseURL } : {}) });
  const other = await context.newPage();
  await enterAs(other, 'Bram Hollis');
  await page.goto('/messages');
  await other.goto('/day-sheet');
  /** Asked as the page itself asks. */
  const ask = async <T>(by: Page, method: 'GET' | 'POST' | 'PUT', path: string, body?: object): Promise<T> => {
    const headers = { Origin: new URL(by.url()).origin };
    const answer = await by.request.fetch(`/api${path}`, { method, headers, ...(body ? { data: body } : {}) });
    expect(answer.ok(), `${method} ${path}: ${await answer.text()}`).toBe(true);
    return answer.json() as Promise<T>;
  };
  const { people } = await ask<{ people: { id: string; name: string }[] }>(page, 'GET', '/workspace');
  const idOf = (name: string) => people.find((one) => one.name === name)?.id ?? '';
  const [ines, bram] = [idOf('Ines Calloway'), idOf('Bram Hollis')];
  const title = `Oil the davits ${Date.now()}`;
  const captured = async (by: Page, assigneeId: string, name = title): Promise<string> => {
    const { tasks } = await ask<{ tasks: { id: string }[] }>(by, 'POST', '/tasks', {
      ...{ title: name, on: '2026-11-30', dueOn: '2026-11-30', startTime: null, dueTime: null },
      ...{ assigneeId, clientId: null, assetId: null, estimateMinutes: 30 },
    });
    return tasks[0]?.id ?? '';
  };
  /** It stands on somebody's bell by and by. */
  const hears = async (by: Page, words: RegExp) => {
    await expect(async () => {
      await by.getByRole('button', { name: /^Bell/ }).click();
      const happened = by.getByRole('dialog', { name: 'What happened' });
      await expect(happened.getByRole('link', { name: words }).first()).toBeVisible({ timeout: 3_000 });
    }).toPass({ timeout: 30_000 });
    await by.keyboard.press('Escape');
  };
  const id = await captured(page, bram);
  await hears(other, new RegExp(`${title}.*new.*yours now, due Mon 30 Nov, from Ines Calloway`));
  const at = `/tasks/${id}`;
  const change = async (deed: object) => {
    const { version } = await ask<{ version: number }>(page, 'GET', at);
    await ask(page, 'POST', '/tasks/changes', { tasks: [{ id, version }], deed });
  };
  await change({ kind: 'moveTo', on: '2026-12-01' });
  await hears(other, /due Tue 1 Dec instead of Mon 30 Nov, changed by Ines Calloway/);
  await ask(page, 'POST', '/tasks/nudges', { tasks: [id], text: 'the boat leaves at noon' });
  await hears(other, /Ines Calloway nudges you: the boat leaves at noon/);
  const key = randomUUID();
  await ask(page, 'POST', `${at}/comments`, { key, text: '@Bram Hollis the grease is in the shed', named: [bram] });
  await hears(other, /named you: @Bram Hollis the grease is in the shed/);
  await ask(other, 'POST', `${at}/hold-up`, { reason: 'the davit is in use', until: '2026-12-04' });
  await hears(page, /the davit is in use, until Fri 4 Dec/);
  await ask(page, 'POST', `${at}/go-on`, {});
  await hears(other, /can go on/);
  await change({ kind: 'give', personId: ines });
  await hears(other, /Ines Calloway has it now, changed by Ines Calloway/);
  // Whoever gave work hears what becomes of it.
  const mine = await captured(other, ines, `${title}, of Bram`);
  await hears(page, /of Bram.*new.*from Bram Hollis/);
  for (const step of ['start', 'finish']) await ask(page, 'POST', `/tasks/${mine}/${step}`, {});
  await hears(other, /of Bram.*finished by Ines Calloway/);
  // Leave, asked and decided.
  const asked = await ask<{ leave: { id: string; version: number } }>(other, 'POST', `/people/${bram}/leave`, {
    ...{ from: '2027-03-01', to: '2027-03-02', half: null, note: 'the orchard' },
  });
  await hears(page, /Bram Hollis asks for Mon 1 Mar 2027 to Tue 2 Mar 2027 off/);
  await ask(page, 'PUT', `/leave/${asked.leave.id}/state`, { version: asked.leave.version, state: 'refused' });
  await hears(other, /Your leave.*refused by Ines Calloway/);
  // What is worth a mail: hands, nudges and names, leave. All of it is gathered in few, for a minute or two.
  await page.goto('/post');
  const mail = page.getByRole('listitem').filter({ hasText: 'Bram Hollis' }).filter({ hasText: /named/i }).first();
  await expect(async () => {
    await page.reload();
    await expect(mail).toBeVisible({ timeout: 5_000 });
  }).toPass({ timeout: 180_000 });
  await mail.getByRole('button').click();
  await expect(page.getByRole('complementary')).toContainText('Bram Hollis');
  await context.close();
});
