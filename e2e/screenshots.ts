import type { Page } from '@playwright/test';
import { expect, stepIn, test } from './journey.ts';

/** One current picture of each main view, from the demo on a fixed day: npm run screenshots. */

const FOLDER = 'docs/screenshots';

async function take(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(600);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
}

async function wear(page: Page, theme: 'daybreak' | 'nightwatch'): Promise<void> {
  await page.addInitScript((name) => localStorage.setItem('jolly-rota.theme', name), theme);
}

test('the schedule bench, a rule that is counted from other days', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/schedules?find=payroll');
  await page.getByRole('link', { name: 'Payroll run' }).click();
  await page.getByLabel('Appears, how many days').fill('5');
  await page.getByLabel('When, in words').fill('3 working days before month end and the Friday before the 15th');
  await take(page, 'schedule-bench-daybreak');
});

test('schedules and templates', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await expect(page.getByText(/^of [\d,]+ tasks$/)).toBeVisible();
  await take(page, 'overview');
  await page.goto('/logbook?week=2026-11-16');
  await expect(page.getByRole('heading', { name: /^Sun\s*22/ })).toBeVisible();
  await take(page, 'logbook');
  await page.goto('/templates');
  await page.getByRole('link', { name: 'Gas and shore power' }).click();
  await expect(page.getByRole('textbox', { name: 'Instructions' }).locator('img')).toBeVisible();
  await take(page, 'template');
});

test('a service plan', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/plans');
  await page.getByRole('link', { name: 'Resident berth' }).click();
  await page.getByRole('button', { name: /^When, Lines/ }).click();
  await page.getByRole('textbox', { name: 'When, in words' }).fill('every 2 months on the first Thursday');
  await page.getByRole('button', { name: 'Done with the rule' }).click();
  await expect(page.getByText('It changes 30 clients, 2 keep their own')).toBeVisible();
  await take(page, 'service-plan');
});

/** A list of another program: phrases as people write them, a client that is not known, a name of nobody here. */
const SCHEDULES = [
  'Procedure,Asset,Frequency,Person,First,Last,Notes',
  'Life-ring count,Gannet Quay,every 2nd Tuesday,Joss Penhale,01/12/2026,,',
  'Fire points,Long Quay,monthly on the 2nd Wed,Nadia Orme,01/12/2026,,ask for the new key',
  'Spill kits,,biweekly,Kit Sorrell,01/12/2026,,',
  'Payroll run,,3 working days before month end,Maud Ferrier,01/12/2026,31/12/2027,',
  'Meter reading,,last working day of every quarter,Oskar Tindle,01/12/2026,,',
  'Workboat engine check,,every other blue moon,Bram Hollis,01/12/2026,,',
  'Slipway winch,,yearly on 15 March and 15 September,Bram Hollis,15/03/2027,,',
  'Slip winch,,every 6 weeks on Fri,Bram Hollis,15/03/2027,,',
  'Washrooms and showers,,every working day,R. Vick,01/12/2026,,',
].join('\r\n');

test('a list of schedules on its way in', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/bring-in?kind=schedules');
  await page
    .getByLabel('The file')
    .setInputFiles({ name: 'old-register.csv', mimeType: 'text/csv', buffer: Buffer.from(SCHEDULES) });
  await expect(page.getByRole('button', { name: /^Bring in \d/ })).toBeVisible();
  await take(page, 'bring-in');
});

test('the worksheet at night', async ({ page }) => {
  await wear(page, 'nightwatch');
  await stepIn(page, 'Ines Calloway');
  await page.goto('/schedules/worksheet?category=inspection');
  const grid = page.getByRole('grid');
  await expect(grid.getByRole('gridcell').first()).toBeVisible();
  await grid.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('evry week on Tue');
  for (const key of ['Enter', 'ArrowRight', 'ArrowRight', 'Shift+ArrowDown', 'Shift+ArrowDown', 'Shift+ArrowDown'])
    await page.keyboard.press(key);
  await page.keyboard.type('715');
  await page.keyboard.press('Enter');
  await take(page, 'worksheet-nightwatch');
});

