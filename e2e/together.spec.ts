import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('two managers change one template: the second is told, and neither is written over', async ({ page, browser }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates');
  await page.getByRole('link', { name: 'Renewal letters' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Renewal letters');
  await page.getByLabel('Instructions', { exact: true }).fill('First thoughts.');

  const other = await browser.newPage();
  await enterAs(other, 'Ines Calloway');
  await other.goto(new URL(page.url()).pathname);
  await other.getByLabel('Instructions', { exact: true }).fill('The other’s words.');
  await other.getByRole('button', { name: 'Save the change' }).click();
  await other
    .getByRole('dialog', { name: 'What this changes' })
    .getByRole('button', { name: /^Change \d/ })
    .click();
  await expect(other.getByText('Saved “Renewal letters”', { exact: false })).toBeVisible();
  await other.close();

  // What somebody else has changed is said as soon as it is saved, and nothing goes over it unseen.
  const meanwhile = page.getByRole('status').filter({ hasText: 'Somebody else has changed instructions' });
  await expect(meanwhile).toContainText('You have changed instructions too.');
  await page.getByRole('button', { name: 'Save the change' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Someone else changed this template' })).toBeVisible();
  await expect(page.getByLabel('Instructions', { exact: true })).toHaveText('First thoughts.');
  await meanwhile.getByRole('button', { name: 'Take theirs there' }).click();
  await expect(page.getByLabel('Instructions', { exact: true })).toHaveText('The other’s words.');
  await expect(page.getByText('Changed, not saved.')).toBeHidden();
});

test('two managers change different parts of one schedule: both are kept, and the second knows', async ({
  page,
  browser,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?find=spill+kits&order=name');
  await page.getByRole('link', { name: 'Spill kits' }).first().click();
  await page.getByLabel('Due time').fill('16:45');
  const other = await (await browser.newContext()).newPage();
  await enterAs(other, 'Ines Calloway');
  await other.goto(new URL(page.url()).pathname);
  await other.getByRole('button', { name: /^Who does it: / }).click();
  await other.getByPlaceholder('type a name').fill('Tamsin');
  await other.getByPlaceholder('type a name').press('Enter');
  await other.keyboard.press('Control+Enter');
  await other
    .getByRole('dialog', { name: 'What this changes' })
    .getByRole('button', { name: /^(Change \d|Save,)/ })
    .click();
  await expect(other.getByText(/^Saved\./)).toBeVisible();
  await other.context().close();

  await expect(page.getByText('Somebody else has changed who does it since you began.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep both' }).click();
  await expect(page.getByRole('button', { name: 'Who does it: Tamsin Wray', exact: true })).toBeVisible();
  await expect(page.getByLabel('Due time')).toHaveValue('16:45');
  await page.keyboard.press('Control+Enter');
  await page
    .getByRole('dialog', { name: 'What this changes' })
    .getByRole('button', { name: /^(Change \d|Save,)/ })
    .click();
  await expect(page.getByText(/^Saved\./)).toBeVisible();
  await page.goto('/schedules?find=spill+kits&order=name');
  await expect(page.getByRole('row', { name: /Spill kits/ }).first()).toContainText('Tamsin Wray');
});

test('changing a schedule says what it did to tasks, and is undone with one click', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?find=spill');
  await page
    .getByRole('row', { name: /Fuel dock/ })
    .getByRole('link', { name: 'Spill kits' })
    .click();
  await expect(page.getByRole('button', { name: 'Save the change' })).toBeDisabled();
  await page.getByRole('button', { name: 'Thursday' }).click();
  await expect(page.getByText('Changed, not saved.')).toBeVisible();
  await page.getByRole('button', { name: 'Save the change' }).click();
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText('In the coming year 26 tasks, 13 more than now.');
  await impact.getByRole('button', { name: /^Add \d/ }).click();
  const toast = page.locator('[data-toast]', { hasText: 'Saved.' });
  await expect(toast).toContainText(/task(s)? made|changed|taken back|No task changes/);
  const phrase = page.getByRole('region', { name: 'What this makes' }).getByRole('heading').first();
  await expect(phrase).toContainText('Tue and Thu');
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-toast]', { hasText: 'The schedule is as it was before.' })).toBeVisible();
  await expect(phrase).not.toContainText('and Thu');
  await expect(page.getByRole('button', { name: 'Tuesday', pressed: true })).toBeVisible();
});

test('a task that is nobody’s is claimed by whoever takes it', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?state=nobody');
  await expect(page.getByRole('row').nth(1)).toContainText('nobody yet');
  // One of its own: what other journeys leave on the list may ask for a ticket, or be taken.
  const line = { title: 'Rinse the hoist', on: '2026-11-24', dueOn: '2026-11-24', startTime: null, dueTime: null };
  const made = await page.request.post('/api/tasks', {
    data: { ...line, assigneeId: null, clientId: null, assetId: null, estimateMinutes: 30 },
    headers: { Origin: new URL(page.url()).origin },
  });
  const { tasks } = (await made.json()) as { tasks: { id: string }[] };
  const address = `/schedules/task/${tasks[0]?.id}`;
  await page.goto(address);
  const sheet = page.getByRole('complementary');
  await expect(sheet).toContainText('nobody yet');
  await page.context().clearCookies();
  await enterAs(page, 'Nadia Orme');
  await page.goto(address);
  await sheet.getByRole('button', { name: 'Claim' }).click();
  await expect(sheet).toContainText('Nadia Orme');
  await expect(sheet.getByRole('button', { name: 'Start' })).toBeVisible();
});

test('staff see the plan and cannot change it', async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  await page.getByRole('link', { name: 'Schedules' }).click();
  await expect(page.getByRole('row').nth(1)).toBeVisible();
  await expect(page.getByRole('button', { name: 'New schedule' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Run now' })).toBeHidden();
  await expect(page.getByRole('button', { name: /^Pause/ })).toHaveCount(0);
  await page.locator('[data-row]').first().click();
  await expect(page.getByRole('region', { name: 'What this makes' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Save/ })).toBeHidden();
});

test('filters are words in the address: linked, reloaded and cleared', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules');
  await page.getByLabel('Category').selectOption('money');
  await page.getByLabel('Order').selectOption({ label: 'by name' });
  await page.getByLabel('Find schedules').fill('post');
  await expect(page).toHaveURL(/category=money&order=name&find=post/);
  await expect(page.getByRole('row')).toHaveCount(3);
  await page.reload();
  await expect(page.getByRole('row')).toHaveCount(3);
  await page.getByLabel('Find schedules').fill('nothing of that name');
  await expect(page.getByRole('heading', { name: 'No schedule fits.' })).toBeVisible();
  await page.getByRole('button', { name: 'Show them all' }).click();
  await expect(page).toHaveURL(/\/schedules$/);
});

test('the theme is chosen and stays chosen', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.getByRole('button', { name: /^Switch to nightwatch/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'nightwatch');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'nightwatch');
  await page.getByRole('button', { name: /^Switch to daybreak/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'daybreak');
});

test('a note is kept when the sheet is closed in the middle of it', async ({ page }) => {
  await stepIn(page, 'Lowri Stagg');
  await page.getByRole('link', { name: 'Fuel dock shift, Tuesday' }).first().click();
  const sheet = page.getByRole('complementary');
  await sheet.getByLabel('Note').fill('Pump 2 slow.');
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
  await page.getByRole('link', { name: 'Fuel dock shift, Tuesday' }).first().click();
  await expect(sheet.getByLabel('Note')).toHaveValue('Pump 2 slow.');
});

test('signing out leaves nothing of one person to the next', async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  const kept = () =>
    page.evaluate(() => Object.keys(sessionStorage).filter((key) => key.startsWith('jolly-rota.draft')));
  await page.goto('/day-sheet?date=2026-11-26');
  await page.locator('[data-line] a[data-row]').first().click();
  await page.getByRole('button', { name: 'Change this one' }).click();
  await page.getByLabel('Title of this task').fill('Something half written');
  expect(await kept()).toHaveLength(1);
  await page.getByRole('button', { name: 'Sign out Nadia Orme' }).click();
  await expect(page.getByLabel('Password')).toBeVisible();
  expect(await kept()).toEqual([]);
  await page.goto('/day-sheet');
  await expect(page).toHaveURL(/sign-in/);
  await page.getByRole('button', { name: /^Bram Hollis/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('24 November');
  await expect(page.getByLabel('Whose day sheet')).toHaveValue(/./);
  await expect(page.getByText('Lifts, Tuesday 24 Nov')).toBeVisible();
});

test('a change is looked at before it is saved, goes as far as it is told, and is put back as a whole', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?find=fire');
  await page
    .getByRole('row', { name: /Long Quay/ })
    .getByRole('link', { name: 'Fire points' })
    .click();
  await page.getByRole('button', { name: /^Who does it/ }).click();
  await page.getByPlaceholder('type a name').fill('kit');
  await page.getByPlaceholder('type a name').press('Enter');
  await page.keyboard.press('Control+Enter');
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText('2changed');
  await expect(impact).toContainText('whoNadia OrmeKit Sorrell');
  await expect(impact).toContainText('showing already');
  await expectAccessible(impact);
  await page.keyboard.press('Escape');
  await expect(impact).toBeHidden();
  await expect(page.getByText('Changed, not saved.')).toBeVisible();
  await page.getByRole('button', { name: 'Save the change' }).click();
  await impact.getByRole('button', { name: 'Change them too' }).click();
  await impact.getByRole('button', { name: 'Change 3 tasks' }).click();
  const toast = page.locator('[data-toast]', { hasText: 'Saved. 3 changed.' });
  await expect(toast).toBeVisible();
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('The schedule is as it was before.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Who does it: Nadia Orme' })).toBeVisible();
});

test('a task is skipped with its reason, and one that is deleted comes back only by hand', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?find=washrooms');
  const string = page.getByRole('row', { name: /Tamsin/ }).locator('[data-string] a');
  await string.last().click();
  const sheet = page.getByRole('complementary');
  const ahead = sheet.getByRole('link', { name: /^(Wed|Thu|Fri|tomorrow)/ }).last();
  const day = /\w+/.exec(await ahead.innerText())?.[0];
  await ahead.click();
  // Until that one is there, the sheet is still about the one before it.
  await expect(sheet.getByRole('definition').filter({ hasText: new RegExp(`^${day}`, 'i') })).toBeVisible();
  await sheet.getByRole('button', { name: 'Skip it' }).click();
  await sheet.getByLabel('Why it is not done this time').fill('Plumber in.');
  await sheet.getByRole('button', { name: 'Look at what it changes' }).click();
  await page.getByRole('button', { name: 'Skip 1 task' }).click();
  await expect(sheet).toContainText('Skipped');
  await page.locator('[data-toast]', { hasText: 'Skipped' }).getByRole('button', { name: 'Undo' }).click();
  await sheet.getByRole('button', { name: 'Delete it' }).click();
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText('1deleted');
  await impact.getByRole('button', { name: 'Delete 1 task' }).click();
  await expect(page.locator('[data-toast]', { hasText: 'Its schedule does not make it again.' })).toBeVisible();
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByText(/^Nothing was missing/)).toBeVisible();
  await page
    .getByRole('row', { name: /Tamsin/ })
    .getByRole('link')
    .first()
    .click();
  const history = page.getByRole('region', { name: 'What this makes' });
  await history.getByRole('button', { name: /^Undo: deleted/ }).click();
  await impact.getByRole('button', { name: 'Add 1 task' }).click();
  await expect(history.getByRole('button', { name: /^Undo: deleted/ })).toHaveCount(0);
});

