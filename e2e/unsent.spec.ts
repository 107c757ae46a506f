import type { Page } from '@playwright/test';
import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

/** A task of one's own, captured, and its sheet. */
async function ownTask(page: Page, title: string) {
  await page.keyboard.press('c');
  await page.getByRole('textbox', { name: 'What is to be done, when' }).fill(`${title} today`);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: title }).first().click();
  const sheet = page.getByRole('complementary', { name: title });
  await expect(sheet.getByLabel('Note')).toBeVisible();
  return sheet;
}

const taskIdOf = (page: Page) => /task\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? '';
const noteOf = async (page: Page, id: string) =>
  ((await (await page.request.get(`/api/tasks/${id}`)).json()) as { note: string }).note;

test('a note typed without a connection is kept over a closed sheet and a reload, says so, and is sent by itself', async ({
  page,
  context,
}) => {
  await stepIn(page, 'Nadia Orme');
  const sheet = await ownTask(page, 'Count the fenders');
  const id = taskIdOf(page);
  await context.setOffline(true);
  await sheet.getByLabel('Note').fill('Three are missing.');
  await expect(sheet.getByText('Not sent yet.')).toBeVisible();
  await expectAccessible(sheet);
  await page.keyboard.press('Escape');
  await expect(page.getByText('Not sent yet: the note on Count the fenders.')).toBeVisible();
  await page.getByRole('link', { name: 'the note on Count the fenders' }).click();
  await expect(sheet.getByLabel('Note')).toHaveValue('Three are missing.');
  await context.setOffline(false);
  await expect.poll(() => noteOf(page, id)).toBe('Three are missing.');
  await expect(sheet.getByText('Not sent yet.')).toHaveCount(0);
  // Typed without a connection and the page closed at once: whoever opens it next has it sent.
  await context.setOffline(true);
  await sheet.getByLabel('Note').fill('Four are missing.');
  await expect(sheet.getByText('Not sent yet.')).toBeVisible();
  await page.goto('about:blank');
  await context.setOffline(false);
  await page.goto('/day-sheet');
  await expect.poll(() => noteOf(page, id)).toBe('Four are missing.');
});

test('a session that ends while a note is typed: signing in again on the page sends it, and nothing has moved', async ({
  page,
}) => {
  await stepIn(page, 'Nadia Orme');
  const sheet = await ownTask(page, 'Grease the hoist');
  const id = taskIdOf(page);
  const address = page.url();
  // In the pause before it is sent: what the browser asks for of itself may meet the ended session sooner, and the
  // dialog then has whatever is typed next.
  await sheet.getByLabel('Note').fill('Cup is empty.');
  await page.request.delete('/api/session', { headers: { Origin: new URL(address).origin } });
  const again = page.getByRole('dialog', { name: 'Sign in again' });
  await expect(again).toContainText('Sign in again as Nadia Orme');
  await expectAccessible(again);
  await page.keyboard.press('Escape');
  await expect(again).toBeVisible();
  await again.getByLabel('E-mail').fill('nadia@ternquay.example');
  await again.getByLabel('Password', { exact: true }).fill('not this');
  await again.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(again.getByRole('alert')).toContainText('do not go together');
  await again.getByRole('button', { name: 'Step in again as Nadia Orme' }).click();
  await expect(again).toHaveCount(0);
  expect(page.url()).toBe(address);
  await expect(sheet.getByLabel('Note')).toHaveValue('Cup is empty.');
  await expect.poll(() => noteOf(page, id)).toBe('Cup is empty.');
});

test('two who write one note keep both, and a task given away while it is typed on loses nothing', async ({
  page,
  browser,
  baseURL,
}) => {
  await stepIn(page, 'Nadia Orme');
  const sheet = await ownTask(page, 'Wash the launch');
  const id = taskIdOf(page);
  const ines = await browser.newPage({ ...(baseURL ? { baseURL } : {}) });
  await stepIn(ines, 'Ines Calloway');
  const headers = { Origin: new URL(page.url()).origin };
  const put = (note: string, was: string) =>
    ines.request.put(`/api/tasks/${id}/note`, { headers, data: { note, was } });
  // Typed, and not sent before somebody else has written.
  await sheet.getByLabel('Note').pressSequentially('Mine.');
  expect((await put('Theirs.', '')).status()).toBe(200);
  await expect(sheet.getByRole('alert')).toContainText('Somebody else has written the note meanwhile');
  await expect(sheet.getByRole('alert')).toContainText('Theirs.');
  await expectAccessible(sheet);
  await sheet.getByRole('button', { name: 'Keep both' }).click();
  await expect.poll(() => noteOf(page, id)).toBe('Theirs.\nMine.');
  // Given away in the middle of a sentence.
  const { version } = (await (await ines.request.get(`/api/tasks/${id}`)).json()) as { version: number };
  const people = (await (await ines.request.get('/api/workspace')).json()) as {
    people: { id: string; name: string }[];
  };
  const kit = people.people.find(({ name }) => name === 'Kit Sorrell')?.id;
  await sheet.getByLabel('Note').press('End');
  await sheet.getByLabel('Note').pressSequentially(' And more');
  const given = await ines.request.post('/api/tasks/changes', {
    headers,
    data: { tasks: [{ id, version }], deed: { kind: 'give', personId: kit } },
  });
  expect(given.status()).toBe(200);
  await expect(sheet.getByText('Not taken.')).toBeVisible();
  await expect(sheet).toContainText('And more');
  await sheet.getByRole('button', { name: 'Let it go' }).click();
  await expect(sheet.getByText('Not taken.')).toHaveCount(0);
  await ines.close();
});

