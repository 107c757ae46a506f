import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('five take turns by the week, ordered by keyboard, two of them swapped; each sees it on the day sheet @built', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/new');
  await page.getByRole('button', { name: /^Template/ }).click();
  await page.getByPlaceholder('type a name').fill('Winch');
  await page.keyboard.press('Enter');
  await page.getByLabel('When, in words').fill('every weekday');
  await page.getByText('in turn', { exact: true }).click();
  await page.getByRole('button', { name: /^Add a person to the turns/ }).click();
  await page.getByPlaceholder('type a name').fill('all of dock crew');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Take Ines Calloway out of the turns' }).click();
  await page.getByRole('button', { name: 'Take Corin Hale out of the turns' }).click();
  const order = page.getByRole('list', { name: 'The order of turns' });
  await expect(order.getByRole('listitem')).toHaveCount(6);
  await page.getByRole('button', { name: 'Take Piet Garrow out of the turns' }).click();
  // By keyboard: the last one comes first.
  await page.getByRole('button', { name: 'Move Wilf Ardley, place 5' }).press('Space');
  const heard = page.locator('[id^=DndLiveRegion]');
  await expect(heard).toContainText('Wilf Ardley is over place 5 of 5');
  for (const place of [4, 3, 2, 1]) {
    await page.keyboard.press('ArrowUp');
    await expect(heard).toContainText(`Wilf Ardley is over place ${place} of 5`);
  }
  await page.keyboard.press('Space');
  await expect(order.getByRole('listitem').first()).toContainText('Wilf Ardley');
  const makes = page.getByRole('region', { name: 'What this makes' });
  await expect(makes.getByRole('heading', { level: 2 })).toContainText('in turn by the week');
  await expect(makes.getByRole('table', { name: /of the coming year by person/ })).toContainText('Wilf');
  await page.getByRole('button', { name: 'Swap two turns' }).click();
  await expect(page.getByRole('button', { name: 'Swap', exact: true })).toBeEnabled();
  await page.getByRole('button', { name: 'Swap', exact: true }).click();
  await expect(makes).toContainText('swapped with');
  await expectAccessible(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/is scheduled\./)).toBeVisible();
  await page.goto('/schedules?find=slipway+turn');
  await expect(page.getByText(/^in turn: /).first()).toBeVisible();
  await page.getByRole('link', { name: 'Slipway winch' }).first().click();
  await expect(makes).toContainText('turn 1 of 5');

  // Somebody joins at the end of the order: turns until then stay whose they are.
  const before = await makes.getByRole('row').filter({ hasText: 'turn' }).allInnerTexts();
  await page.getByRole('button', { name: /^Add a person to the turns/ }).click();
  await page.getByPlaceholder('type a name').fill('Corin');
  await page.keyboard.press('Enter');
  await expect(makes).toContainText('turn 1 of 6');
  const whose = (rows: readonly string[]) => rows.map((row) => row.replace(/ of \d/, ''));
  expect(whose(await makes.getByRole('row').filter({ hasText: 'turn' }).allInnerTexts())).toEqual(whose(before));
  await page.keyboard.press('Control+Enter');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^(Save|Change|Add)/ })
    .click();
  await expect(page.getByRole('dialog')).toBeHidden();

  // Away in the middle of a turn: the next in the order has that day, and the order goes on.
  await page.goto('/team');
  await page.getByRole('link', { name: 'Nadia Orme' }).click();
  const away = page.getByRole('region', { name: 'Away' });
  await away.getByRole('button', { name: 'write when' }).click();
  for (const [label, day] of [
    ['Away from', '16 Dec 2026'],
    ['Away to', '16 Dec 2026'],
  ] as const) {
    await away.getByRole('textbox', { name: label }).fill(day);
    await away.getByRole('textbox', { name: label }).press('Enter');
  }
  await away.getByRole('button', { name: 'See impact' }).click();
  const impact = page.getByRole('dialog', { name: 'Nadia Orme is away' });
  await expect(impact.locator('[data-band]', { hasText: 'by turn' })).toContainText('Slipway winch');
  // What is given by name goes to somebody else, this once.
  await impact.getByRole('button', { name: /^Who takes what is given by name/ }).click();
  await page.getByPlaceholder('type a name').fill('tamsin');
  await page.keyboard.press('Enter');
  await expect(impact.locator('[data-band]', { hasText: 'by name' })).toContainText('Tamsin Wray');
  await impact.getByRole('button', { name: /^Enter the leave/ }).click();
  await expect(page.getByText('Nadia Orme is away then.')).toBeVisible();

  for (const [name, date] of [
    ['Joss Penhale', '2026-11-26'],
    ['Wilf Ardley', '2026-12-03'],
    ['Kit Sorrell', '2026-12-10'],
    ['Tamsin Wray', '2026-12-16'],
    ['Nadia Orme', '2026-12-17'],
    ['Corin Hale', '2026-12-31'],
  ] as const) {
    await page.goto(`/day-sheet?date=${date}`);
    await page.getByRole('combobox', { name: 'Whose day sheet' }).selectOption({ label: name });
    await expect(page.getByText(/^Slipway winch/).first(), `${name} on ${date}`).toBeVisible();
  }
});

