import { enterAs, expect, expectAccessible, test } from './journey.ts';

const LIST = [
  'Holder;Boat;Berth;Email;Tel;Adviser;Insured until',
  'Quentin Brindle;Grey Wagtail;berth A 2;quentin.brindle@berth.example;01632 961 118;;',
  'Verity Carrow-Lee;Lady Grebe;E 5;verity@carrow.example;;Ayesha;31/02/2027',
  ';Saltwhistle;E 8;;01632 960 555;Tomas;28/02/2027',
  'Nell Iddonby;Bosun Gannet;D 14;nell at iddonby;;Kit;',
  'Edda Marlowe-Finch;Oak Gall;C 4;verity@carrow.example;;Ayesha;',
  'Fergus Lanyard;Nutshell Two;B 2;fergus@lanyard.example;;Ayesha;31/03/2027',
].join('\n');

test('a list of clients is read, told, mended, brought in, found, and taken out again', async ({ page }) => {
  await enterAs(page, 'Maud Ferrier');
  await page.goto('/clients');
  await page.getByRole('link', { name: 'Bring in a list' }).click();
  await expect(page.getByText('Known columns:')).toBeVisible();
  await page
    .getByLabel('The file')
    .setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('PKzip') });
  await expect(page.getByText(/It is a spreadsheet, not a CSV file/)).toBeVisible();
  await expectAccessible(page);
  await page
    .getByLabel('The file')
    .setInputFiles({ name: 'berths.csv', mimeType: 'text/csv', buffer: Buffer.from(LIST) });
  await expect(page.getByRole('button', { name: 'Bring in 3, leave 3' })).toBeVisible();
  await expect(page.getByText('“31/02/2027”: there is no 31 February 2027')).toBeVisible();
  await expect(page.getByText('The client is missing')).toBeVisible();
  await expect(page.getByText('“nell at iddonby” is no mail address')).toBeVisible();
  await expectAccessible(page);
  // It is left and found again.
  await page.getByRole('link', { name: 'Templates' }).click();
  await page.goto('/bring-in');
  await page.getByRole('link', { name: 'berths.csv' }).click();
  await page.getByRole('textbox', { name: 'Insured until of line 2' }).fill('28/02/2027');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Line 2 has the same mail under another name')).toBeVisible();
  await page.getByRole('textbox', { name: 'Holder of line 3' }).fill('Salt Whistlers');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Bring in 4, leave 2' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Who is meant by “Tomas”' }).selectOption({ label: 'Joss Penhale' });
  await page.getByRole('button', { name: 'leave Quentin Brindle, line 1' }).click();
  const deed = page.getByRole('button', { name: 'Bring in 3, leave 3' });
  await expect(deed).toBeEnabled();
  await deed.click();
  await expect(page.getByText('Brought in 3 lines of clients.')).toBeVisible();
  await page.getByRole('link', { name: 'Show the clients' }).click();
  await page.getByRole('searchbox', { name: 'Find a client' }).fill('saltwhistle');
  await expect(page.getByRole('link', { name: 'Salt Whistlers' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Salt Whistlers' })).toContainText('Joss Penhale');
  await page.goBack();
  await page.getByRole('button', { name: 'Take it out again' }).click();
  await expect(page.getByText('3 clients of berths.csv are taken out again.')).toBeVisible();
  await page.goto('/clients?find=saltwhistle');
  await expect(page.getByText('No client of these words.')).toBeVisible();
});

const SCHEDULES = [
  'what,when,by,since',
  'Fire points,every second Tuesday,any of dock crew,',
  'Spill kits,every month on the last working day,Maud Ferrier,1/12/2026',
  'Mooring check,weekly on Monday,,',
].join('\n');

test('a list of schedules is read as on the bench, asked where it has two readings, looked at and taken out again', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules');
  await page.getByRole('link', { name: 'Bring in a list' }).click();
  await page
    .getByLabel('The file')
    .setInputFiles({ name: 'rota.csv', mimeType: 'text/csv', buffer: Buffer.from(SCHEDULES) });
  await expect(page.getByText(/This can mean “every 2 weeks on Tue”/)).toBeVisible();
  await expect(page.getByText('There is no template “Mooring check” here')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'every 2 weeks on Tue', exact: true }).click();
  const deed = page.getByRole('button', { name: /^Bring in 2, leave 1/ });
  await expect(deed).toBeEnabled();
  await deed.click();
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText('rota.csv, 2 lines');
  await expectAccessible(impact);
  await page.keyboard.press('Enter');
  await expect(page.getByText('Brought in 2 lines of schedules.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it out again' }).click();
  await expect(impact).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/2 schedules of rota\.csv are taken out again/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take it out again' })).toBeHidden();
});

const CALENDAR = [
  ...['BEGIN:VCALENDAR', 'VERSION:2.0'],
  ...[
    'BEGIN:VEVENT',
    'UID:lights@x',
    'SUMMARY:Harbour lights',
    'DTSTART;TZID=Harbour time:20261201T090000',
    'DURATION:PT45M',
  ],
  ...['RRULE:FREQ=WEEKLY;BYDAY=TU', 'ATTENDEE;CN=Maud Ferrier:mailto:maud@elsewhere.example', 'END:VEVENT'],
  ...['BEGIN:VEVENT', 'UID:founders@x', 'SUMMARY:Founders’ day', 'DTSTART;VALUE=DATE:20270318', 'END:VEVENT'],
  ...['BEGIN:VTODO', 'UID:cover@x', 'SUMMARY:Winter cover', 'DURATION:PT2H', 'END:VTODO'],
  'END:VCALENDAR',
].join('\r\n');

test('a calendar that was pasted becomes schedules, days off and templates, and is known when it comes again', async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/bring-in?kind=calendar');
  const pasted = page.getByRole('textbox', { name: 'A calendar as text' });
  await pasted.fill('not a calendar');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText(/That is no calendar file/)).toBeVisible();
  await expect(pasted).toHaveValue('not a calendar');
  await pasted.fill(CALENDAR);
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(
    page.getByText('Its times are in “Harbour time”, which is no zone known here: say which it is'),
  ).toBeVisible();
  await page.getByRole('textbox', { name: 'The zone that “Harbour time” is' }).fill('Europe/London');
  await expect(page.getByText('schedule at 09:00: every week on Tue, Maud Ferrier')).toBeVisible();
  await page.getByRole('combobox', { name: /^What Founders’ day becomes/ }).selectOption('days off');
  await expect(page.getByText('1 day off, Thu 18 Mar 2027')).toBeVisible();
  await expect(page.getByText('template, 120 min')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Bring in 3' }).click();
  const impact = page.getByRole('dialog', { name: 'What this changes' });
  await expect(impact).toContainText('pasted calendar.ics');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Brought in 3 entries.')).toBeVisible();
  await page.goto('/bring-in?kind=calendar');
  await pasted.fill(CALENDAR);
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('say nothing new')).toBeVisible();
  await page.goto('/bring-in?kind=calendar');
  await page
    .getByRole('listitem')
    .filter({ has: page.getByText('brought in', { exact: true }) })
    .getByRole('link')
    .click();
  await page.getByRole('button', { name: 'Take it out again' }).click();
  await expect(impact).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/3 entries of pasted calendar\.ics are taken out again/)).toBeVisible();
});
