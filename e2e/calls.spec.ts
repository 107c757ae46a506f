import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test(`a list is rung by keyboard: reached with a note, called back on a day, undone; and seen beside by the manager ${BUILT}`, async ({
  page,
  browser,
}) => {
  await stepIn(page, 'Ayesha Quill');
  await page.getByRole('link', { name: 'Calls', exact: true }).click();
  const toRing = page.getByRole('region', { name: /to ring$/ });
  const done = page.getByRole('region', { name: /done$/ });
  await expect(toRing).toBeVisible();
  await expectAccessible(page);
  const panel = page.getByRole('complementary');
  const name = (await panel.getByRole('heading', { level: 2 }).innerText()).trim();
  await page.keyboard.press('w');
  await page.keyboard.type('Stays, ask again in spring.');
  await panel.getByRole('heading', { level: 2 }).click();
  await page.keyboard.press('1');
  await expect(page.getByText(`${name}: reached.`)).toBeVisible();
  await expect(done).toContainText('Stays, ask again in spring.');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('The call is as it was before.')).toBeVisible();
  await expect(toRing).toContainText(name);

  // A promise: on the next working day until another is said.
  const next = page.getByRole('complementary', { name: /The call to/ });
  const promised = (await next.getByRole('heading', { level: 2 }).innerText()).trim();
  await page.keyboard.press('3');
  await next.getByLabel('Call back on', { exact: true }).fill('27 Nov 2026');
  await next.getByLabel('At', { exact: true }).fill('14');
  await next.getByRole('button', { name: /^Keep/ }).click();
  const later = page.getByRole('region', { name: /promised$/ });
  await expect(later.getByRole('listitem').filter({ hasText: promised })).toContainText('14:00');

  const beside = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await enterAs(beside, 'Ines Calloway');
  await beside.goto('/calls/quotas');
  await beside.getByRole('link', { name: 'Ayesha Quill' }).click();
  await expect(beside.getByRole('region', { name: /promised$/ })).toContainText(promised);
  // On a phone the call stands above the list, and nothing over anything else.
  const [above, below] = await Promise.all([
    beside.getByRole('complementary', { name: /The call to/ }).boundingBox(),
    beside.getByRole('region', { name: /to ring$/ }).boundingBox(),
  ]);
  expect((above?.y ?? 0) + (above?.height ?? 0)).toBeLessThanOrEqual(below?.y ?? 0);
  await expectAccessible(beside);
});