test('leave is asked for on a phone, looked at and given by the manager, and its work comes back by an undo', async ({
  page,
  browser,
}) => {
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await enterAs(phone, 'Nadia Orme');
  await phone.goto('/account');
  const away = phone.getByRole('region', { name: 'Away' });
  await away.getByRole('button', { name: 'write when' }).click();
  await away.getByRole('textbox', { name: 'Away from' }).fill('8 Dec 2026');
  await away.getByRole('textbox', { name: 'Away from' }).press('Enter');
  await away.getByRole('textbox', { name: 'Away to' }).fill('7 Dec 2026');
  await away.getByRole('textbox', { name: 'Away to' }).press('Enter');
  await expect(away.getByText('The last day lies before the first.')).toBeVisible();
  await away.getByRole('textbox', { name: 'Away to' }).fill('9 Dec 2026');
  await away.getByRole('textbox', { name: 'Away to' }).press('Enter');
  await away.getByRole('textbox', { name: 'A note on the leave' }).fill('Moving house.');
  await expectAccessible(phone);
  await away.getByRole('button', { name: 'Ask for it' }).click();
  await expect(away.getByText('Tue 8 to Wed 9 Dec')).toBeVisible();
  await phone.context().close();

  await enterAs(page, 'Ines Calloway');
  await page.goto('/team');
  const lines = page.locator('[data-band]').filter({ hasText: 'ask for leave' });
  await expect(lines.getByText('Moving house.')).toBeVisible();
  await lines.getByRole('button', { name: 'See impact of the leave of Nadia Orme' }).first().click();
  const dialog = page.getByRole('dialog', { name: 'Nadia Orme is away' });
  await expect(dialog.getByText(/^2 working days\./)).toBeVisible();
  await expect(dialog.getByText('Kit Sorrell').first()).toBeVisible();
  await expectAccessible(dialog);
  await dialog.getByRole('button', { name: /^Give the leave/ }).click();
  await expect(page.getByText('Nadia Orme is away then.')).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(lines.getByText('Moving house.')).toBeVisible();
});

test('what any one of the crew may take is taken by one, and the other is told', async ({ page, browser }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/new');
  await page.getByRole('button', { name: /^Template/ }).click();
  await page.getByPlaceholder('type a name').fill('Spill');
  await page.keyboard.press('Enter');
  await page.getByLabel('When, in words').fill('every day');
  await page.getByText('any one of several', { exact: true }).click();
  await page.getByRole('button', { name: /^Of whom/ }).click();
  await page.getByPlaceholder('type a name').fill('dock crew');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/is scheduled\./)).toBeVisible();
  const second = await (await browser.newContext()).newPage();
  await stepIn(page, 'Nadia Orme');
  await stepIn(second, 'Nadia Orme');
  const band = (of: typeof page) => of.locator('[data-band]').filter({ hasText: 'to take' });
  await expect(band(page).locator('[data-task^="Spill"]').first()).toBeVisible();
  await band(second)
    .getByRole('link', { name: /^Spill/ })
    .first()
    .click();
  await expect(second.getByRole('button', { name: 'Take it' })).toBeVisible();
  await band(page)
    .getByRole('button', { name: /^Claim: Spill/ })
    .first()
    .click();
  await expect(page.getByText(/is yours\.$/)).toBeVisible();
  await page.locator('[data-task^="Spill"]').first().click();
  await expect(page.getByText('Nadia Orme (taken)')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Give it back' }).click();
  await expect(page.getByText(/anyone’s to take again\.$/)).toBeVisible();
  await second.context().close();
});