test('a tick without a connection says that it is not sent yet, and one that is refused goes back', async ({
  page,
  context,
}) => {
  await stepIn(page, 'Nadia Orme');
  // Of today, with lines left to tick: what is late may ask for its proof first.
  const thisDay = page.locator('[data-band]', { hasText: 'this day' });
  await thisDay
    .locator('[data-line]', { hasText: /[0-3]\/[4-6]/ })
    .locator('[data-row]')
    .first()
    .click();
  const sheet = page.getByRole('complementary').last();
  const box = sheet.getByRole('checkbox', { checked: false, disabled: false }).first();
  await expect(box).toBeVisible();
  const line = sheet.locator('li', { has: page.getByRole('checkbox', { checked: false, disabled: false }) }).first();
  const words = (await line.innerText()).split('\n')[0] ?? '';
  const own = sheet.locator('li', { hasText: words }).first();
  await context.setOffline(true);
  await own.getByRole('checkbox').first().check();
  await expect(own).toContainText('not sent yet');
  await context.setOffline(false);
  await expect(own).not.toContainText('not sent yet');
  await expect(own.getByRole('checkbox').first()).toBeChecked();
  await page.route('**/ticks', (route) =>
    route.fulfill({
      status: 409,
      contentType: 'application/problem+json',
      body: JSON.stringify({ type: 'about:blank', title: '', status: 409, detail: 'This task is done.' }),
    }),
  );
  // Not `uncheck`, which wants to see it without its tick: the refusal may be quicker.
  await own.getByRole('checkbox').first().click();
  await expect(page.getByText('This task is done.')).toBeVisible();
  await expect(own.getByRole('checkbox').first()).toBeChecked();
});

test('what nobody has stands on the day sheet of everybody who can take it, and is claimed there', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  const headers = { Origin: new URL(page.url()).origin };
  const data = {
    ...{ title: 'Meet the surveyor', on: '2026-11-24', dueOn: '2026-11-24', startTime: null, dueTime: '16:00' },
    ...{ assigneeId: null, clientId: null, assetId: null, estimateMinutes: 20 },
  };
  expect((await page.request.post('/api/tasks', { headers, data })).status()).toBe(200);
  await page.request.delete('/api/session', { headers });
  await stepIn(page, 'Nadia Orme');
  const band = page.locator('[data-band]', { hasText: 'nobody’s' });
  await expect(band.getByRole('link', { name: 'Meet the surveyor' })).toBeVisible();
  await expectAccessible(page);
  await band.getByRole('button', { name: 'Claim: Meet the surveyor' }).click();
  await expect(page.getByText('“Meet the surveyor” is yours.')).toBeVisible();
  await expect(
    page.locator('[data-band]', { hasText: 'this day' }).getByRole('link', { name: 'Meet the surveyor' }),
  ).toBeVisible();
});

test('a date that can’t be read stays as it was typed, says why, and is not saved as another', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/new?like=friday');
  const starts = page.getByLabel('Starts on');
  for (const [typed, said] of [
    ['31 feb 2027', 'is no date'],
    ['1/2/2027', 'can be 1 Feb 2027 or 2 Jan 2027'],
    ['next friday', 'can be'],
  ] as const) {
    await starts.fill(typed);
    await starts.blur();
    await expect(starts).toHaveValue(typed);
    await expect(page.getByText(said).first()).toBeVisible();
  }
  await starts.fill('1 Feb 28');
  await starts.blur();
  await expect(starts).toHaveValue('1 Feb 2028');
  await page.getByRole('button', { name: 'Starts on: choose from a month' }).click();
  await expect(page.getByRole('grid', { name: 'February 2028' })).toBeVisible();
  await page.getByRole('button', { name: /Tuesday, February 29th, 2028/ }).click();
  await expect(starts).toHaveValue('29 Feb 2028');
});

test('what stands over the page has the keys alone', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/day-sheet');
  await page.locator('[data-band]', { hasText: 'coming' }).locator('[data-row]').first().click();
  const sheet = page.getByRole('complementary').last();
  await sheet.getByRole('button', { name: 'Skip it' }).click();
  await sheet.getByLabel('Why it is not done this time').fill('Closed for the storm.');
  await sheet.getByRole('button', { name: 'Look at what it changes' }).click();
  const impact = page.getByRole('dialog');
  await expect(impact).toBeVisible();
  const address = page.url();
  for (const key of [']', 'n', 's', '?']) await page.keyboard.press(key);
  await expect(page.getByRole('dialog')).toHaveCount(1);
  expect(page.url()).toBe(address);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(sheet.getByLabel('Why it is not done this time')).toHaveValue('Closed for the storm.');
  expect(await page.evaluate(() => document.activeElement?.tagName)).not.toBe('BODY');
});

test('one’s account: where one is signed in, ended from here', async ({ page, browser, baseURL }) => {
  const other = await browser.newPage({ ...(baseURL ? { baseURL } : {}) });
  await stepIn(other, 'Bram Hollis');
  await stepIn(page, 'Bram Hollis');
  await page.getByRole('link', { name: 'Bram Hollis' }).click();
  await expect(page.getByText('signs in as bram@ternquay.example')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Sign out everywhere else' }).click();
  await expect(page.getByRole('button', { name: 'Sign out there' })).toHaveCount(0);
  expect((await other.request.get('/api/workspace')).status()).toBe(401);
  await other.close();
});