test('what was deleted is undone long after: one of it on its day, the rest from the history, seen beside in another browser', async ({
  page,
  browser,
}) => {
  await stepIn(page, 'Ines Calloway');
  const title = 'Morning round, Friday';
  await page.goto('/day-sheet');
  // Another of that title may be late.
  const coming = page.locator('[data-band]', { hasText: 'coming' });
  const line = coming.locator(`[data-line][data-task="${title}"]`);
  await line.getByRole('link').focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowDown');
  await page.getByRole('button', { name: 'Delete …' }).click();
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  await page.getByRole('button', { name: 'Delete 2 tasks' }).click();
  await expect(line).toHaveCount(0);

  const beside = await (await browser.newContext()).newPage();
  await enterAs(beside, 'Ines Calloway');
  await beside.goto('/day-sheet?date=2026-11-27');
  const deleted = beside.getByRole('button', { name: `Bring it back: ${title}` });
  await expect(deleted).toBeVisible();
  await expectAccessible(beside);

  await page.goto('/schedules?find=morning round');
  await page
    .getByRole('row', { name: /Morning round/ })
    .getByRole('link')
    .first()
    .click();
  const history = page.getByRole('region', { name: 'What this makes' });
  await expect(history.getByText('deleted on purpose: not made again')).toBeVisible();
  await expectAccessible(history);
  await history.getByRole('button', { name: /^Undo all 2 made together: .*Friday/ }).press('Enter');
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText('1 more change made with it');
  await impact.getByRole('button', { name: 'Go back' }).click();
  await history.getByRole('button', { name: /^Undo: deleted .*Friday/ }).click();
  await impact.getByRole('button', { name: 'Add 1 task' }).click();
  await expect(history.getByRole('button', { name: /^Undo: deleted/ })).toHaveCount(1);
  await expect(deleted).toHaveCount(0);
});

