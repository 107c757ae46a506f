import type { Browser, Page } from '@playwright/test';
import { BUILT, enterAs, expect, expectAccessible, test } from './journey.ts';

/** The manager, the phone of a client, and where the newest mail about something leads. */
async function both(page: Page, browser: Browser, baseURL: string | undefined, subject: RegExp) {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/overview');
  const address = await linkIn(page, subject);
  const context = await browser.newContext({
    ...{ viewport: { width: 390, height: 844 }, hasTouch: true, serviceWorkers: 'block' },
    baseURL: baseURL ?? '',
  });
  const phone = await context.newPage();
  await phone.goto(address);
  return { address, context, phone };
}

/** Where the newest mail about something leads, as whoever reads it would go there. @param manager signed in as one */
async function linkIn(manager: Page, subject: string | RegExp): Promise<string> {
  const list = await (await manager.request.get('/api/post?q=Insurance')).json();
  const found = list.mails.find((mail: { subject: string }) =>
    typeof subject === 'string' ? mail.subject === subject : subject.test(mail.subject),
  );
  const { text } = await (await manager.request.get(`/api/post/${found?.id}`)).json();
  return /\/for-you#\S+/.exec(text)?.[0] ?? '';
}

/** The sheet of the task that a link opens, on the office's side. */
async function sheetOf(page: Page, address: string) {
  const headers = { Origin: new URL(page.url()).origin, 'link-token': address.split('#')[1] ?? '' };
  const { tasks } = await (await page.request.post('/api/link', { headers, data: {} })).json();
  await page.goto(`/overview/task/${tasks[0].id}`);
  const sheet = page.getByRole('complementary');
  await expect(sheet).toContainText('Asked of the client');
  return sheet;
}

const paper = () => ({ name: 'policy.png', mimeType: 'image/png', buffer: PIXEL });
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test(`a client sends a certificate by a link, on a phone that loses its connection; it comes back with why, and is signed off ${BUILT}`, async ({
  page,
  browser,
  baseURL,
}) => {
  const { address, context, phone } = await both(page, browser, baseURL, /^Insurance certificate for Northing/);
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText('Insurance certificate for Northing');
  await expect(phone.getByText('the file for 1 and the answer to 3')).toBeVisible();
  await expect(phone.getByLabel('Last day it covers', { exact: true })).toHaveValue('Tue 30 Nov 2027');
  await expectAccessible(phone);

  // What is written without a connection stays, over a page that is closed, and is sent once there is one.
  await context.setOffline(true);
  await phone.getByRole('button', { name: 'Yes, some nights' }).tap();
  await phone.getByLabel('Last day it covers', { exact: true }).fill('31 jan 2028');
  await phone.getByRole('button', { name: 'Add a note' }).tap();
  await phone.getByLabel('Anything else that we should know').fill('The new one follows in January.');
  await expect(phone.getByText('No connection just now')).toBeVisible();
  await phone.getByLabel('File for The certificate').setInputFiles({ ...paper(), name: 'on the way.png' });
  await expect(phone.getByRole('alert')).toContainText('It is kept on this device, and goes by itself.');
  // Also of a page that was closed meanwhile.
  await phone.goto('about:blank');
  await context.setOffline(false);
  await phone.goto(address);
  const takeAway = phone.getByRole('button', { name: 'Take away on the way.png' });
  await expect(takeAway).toBeVisible();
  await expect(phone.getByText('on the way.png')).toHaveCount(1);
  await takeAway.tap();
  await expect(phone.getByText('on the way.png')).toBeHidden();
  await phone.reload();
  await expect(phone.getByLabel('Last day it covers', { exact: true })).toHaveValue('Mon 31 Jan 2028');
  await expect(phone.getByRole('button', { name: 'Yes, some nights', pressed: true })).toBeVisible();
  await expect(phone.getByLabel('Anything else that we should know')).toHaveValue('The new one follows in January.');
  // A date that is none is kept as it was typed, and stays missing.
  await phone.getByLabel('Last day it covers', { exact: true }).fill('soon');
  await expect(phone.getByText('not read yet')).toBeVisible();
  await phone.getByLabel('Last day it covers', { exact: true }).fill('31 jan 2028');
  await phone
    .getByLabel('File for The certificate')
    .setInputFiles({ ...paper(), mimeType: 'text/plain', buffer: Buffer.from('x') });
  await expect(phone.getByRole('alert')).toContainText('is not a picture');
  await phone.getByRole('button', { name: 'Leave it' }).tap();
  await phone.getByLabel('File for The certificate').setInputFiles(paper());
  await expect(phone.getByText('policy.png')).toBeVisible();
  await expect(phone.getByText('Still missing')).toBeHidden();
  await phone.getByRole('button', { name: 'Send it to Tern Quay' }).tap();
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText('It is with us, thank you');
  await expect(phone.getByText('Possible until somebody here has looked at it.')).toBeVisible();
  await expectAccessible(phone);

  const sheet = await sheetOf(page, address);
  await expect(sheet).toContainText('To check, finished 10:40 by Cosmo Dunnock');
  await expect(sheet).toContainText('The new one follows in January.');
  await expectAccessible(sheet);
  await sheet.getByRole('button', { name: 'Send back' }).click();
  await sheet.getByLabel(/^What is to be done again/).fill('The second page is missing.');
  await sheet.getByRole('button', { name: 'Send back' }).click();
  await expect(sheet).toContainText('told that it came back');
  const again = await linkIn(page, 'Tern Quay has a question: Insurance certificate for Northing');
  await phone.goto('about:blank');
  await phone.goto(again);
  await expect(phone.getByText('“The second page is missing.”')).toBeVisible();
  await phone.getByRole('button', { name: 'Take away policy.png' }).tap();
  await expect(phone.getByText('the file for 1')).toBeVisible();
  await phone.getByLabel('File for The certificate').setInputFiles([paper(), { ...paper(), name: 'page two.png' }]);
  await expect(phone.getByText('page two.png')).toBeVisible();
  await phone.getByRole('button', { name: 'Send it to Tern Quay' }).tap();
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText('It is with us, thank you');
  await sheet.getByRole('button', { name: /^Sign/ }).click();
  await expect(sheet).toContainText('by Cosmo Dunnock, signed off by Ines Calloway');
  await phone.reload();
  await expect(phone.getByText('Nothing else is asked of you now.')).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Change something' })).toBeHidden();
  await context.close();
});