test('a quota is written in sentences, with its weeks, its pool and its first lists beside it; what can’t be is said', async ({
  page,
  baseURL,
}) => {
  await enterAs(page, 'Ines Calloway');
  // The adviser is away on a Wednesday; Christmas Day is a Friday.
  const { people } = (await (await page.request.get('/api/workspace')).json()) as {
    people: { id: string; name: string }[];
  };
  const ayesha = people.find(({ name }) => name === 'Ayesha Quill')?.id;
  const leave = await page.request.post(`/api/people/${ayesha}/leave`, {
    data: { from: '2026-12-16', to: '2026-12-16', half: null },
    headers: { Origin: new URL(baseURL ?? '').origin },
  });
  expect(leave.ok()).toBe(true);
  await page.goto('/calls/quotas');
  await expectAccessible(page);
  await page.getByRole('link', { name: 'New quota' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Winter checks');
  await page.getByLabel('How many calls').fill('55');
  await page.getByLabel('In which time').selectOption('a week');
  await page.getByLabel('Who rings').selectOption('each berth adviser');
  await page.getByLabel('In which shares').selectOption('by their hours');
  for (const days of ['Holidays', 'Leave'])
    await page.getByLabel(days, { exact: true }).selectOption('made up in the week');
  await page.getByLabel('From', { exact: true }).fill('7 Dec 2026');
  const weeks = page.getByRole('table', { name: 'Calls of each week and day' });
  // Whoever works most has all of it, the other in proportion; days off are made up on those that are left.
  await expect(weeks.getByRole('row', { name: /14 Dec/ })).toContainText('55');
  await expect(weeks.getByRole('row', { name: /21 Dec/ })).toContainText('55');
  await page.getByLabel('Leave', { exact: true }).selectOption('taken off');
  await expect(weeks.getByRole('row', { name: /14 Dec/ })).toContainText('11 off (Ayesha)');
  await expect(page.getByText('a rehearsal: nothing is made')).toBeVisible();
  await page.getByLabel('Add a condition').selectOption('never rung');
  await expect(page.getByRole('button', { name: 'Take out: never rung' })).toBeVisible();
  // Everybody was rung once: the pool is dry, and that is said.
  await expect(page.getByText('the pool runs dry')).toBeVisible();
  await expect(page.getByText(/too few$/).first()).toBeVisible();
  await page.getByLabel('What to ask, a line each').fill('Is she ashore?');
  await page.getByRole('button', { name: 'Save it' }).click();
  await expect(page.getByText('Winter checks is saved.')).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Winter checks');
  await expectAccessible(page);
  // What can't be is said, and nothing typed is lost.
  await page.getByLabel('Name', { exact: true }).fill('Renewal calls');
  await page.getByLabel('Name', { exact: true }).press('Tab');
  await page.getByRole('button', { name: /^Save/ }).click();
  await expect(page.getByText('There is a quota “Renewal calls” already.')).toBeVisible();
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Winter checks');
});

test(`a whole list is rung on a phone without a net: opened anew in the middle, and all of it is there once the net is back ${BUILT}`, async ({
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' });
  const first = await context.newPage();
  await stepIn(first, 'Ayesha Quill');
  await first.goto('/calls');
  const panelOf = (page: typeof first) => page.getByRole('complementary', { name: /The call to/ });
  await expect(panelOf(first)).toBeVisible();
  await first.evaluate(async () => void (await navigator.serviceWorker.ready));
  const left = await first
    .getByRole('region', { name: /to ring$/ })
    .getByRole('listitem')
    .count();
  expect(left).toBeGreaterThan(2);
  await context.setOffline(true);
  const say = async (page: typeof first, outcome: string, note: string) => {
    const name = (await panelOf(page).getByRole('heading', { level: 2 }).innerText()).trim();
    await panelOf(page).getByLabel('Note').fill(note);
    await panelOf(page).getByRole('button', { name: outcome }).click();
    await expect(page.getByRole('region', { name: /done$/ })).toContainText(name);
    return name;
  };
  const names = [await say(first, 'reached', 'Stays on the ramp.')];
  await expect(first.getByRole('region', { name: /done$/ })).toContainText('not sent yet');
  await expectAccessible(first);
  await first.close();

  // Opened anew without a net: what was said stands, and the list goes on.
  const page = await context.newPage();
  await page.goto('/calls');
  await expect(page.getByText('No connection:')).toBeVisible();
  await expect(page.getByRole('region', { name: /done$/ })).toContainText('Stays on the ramp.');
  for (let i = 1; i < left; i++) names.push(await say(page, 'no answer', ''));
  await expect(page.getByRole('region', { name: /to ring$/ })).toHaveCount(0);
  await context.setOffline(false);
  await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 20_000 });
  await page.reload();
  for (const name of names) await expect(page.getByRole('region', { name: /done$/ })).toContainText(name);
  await context.close();

  // The office sees them, and that the list is whole.
  const ines = await (await browser.newContext()).newPage();
  await enterAs(ines, 'Ines Calloway');
  await ines.goto('/calls/figures?weeks=4');
  await expect(ines.getByRole('table', { name: 'Calls by who rang' })).toContainText('Ayesha Quill');
  await expectAccessible(ines);
  await ines.getByRole('table').getByRole('button', { name: 'Ayesha Quill' }).click();
  const behind = ines.getByRole('complementary', { name: 'Calls of Ayesha Quill' });
  await expect(behind).toContainText('Stays on the ramp.');
  await behind.getByRole('button', { name: 'Close' }).click();
  await ines
    .getByRole('button', { name: /reached$/ })
    .first()
    .click();
  await expect(ines.getByRole('complementary', { name: 'Calls: reached' })).toContainText('reached, Ayesha Quill');
});

test('the morning’s mail tells names, numbers and why, with a link to the list', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/post?q=Renewal');
  await page
    .getByRole('button', { name: /Renewal calls: \d+ calls for 24 Nov 2026/ })
    .first()
    .click();
  const mail = page.getByRole('complementary');
  await mail.getByRole('tab', { name: 'as plain text' }).click();
  await expect(mail).toContainText('your list for today has');
  await expect(mail).toContainText(/01632 960 \d{3} \((last rung|\w+ try|never rung|call back|left over)/);
  await expectAccessible(mail);
});

test('one more and one less on a list; the list of whoever fell ill is shared out after a look, and comes back', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/calls/quotas');
  await page.getByRole('link', { name: 'Rhona Vick' }).first().click();
  const toRing = page.getByRole('region', { name: /to ring$/ });
  await expect(toRing).toBeVisible();
  const lines = toRing.getByRole('listitem');
  const before = await lines.count();
  await page.getByRole('button', { name: 'One more call' }).click();
  await page.getByRole('option', { name: 'The next from the pool' }).click();
  await expect(lines).toHaveCount(before + 1);
  const panel = page.getByRole('complementary', { name: /The call to/ });
  const name = (await panel.getByRole('heading', { level: 2 }).innerText()).trim();
  await panel.getByRole('button', { name: 'Off the list' }).click();
  await expect(page.getByText(`${name} is off the list.`)).toBeVisible();
  await expect(lines).toHaveCount(before);
  await page.getByRole('button', { name: 'Share out' }).click();
  const dialog = page.getByRole('dialog', { name: 'Share out the calls of Rhona Vick' });
  await expect(dialog).toContainText(`${before} calls of today left`);
  await expectAccessible(dialog);
  await dialog.getByRole('checkbox', { name: 'Ayesha Quill' }).click();
  await expect(dialog.getByRole('button', { name: 'Give on' })).toBeDisabled();
  await dialog.getByRole('checkbox', { name: 'Ayesha Quill' }).click();
  await dialog.getByRole('button', { name: `Give on ${before} calls` }).click();
  await expect(page.getByText(`${before} calls of Rhona Vick given on.`)).toBeVisible();
  await expect(toRing).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(lines).toHaveCount(before);
});
