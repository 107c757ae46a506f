import { deflateSync } from 'node:zlib';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

/** A small PNG, made here: a square of one colour. */
function photo(name = 'stamp.png') {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const head = Buffer.alloc(4);
    head.writeUInt32BE(data.length);
    const tail = Buffer.alloc(4);
    tail.writeUInt32BE(crc32(body));
    return Buffer.concat([head, body, tail]);
  };
  const size = 8;
  const header = Buffer.alloc(13);
  header.writeUInt32BE(size, 0);
  header.writeUInt32BE(size, 4);
  header.set([8, 2, 0, 0, 0], 8);
  const rows = Buffer.alloc(size * (size * 3 + 1), 120);
  for (let row = 0; row < size; row++) rows[row * (size * 3 + 1)] = 0;
  const buffer = Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
  return { name, mimeType: 'image/png', buffer };
}

function crc32(bytes: Buffer): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}

const sheetOf = (page: Page, title: string | RegExp) => page.getByRole('complementary', { name: title });

async function openTemplate(page: Page, name: string) {
  await page.goto('/templates');
  await page.getByLabel('Find templates').fill(name);
  await page.getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
}

test('a set of three tasks on three days, done by two people with a photo, a reading out of limits and a sign-off', async ({
  page,
  browser,
}) => {
  test.setTimeout(120_000);
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates/new');
  await page.getByLabel('Name', { exact: true }).fill('Mast step check');
  await page.getByLabel('Title pattern').fill('Mast step {asset}');
  await page.getByRole('button', { name: 'Paste lines of text' }).click();
  await page.getByRole('textbox', { name: 'Lines of text' }).fill('1. Photo of the step\n- Play at the heel\n');
  await page.getByRole('button', { name: 'Add 2 check lines' }).click();
  await page.getByRole('button', { name: /^Note and proof of check line 1/ }).click();
  await page.getByLabel('Ask for proof: check line 1').selectOption({ label: 'photo or file' });
  await page.getByRole('button', { name: /^Note and proof of check line 2/ }).click();
  await page.getByLabel('Ask for proof: check line 2').selectOption({ label: 'number' });
  await page.getByLabel('check line 2, proof 1, most').fill('3');
  await page.getByLabel('check line 2, proof 1, unit').fill('mm');
  await page.getByRole('button', { name: 'Add a task of its own' }).click();
  await page.getByLabel('Task 3', { exact: true }).fill('Tell the owner of {asset}');
  await page.getByLabel('Task 3: when').selectOption({ label: 'days before' });
  await page.getByLabel('Task 3: how many days').fill('2');
  await page.getByRole('button', { name: 'Task 3: who: whoever has the set' }).click();
  await page.getByPlaceholder('type a name').fill('Bram');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add a task of its own' }).click();
  await page.getByLabel('Task 4', { exact: true }).fill('File the sheet of {asset}');
  await page.getByLabel('Task 4: when').selectOption({ label: 'working days after' });
  await page.getByLabel('Sign-off', { exact: true }).selectOption({ label: 'Bram Hollis signs it off' });
  await expect(page.getByRole('img', { name: /^3 tasks: / })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Save the template' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mast step check');

  await page.getByLabel('The template').getByRole('button', { name: 'Start now' }).click();
  const start = page.getByRole('dialog', { name: 'Start now' });
  await start.getByRole('button', { name: /^For whom/ }).click();
  await page.getByPlaceholder('type a name').fill('crane 2');
  await page.getByPlaceholder('type a name').press('Enter');
  await start.getByLabel('Who has the set').selectOption({ label: 'Nadia Orme' });
  await start.getByLabel('Special this time').fill('Owner wants a copy.');
  await expect(start).toContainText('Tell the owner of Crane 2');
  await expectAccessible(start);
  await start.getByRole('button', { name: 'Make 3 tasks' }).click();
  await expect(page.locator('[data-toast]', { hasText: 'Made 3 tasks' })).toBeVisible();

  const nadia = await (await browser.newContext()).newPage();
  await stepIn(nadia, 'Nadia Orme');
  await nadia.getByRole('link', { name: 'Mast step Crane 2' }).click();
  const mast = sheetOf(nadia, 'Mast step Crane 2');
  await expect(mast).toContainText('Owner wants a copy.');
  await expect(mast).toContainText('0 of 3 tasks done');
  await mast.getByRole('button', { name: 'Start' }).click();
  await expect(mast).toContainText('Still missing: the photo or file for Photo of the step and Play at the heel');
  await mast
    .getByLabel('Photo or file for Photo of the step')
    .setInputFiles({ name: 'not-a-photo.png', mimeType: 'image/png', buffer: Buffer.from('MZ nothing of a picture') });
  await expect(mast.getByRole('alert').filter({ hasText: 'is not a picture' })).toBeVisible();
  await mast.getByRole('button', { name: 'Leave it' }).click();
  await mast.getByLabel('Photo or file for Photo of the step').setInputFiles(photo());
  await expect(mast.getByRole('checkbox', { name: 'Photo of the step' })).toBeChecked();
  await expect(mast.getByRole('img', { name: 'stamp.png' })).toBeVisible();
  await mast.getByRole('textbox', { name: 'Play at the heel', exact: true }).fill('4.5');
  await expect(mast).toContainText('1.5 mm over the limit. Say what you saw or did.');
  await mast.getByRole('textbox', { name: 'Remark on Play at the heel' }).fill('Wedge put in.');
  await mast.getByRole('textbox', { name: 'Remark on Play at the heel' }).blur();
  await expect(mast).not.toContainText('Still missing');
  await expectAccessible(mast);
  await mast.getByRole('button', { name: 'Finish' }).click();
  await expect(mast).toContainText('To check, finished 10:40 by Nadia Orme');
  await expect(mast.getByRole('button', { name: 'Sign it off' })).toBeHidden();

  const bram = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await stepIn(bram, 'Bram Hollis');
  await bram.getByRole('button', { name: 'Check: Mast step Crane 2' }).click();
  const toCheck = sheetOf(bram, 'Mast step Crane 2');
  await expect(toCheck.getByText('1.5 mm over the limit')).toBeVisible();
  await expectAccessible(toCheck);
  await toCheck.getByRole('button', { name: 'Send back' }).click();
  await toCheck.getByLabel(/^What is to be done again/).fill('The photo is too small.');
  await toCheck.getByRole('button', { name: 'Send back' }).click();
  await expect(mast).toContainText('The photo is too small.');
  // The first try breaks off on its way: it is sent again by itself.
  await nadia.route('**/api/files', (route) => route.abort(), { times: 1 });
  // Two at once, one of them as large as a telephone takes them: that is made smaller before it is sent.
  const taken = await sharp({
    create: {
      width: 4000,
      height: 3000,
      channels: 3,
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
      background: '#246',
    },
  })
    .jpeg({ quality: 70 })
    .toBuffer();
  await mast
    .getByLabel('Photo or file for Photo of the step')
    .setInputFiles([photo('larger.png'), { name: 'taken.jpg', mimeType: 'image/jpeg', buffer: taken }]);
  await expect(mast.getByRole('img', { name: 'larger.png' })).toBeVisible();
  const small = mast.getByRole('img', { name: 'taken.jpg' });
  await expect(small).toBeVisible();
  const size = await mast.getByRole('link', { name: 'Open taken.jpg' }).evaluate(async (link: HTMLAnchorElement) => {
    const picture = await createImageBitmap(await (await fetch(link.href)).blob());
    return [picture.width, picture.height];
  });
  expect(size).toEqual([2048, 1536]);
  await mast.getByRole('button', { name: 'Finish' }).click();
  await toCheck.getByRole('button', { name: 'Sign it off' }).click();
  await expect(toCheck).toContainText('signed off by Bram Hollis');
  await toCheck.getByRole('link', { name: 'Tell the owner of Crane 2' }).click();
  const tell = sheetOf(bram, 'Tell the owner of Crane 2');
  await tell.getByRole('button', { name: 'Finish' }).click();
  await expect(tell).toContainText('2 of 3 tasks done');
  await nadia.context().close();
  await bram.context().close();
});

