import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test('a day off is looked at before it is saved, moves what it must, and is taken back', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Settings' }).click();
  await expect(page.getByRole('heading', { name: 'The year as it is worked' })).toBeVisible();
  await expectAccessible(page);
  const calendar = [
    'BEGIN:VCALENDAR',
    'BEGIN:VEVENT',
    'DTSTART;VALUE=DATE:20270611',
    'SUMMARY:Founders’ day',
    'END:VEVENT',
  ];
  calendar.push('BEGIN:VEVENT', 'DTSTART:20270612T090000', 'SUMMARY:Meeting', 'END:VEVENT', 'END:VCALENDAR');
  await page
    .getByLabel('A calendar file')
    .setInputFiles({ name: 'a.ics', mimeType: 'text/calendar', buffer: Buffer.from(calendar.join('\r\n')) });
  await expect(page.getByText('1 day added.')).toBeVisible();
  await expect(page.getByText('Left: “Meeting”, since it has a time of day.')).toBeVisible();
  await expect(page.getByRole('heading', { name: /Founders’ day on Fri 11 Jun 2027 is a day off/ })).toBeVisible();
  await page.getByRole('button', { name: 'Put back' }).click();
  const firstDay = page.getByRole('textbox', { name: 'First day off' });
  await firstDay.fill('25 Dec 2026');
  await expect(page.getByText('25 Dec 2026 is a day off already: Christmas Day.')).toBeVisible();
  await firstDay.fill('9 Dec 2026');
  await page.getByRole('textbox', { name: 'What the day off is called' }).fill('Regatta');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Regatta on Wed 9 Dec is a day off.' })).toBeVisible();
  await expect(page.getByText('1 change, not saved.')).toBeVisible();
  // What is typed is there after a detour.
  await page.getByRole('link', { name: 'Schedules' }).click();
  // Until it is there the settings still stand, with what is pressed on them.
  await expect(page.getByRole('heading', { level: 1, name: 'Schedules' })).toBeVisible();
  await page.getByRole('link', { name: 'Settings' }).click();
  await expect(page.getByText('1 change, not saved.')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText('Regatta on Wed 9 Dec is a day off');
  await expect(impact).toContainText('Fire points');
  await impact.getByRole('button', { name: /^Change \d+ tasks/ }).click();
  await expect(page.getByText('Saved the settings.')).toBeVisible();
  await page.goto('/schedules?find=fire points long quay');
  await expect(page.getByRole('row', { name: /Long Quay/ })).toBeVisible();
  await page.goto('/settings');
  await expect(page.getByText('Ines Calloway: days off changed').first()).toBeVisible();
  await page
    .getByRole('button', { name: /^Undo: / })
    .first()
    .click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^(Change|Put|Undo)/ })
    .click();
  await expect(page.getByText('The settings are as they were before.')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Name of the day off on 9 Dec 2026' })).toBeHidden();
});

test('what a word means here is settled once, for everybody', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules/new');
  const phrase = page.getByLabel('When, in words');
  await phrase.fill('biweekly on 3 working days');
  await phrase.fill('biweekly');
  await page.getByRole('button', { name: /every 2 weeks on Tue/ }).click();
  await page.getByRole('button', { name: 'Read it so for everybody from now on' }).click();
  const toast = page.locator('[data-toast]', { hasText: '“biweekly” is every two weeks, for everybody here.' });
  await expect(toast).toBeVisible();
  await phrase.fill('biweekly');
  await expect(page.getByText(/This can mean/)).toBeHidden();
  await expect(page.getByRole('heading', { name: 'Every 2 weeks on Tue' })).toBeVisible();
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('The settings are as they were before.')).toBeVisible();
});

test('staff are told that a manager sets it', async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  await expect(page.getByRole('link', { name: 'Settings' })).toBeHidden();
  await page.goto('/settings');
  await expect(page.getByText('Only a manager can change the settings.')).toBeVisible();
});

test('a list gets a name that goes over to everybody, a field appears with the clients, and both are put back', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/settings');
  await page.getByRole('link', { name: 'Lists' }).click();
  await page.getByRole('textbox', { name: 'Teams, 4' }).fill('boatyard');
  await page.getByRole('region', { name: 'Fields of clients' }).getByRole('button', { name: 'Add a field' }).click();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/^The name of the field/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Fields of clients, 5' }).fill('keeps a key');
  await expectAccessible(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Saved the lists.')).toBeVisible();
  const toast = page.locator('[data-toast]', { hasText: 'Saved the lists.' });
  // The toast stays for ten seconds: what became of everybody is asked, not walked to.
  const { people } = (await (await page.request.get('/api/workspace')).json()) as {
    people: { name: string; team: string | null }[];
  };
  expect(people.find(({ name }) => name === 'Bram Hollis')?.team).toBe('boatyard');
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('The settings are as they were before.')).toBeVisible();
  await page.goto('/settings/lists');
  await expect(page.getByRole('textbox', { name: 'Teams, 4' })).toHaveValue('yard');
  await page.getByRole('button', { name: 'Take office out' }).first().click();
  await page.getByRole('button', { name: 'Take office out' }).first().click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(/“office” can’t go: \d people/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Put back' }).click();
});