test('a link is withdrawn, and the next one asks for a code; what was nobody’s is asked of a client by hand', async ({
  page,
  browser,
  baseURL,
}) => {
  const { address, context, phone } = await both(page, browser, baseURL, /^Insurance certificate for Periwinkle/);
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText('Insurance certificate for Periwinkle');
  const sheet = await sheetOf(page, address);
  await expect(sheet).toContainText('Opened 10:40, nothing sent yet.');
  await sheet.getByRole('button', { name: 'Withdraw the link' }).click();
  await expect(sheet).toContainText('withdrawn 10:40');
  await phone.reload();
  await expect(phone.getByRole('alert')).toContainText('This link was withdrawn.');
  await expectAccessible(phone);

  await sheet.getByRole('button', { name: 'Ask once more' }).click();
  await sheet.getByLabel('Whether the link asks for a code').selectOption('code');
  await expectAccessible(sheet);
  await sheet.getByRole('button', { name: 'Send the mail' }).click();
  await expect(sheet).toContainText('asked again by Ines Calloway');
  await phone.goto('about:blank');
  await phone.goto(await linkIn(page, /^Insurance certificate for Periwinkle/));
  await phone.getByRole('button', { name: 'Send the code' }).tap();
  await phone.getByLabel('The code').fill('000 000');
  await phone.getByRole('button', { name: 'Open', exact: true }).tap();
  await expect(phone.getByText('That is not the code. Look at the newest mail.')).toBeVisible();
  await expectAccessible(phone);
  const { mails } = await (await page.request.get('/api/post?q=opens')).json();
  await phone.getByLabel('The code').fill(/^\d{6}/.exec(mails[0].subject)?.[0] ?? '');
  await phone.getByRole('button', { name: 'Open', exact: true }).tap();
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText('Insurance certificate for Periwinkle');
  await phone.reload();
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText('Insurance certificate for Periwinkle');
  await context.close();

  // A schedule is for the client to do.
  await page.goto('/schedules?find=Insurance');
  await page.getByRole('link', { name: 'Insurance certificate' }).first().click();
  await expect(page.getByRole('radio', { name: 'the client’s own contact' })).toBeChecked();
  await expect(page.getByText('no account is needed')).toBeVisible();
  await expectAccessible(page);
});