test('from a task to a template to a schedule', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.keyboard.press('c');
  await page.keyboard.type('Empty the oil drums thursday for Fuel dock 40 min');
  await page.keyboard.press('Control+Enter');
  const task = sheetOf(page, 'Empty the oil drums');
  await expect(task).toContainText('Written down by hand');
  await task.getByLabel('Note').fill('Two drums.');
  await task.getByLabel('Note').blur();
  await task.getByRole('link', { name: 'Make a template of it' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Empty the oil drums');
  await expect(page.getByLabel('Estimate', { exact: true })).toHaveValue('40 min');
  await page.getByRole('button', { name: 'Save and set a schedule' }).click();
  await expect(page.getByRole('region', { name: 'What this makes' }).getByRole('heading')).toHaveText(
    'Every week on Thu',
  );
  await expect(page.getByRole('button', { name: 'For whom: Fuel dock' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Who does it: Ines Calloway' })).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('is scheduled')).toBeVisible();
  await expect(page.getByRole('row', { name: /Empty the oil drums/ })).toContainText('every week on Thu');
});

test('a template is started for a client, found by name, on a day chosen on the tideline', async ({ page }) => {
  await stepIn(page, 'Nadia Orme');
  await page.getByRole('slider').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('slider')).toHaveAttribute('aria-valuetext', /^Thu 26 Nov/);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('start something Quentin');
  await page.keyboard.press('Enter');
  const start = page.getByRole('dialog', { name: 'Start now' });
  await start.getByRole('button', { name: /^Template/ }).click();
  await page.getByPlaceholder('type a name').fill('new berth');
  await page.getByPlaceholder('type a name').press('Enter');
  await expect(start).toContainText('New berth-holder · Quentin Brindle');
  await expect(start.getByLabel('The set’s date')).toHaveValue('26 Nov 2026');
  await start.getByRole('checkbox', { name: /Dinghy rack/ }).uncheck();
  await start.getByLabel('Day of First-week call to Quentin Brindle').fill('4 Dec 2026');
  await start.getByRole('button', { name: 'Make 5 tasks' }).click();
  const toast = page.locator('[data-toast]', { hasText: 'Made 5 tasks' });
  await expect(toast).toBeVisible();
  await expect(page.getByRole('link', { name: 'New berth-holder · Quentin Brindle' })).toBeVisible();
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('5 tasks gone again.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'New berth-holder · Quentin Brindle' })).toBeHidden();
});

test('one line makes a task: read while it is typed, names offered, parts taken back, and undone', async ({ page }) => {
  await stepIn(page, 'Ines Calloway');
  await page.keyboard.press('c');
  const bar = page.getByRole('region', { name: 'Capture' });
  const line = bar.getByRole('textbox');
  await expect(line).toBeFocused();
  await page.keyboard.type('ring the crane firm friday 10:00 for Crane 1 20 min to Br');
  await expect(bar.getByRole('option', { name: /Bram Hollis/ })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(line).toHaveValue('ring the crane firm friday 10:00 for Crane 1 20 min to Bram Hollis ');
  await expect(bar).toContainText('Ring the crane firm');
  await expect(bar).toContainText('from 10:00');
  await expect(bar).toContainText('Bram Hollis yard');
  await expect(bar.getByRole('button', { name: 'Add for Fri 27 Nov' })).toBeVisible();
  await expectAccessible(bar);
  await bar.getByRole('button', { name: 'Put estimate back into the title' }).click();
  await expect(bar).toContainText('Ring the crane firm 20 min');
  await expect(bar).toContainText('15 min');
  await line.focus();
  await page.keyboard.press('Escape');
  await expect(bar).toBeHidden();
  await page.keyboard.press('c');
  await expect(line).toHaveValue(/ring the crane firm/);
  await page.keyboard.press('Enter');
  const toast = page.locator('[data-toast]', { hasText: 'Added for Fri 27 Nov: Ring the crane firm, Bram Hollis.' });
  await expect(toast).toBeVisible();
  await expect(line).toHaveValue('');
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('“Ring the crane firm” is gone again.')).toBeVisible();
  await page.keyboard.press('Escape');
});

test('changing one task says that later ones stay, and offers it to the template', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/schedules?find=winch');
  await page
    .getByRole('row', { name: /Slipway winch/ })
    .locator('[data-string] a')
    .last()
    .click();
  const sheet = page.getByRole('complementary');
  const next = sheet.getByRole('link', { name: /Dec/ }).last();
  await next.click();
  // The one before says the same of its schedule.
  await expect(sheet).toContainText('dueMon 14 Dec');
  await expect(sheet).toContainText('Made from Slipway winch, on the schedule second Mon');
  await sheet.getByText('Why it is here, and its history').click();
  await expect(sheet).toContainText('The rule “second Monday of each month, or the working day after” gives');
  await expectAccessible(sheet);
  await sheet.getByRole('button', { name: 'Change this one' }).click();
  await sheet.getByLabel('Estimate').fill('90 min');
  await expect(sheet).toContainText('Later ones of its schedule stay as they are.');
  await sheet.getByRole('button', { name: 'Keep the change' }).click();
  await expect(sheet).toContainText('Later ones still have the estimate of Slipway winch.');
  await sheet.getByRole('button', { name: 'Put the estimate into the template' }).click();
  // Another page would take its request along.
  await expect(page.getByText('It is in the template')).toBeVisible();
  await openTemplate(page, 'Slipway winch');
  await expect(page.getByLabel('Estimate', { exact: true })).toHaveValue('1 h 30');
  await expect(page.getByRole('complementary')).toContainText('Ines Calloway: estimate: 1 h 30, was 1 h 15');
});

test('the library is narrowed, sorted and starred; what is in use is archived, not deleted', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates');
  const rows = page.getByRole('row');
  await expect(rows.nth(1)).toContainText('Crane certification');
  await page.getByRole('button', { name: 'Favourite: Bank reconciliation' }).click();
  await expect(page.getByRole('button', { name: 'Favourite: Bank reconciliation', pressed: true })).toBeVisible();
  await page.getByLabel('What uses it').selectOption({ label: 'by hand' });
  await expect(page.getByRole('link', { name: 'Storm warning' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Payroll run' })).toBeHidden();
  await page.getByLabel('What uses it').selectOption({ label: 'by schedule' });
  await page.getByLabel('Favourites').selectOption({ label: 'favourites among the rest' });
  await page.getByRole('button', { name: 'estimate', exact: true }).click();
  await expect(rows.nth(1)).toContainText('Crane certification');
  await expect(page).toHaveURL(/sort=estimate/);

  await openTemplate(page, 'Deposit review');
  await page.getByRole('button', { name: 'Delete' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('“Deposit review” is in use');
  await expect(dialog).toContainText('last working day of every quarter');
  await expectAccessible(dialog);
  await dialog.getByRole('button', { name: 'Archive it instead' }).click();
  await expect(dialog).toContainText('1 schedule makes nothing more, from today until it is brought back.');
  await dialog.getByRole('button', { name: 'Archive it' }).click();
  await expect(page.getByText(/^archived since 24 Nov 2026/)).toBeVisible();
  await page.locator('[data-toast]', { hasText: 'Archived' }).getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/^archived since/)).toBeHidden();
  await page.getByRole('link', { name: 'Duplicate' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Deposit review, copy');
});

test('instructions hold headings, lists, links and a pasted picture, and nothing that runs', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/templates/new');
  await page.getByLabel('Name', { exact: true }).fill('Pictured work');
  await page.getByLabel('Title pattern').fill('Pictured work');
  const text = page.getByRole('textbox', { name: 'Instructions' });
  await text.click();
  await page.getByLabel('Kind of paragraph').selectOption({ label: 'Heading' });
  await text.pressSequentially('First');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Bullets' }).click();
  await text.pressSequentially('look');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Link', exact: true }).click();
  await page.getByLabel('Address of the link').fill('example.org/chart');
  await page.keyboard.press('Enter');
  await expect(text.getByRole('link')).toHaveAttribute('href', 'https://example.org/chart');
  const bytes = [...photo().buffer];
  await text.evaluate((element, data) => {
    const clipboardData = new DataTransfer();
    clipboardData.items.add(new File([new Uint8Array(data)], 'pasted.png', { type: 'image/png' }));
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, bytes);
  await expect(text.locator('img')).toHaveAttribute('src', /\/api\/files\//);
  await page.getByLabel('File for every task').setInputFiles(photo('chart.png'));
  await expect(page.getByRole('link', { name: 'chart.png', exact: true })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Save the template' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Pictured work');
  await page.reload();
  await expect(text.locator('h2')).toHaveText('First');
  await expect(text.locator('img')).toHaveJSProperty('naturalWidth', 8);
  await expect(page.getByRole('link', { name: 'chart.png', exact: true })).toBeVisible();
});