test('on a phone', async ({ page, context }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await stepIn(page, 'Nadia Orme');
  // Without a net: what was looked at before can be read, and what is done waits.
  await page.goto('/day-sheet');
  const berths = page.getByRole('complementary', { name: 'Visitor berths, Tuesday' });
  await page.getByRole('link', { name: 'Visitor berths, Tuesday' }).first().click();
  await berths.getByRole('button', { name: 'Close' }).click();
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Start: Visitor berths, Tuesday' }).first().click();
  await berths.getByRole('checkbox').first().check();
  await expect(berths).toContainText('Started on this device');
  await berths.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByText('No connection:')).toBeVisible();
  await page.mouse.move(0, 500);
  // Where the last one was closed, the list stands scrolled to it.
  await page.getByRole('main').evaluate((main) => {
    for (const part of main.querySelectorAll('*')) part.scrollTop = 0;
  });
  await take(page, 'day-sheet-phone');
});

test('the calls of a day', async ({ page }) => {
  await stepIn(page, 'Ayesha Quill');
  await page.goto('/calls');
  await expect(page.getByRole('heading', { name: 'Before now' })).toBeVisible();
  await take(page, 'calls');
});

test('how calls went', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/calls/figures');
  await expect(page.getByRole('table', { name: 'Calls by who rang' })).toBeVisible();
  await take(page, 'call-figures');
});

test('a quota of calls', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/calls/quotas');
  await page.getByRole('link', { name: 'Renewal calls' }).click();
  await page.getByLabel('How many calls').fill('32');
  await page.getByLabel('In which time').selectOption('a week');
  await page.getByLabel('In which shares').selectOption('by their hours');
  const weeks = page.getByRole('table', { name: 'Calls of each week and day' });
  await expect(weeks.getByRole('row', { name: /14 Dec/ })).toContainText('32');
  await take(page, 'quota');
});

test('the team, and leave that is asked for', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/team');
  await page.getByRole('button', { name: 'Nadia Orme', exact: true }).click();
  await expect(
    page.getByRole('complementary', { name: 'Nadia Orme' }).getByRole('region', { name: 'Away' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'See impact of the leave of Kit Sorrell' }).click();
  await expect(page.getByRole('dialog')).toContainText('Who gets it');
  await take(page, 'leave-impact');
});

test('all tasks, and a week that is evened out', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/tasks');
  await page.getByRole('checkbox', { name: 'Choose Bank reconciliation' }).first().click();
  await page.keyboard.down('Shift');
  await page.getByRole('checkbox', { name: 'Choose Pumps and hoses' }).first().click();
  await page.keyboard.up('Shift');
  await take(page, 'tasks');
  await page.goto('/wallchart');
  const wall = page.getByRole('grid', { name: 'Wallchart' });
  await wall.focus();
  for (let row = 0; row < 6; row++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  for (let week = 0; week < 2; week++) await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByText('3 chosen')).toBeVisible();
  await take(page, 'wallchart');
  await page.goto('/workload');
  await page.getByRole('button', { name: 'Even out yard' }).click();
  await expect(page.getByText(/for anyone\.$/)).toBeVisible();
  await take(page, 'workload');
});

test('messages, with what happened', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/messages');
  await expect(page.getByRole('row', { name: /^Late/ })).toBeVisible();
  await page.getByRole('button', { name: /^Bell/ }).click();
  await expect(page.getByRole('dialog', { name: 'What happened' })).toBeVisible();
  await take(page, 'messages');
});

test('notices of visits', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/tasks/visits');
  for (const name of ['Gannet Two', 'Spindrift Rose', 'Corncrake'])
    await page.getByRole('row').filter({ hasText: name }).first().getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Write 3 notices' }).click();
  await page.getByRole('button', { name: 'Page of notice 2' }).click();
  await expect(page.getByRole('article', { name: 'The letter' })).toContainText('Coming aboard Spindrift Rose');
  await take(page, 'notices');
});

test('a client, and what one of them sees by a link', async ({ page, browser, baseURL }) => {
  await stepIn(page, 'Ines Calloway');
  await page.goto('/clients?find=grey+wagtail');
  await page.getByRole('link', { name: 'Quentin Brindle' }).click();
  await expect(page.getByRole('heading', { name: 'The year' })).toBeVisible();
  await take(page, 'client');
  const { mails } = await (await page.request.get('/api/post?q=Northing')).json();
  const { text } = await (await page.request.get(`/api/post/${mails[0].id}`)).json();
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, baseURL: baseURL ?? '' });
  const phone = await context.newPage();
  await phone.goto(/\/for-you#\S+/.exec(text)?.[0] ?? '');
  await expect(phone.getByText('the file for 1 and the answer to 3')).toBeVisible();
  await take(phone, 'client-phone');
  await context.close();
});