test('two people change one task: what the other has changed is said, and both are kept', async ({ page, browser }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/day-sheet?date=2026-12-01');
  await page.getByRole('link', { name: 'Morning round, Tuesday' }).first().click();
  await expect(page).toHaveURL(/task/);
  const address = page.url();
  const open = async (one: typeof page) => {
    await one.getByRole('button', { name: 'Change this one' }).click();
    return one.getByRole('form', { name: 'Change this task' });
  };
  const form = await open(page);
  await form.getByLabel('Title of this task').fill('Morning round with the harbour master');

  const beside = await (await browser.newContext()).newPage();
  await enterAs(beside, 'Ines Calloway');
  await beside.goto(address);
  const theirs = await open(beside);
  await theirs.getByLabel('Starts at').fill('07:30');
  await theirs.getByRole('button', { name: 'Keep the change' }).click();
  await expect(beside.getByText('Changed this one. Later ones stay as they are.')).toBeVisible();

  await expect(form.getByText('Somebody else has changed start time since you began.')).toBeVisible();
  await expect(form.getByLabel('Starts at')).toHaveValue('08:15');
  await form.getByRole('button', { name: 'Keep the change' }).click();
  await expect(form.getByText(/Yours is still on the screen, not saved\./)).toBeVisible();
  await form.getByRole('button', { name: 'Keep both' }).click();
  await expect(form.getByLabel('Starts at')).toHaveValue('07:30');
  await expect(form.getByLabel('Title of this task')).toHaveValue('Morning round with the harbour master');
  await form.getByRole('button', { name: 'Keep the change' }).click();
  await expect(form).toHaveCount(0);
  await expect(page.getByRole('complementary')).toContainText('07:30–09:00');
});