test('an overfull week is evened out in part, and comes back by one undo', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Workload' }).click();
  const bram = page.getByRole('button', { name: /^Bram Hollis, week from 7 Dec/ });
  await expect(bram).toHaveAccessibleName(/over$/);
  await bram.press('ArrowDown');
  await expect(page.getByRole('button', { name: /^Selwyn Dace, week from 7 Dec/ })).toBeFocused();
  await bram.click();
  const sheet = page.getByRole('complementary', { name: 'Bram Hollis, week from 7 Dec' });
  await expect(sheet.getByRole('link', { name: 'Winter covers, row A' })).toBeVisible();
  await expectAccessible(sheet);
  await page.getByRole('button', { name: 'Even out yard' }).click();
  const even = page.getByRole('complementary', { name: 'Even out yard' });
  await expect(even.getByText(/for Bram to \d+% for anyone\.$/)).toBeVisible();
  await even
    .getByRole('button', { name: /^Leave the move of/ })
    .first()
    .click();
  await expectAccessible(even);
  await even.getByRole('button', { name: /^Make \d+ moves?$/ }).click();
  await expect(page.getByText(/given to others\.$/)).toBeVisible();
  await expect(bram).not.toHaveAccessibleName(/over$/);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(bram).toHaveAccessibleName(/over$/);
});

test('a task is carried to somebody else on its day by mouse, and chosen ones are given by keyboard', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/workload?unit=day');
  const cell = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}, Tue 8 Dec: `) });
  await expect(cell('Bram Hollis')).toHaveAccessibleName(/8 of 7.5 hours, over$/);
  await cell('Bram Hollis').click();
  const sheet = page.getByRole('complementary', { name: 'Bram Hollis, 8 Dec' });
  await expect(sheet).toContainText('3.5 h free among them');
  await expectAccessible(sheet);
  await sheet.getByRole('listitem').filter({ hasText: 'Winter covers' }).dragTo(cell('Selwyn Dace'));
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('given to Selwyn Dace');
  await dialog.getByRole('button', { name: 'Change 1 task' }).click();
  await expect(cell('Bram Hollis')).toHaveAccessibleName(/4 of 7.5 hours$/);
  await expect(cell('Selwyn Dace')).toHaveAccessibleName(/8 of 7.5 hours, over$/);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(cell('Bram Hollis')).toHaveAccessibleName(/over$/);
  // The same without a mouse: chosen, and given with a look at what it changes.
  await sheet.getByRole('checkbox', { name: /^Choose Winter covers/ }).press('Space');
  await page.getByRole('button', { name: 'Give to …' }).press('Enter');
  await expect(page.getByRole('region', { name: 'The chosen tasks' })).toContainText('1 task chosen');
});

test('a list of days is pasted, told where it can’t be read, mended and saved; a ticket that ends is said before', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/new');
  await page.getByRole('button', { name: /^Template/ }).click();
  await page.getByPlaceholder('type a name').fill('Lifts of the day');
  await page.keyboard.press('Enter');
  await page.getByLabel('When, in words').fill('every Monday');
  await page.getByText('by a list of days', { exact: true }).click();
  const list = page.getByRole('textbox', { name: 'Who has which days' });
  await list.fill('Mon 30 Nov\tBram\nMon 7 Dec\tSelwn\nMon 18 Jan\tSelwyn');
  await expect(page.getByText('Line 2: Nobody here is called “Selwn”.')).toBeVisible();
  await page.getByRole('button', { name: 'Selwyn Dace instead' }).click();
  await expect(page.getByText(/^3 turns of 2 people, Mon 30 Nov to Mon 18 Jan 2027$/)).toBeVisible();
  await expectAccessible(page);
  const makes = page.getByRole('region', { name: 'What this makes' });
  await expect(makes).toContainText('Selwyn holds the ticket “boat hoist operator” until Fri 8 Jan 2027');
  await expect(makes).toContainText('The list of who has it ends');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/is scheduled\./)).toBeVisible();
  await page.goto('/schedules?find=lifts');
  await expect(page.getByText('as listed until 18 Jan 2027: Bram and Selwyn')).toBeVisible();
});