test('a period is filled after a look at what it makes, seen beside in another browser, and taken back', async ({
  page,
  browser,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules');
  await page.getByRole('link', { name: 'Run log, and fill a period' }).click();
  await page.getByLabel('Schedules with these words').fill('washrooms');
  await page.getByRole('button', { name: /^Feb/ }).click();
  const table = page.getByRole('table', { name: 'What would be made, by template' });
  await expect(table).toContainText('Washrooms and showers');
  await expect(table.getByRole('row').nth(1)).toContainText('28');
  await page.getByRole('button', { name: /^Mar/ }).click({ modifiers: ['Shift'] });
  await expect(page.getByRole('button', { name: 'Make 59 tasks' })).toBeVisible();
  await expectAccessible(page);

  const other = await browser.newPage();
  await enterAs(other, 'Ines Calloway');
  await other.goto('/fill');
  await page.getByRole('button', { name: 'Make 59 tasks' }).click();
  const line = (of: typeof page) => of.getByRole('row', { name: /fill by Ines Calloway/ }).first();
  await expect(line(page)).toContainText('59 made');
  await expect(line(other)).toContainText('59 made');
  await expect(page.getByRole('button', { name: 'Nothing to make' })).toBeVisible();
  await other.getByRole('link', { name: 'fill by Ines Calloway' }).first().click();
  const run = other.getByRole('complementary', { name: 'A run' });
  await expect(run).toContainText('Taking it back removes 59 tasks.');
  await run.getByRole('link', { name: 'Washrooms and showers' }).first().click();
  await other.getByRole('complementary').getByLabel('Note').fill('Order soap.');
  await other.getByRole('complementary').getByLabel('Note').blur();
  await expect(other.getByText('kept', { exact: true })).toBeVisible();
  await other.close();
  await line(page).getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('58 tasks taken back. 1 task stays: somebody has worked on it.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make 58 tasks' })).toBeVisible();
});
