import { execFileSync } from 'node:child_process';
import { BUILT, enterAs, expect, expectAccessible, test } from './journey.ts';

test(`three visits are announced in one go: one too late is moved, one leaves by mail, the others are handed over ${BUILT}`, async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/tasks/visits?notice=toSend');
  const rows = page.getByRole('row').filter({ hasText: 'not written' }).filter({ hasNotText: 'nobody yet' });
  await expect(rows.nth(2)).toBeVisible();
  const names: string[] = [];
  for (const i of [0, 1, 2]) names.push((await rows.nth(i).getByRole('link').locator('b').textContent()) ?? '');
  const [late = '', mailed = '', handed = ''] = names;
  // What was planned for next week comes sooner: too soon for a notice.
  const { lines } = await (await page.request.get('/api/visits?toSend=yes')).json();
  const visit = lines.find(({ asset }: { asset: { name: string } }) => asset.name === late);
  const moved = await page.request.post('/api/tasks/changes', {
    headers: { Origin: new URL(page.url()).origin },
    data: { tasks: [{ id: visit.taskId, version: visit.version }], deed: { kind: 'moveTo', on: '2026-11-26' } },
  });
  expect(moved.ok()).toBe(true);
  // The same vessel is visited again in January.
  const row = (name: string) => page.getByRole('row').filter({ hasText: name }).first();
  await expect(row(late)).toContainText('5 days too late');
  await expectAccessible(page);

  for (const name of names) await row(name).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Write 3 notices' }).click();
  await expect(page.getByRole('heading', { name: 'Write 3 notices' })).toBeVisible();
  const item = (name: string) =>
    page.getByRole('listitem').filter({ has: page.getByRole('button', { name, exact: true }) });
  await item(handed).getByText('by hand', { exact: true }).click();
  await item(late).getByText('by hand', { exact: true }).click();
  await expect(item(late)).toContainText('5 days too late');
  await expectAccessible(page);
  // As it is, it is refused where it stands.
  await page.getByRole('button', { name: 'Write 3 notices' }).click();
  await expect(item(late).getByRole('alert')).toContainText('it had to go by hand until Thu 19 Nov');
  await item(late).getByRole('button', { name: 'Move the visit to Tue 1 Dec' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Change 1 task/ })
    .click();
  await expect(item(late)).not.toContainText('too late to');
  await expect(item(late)).toContainText('Tue 1 Dec');
  await page.getByRole('button', { name: 'Page of notice 2' }).click();
  await expect(page.getByRole('article', { name: 'The letter' })).toContainText(`Coming aboard`);
  await page.getByRole('button', { name: 'Write 3 notices' }).click();
  await expect(page.getByRole('heading', { name: '3 notices are written.' })).toBeVisible();
  await expect(page.getByText('1 is on the way by mail')).toBeVisible();

  const href = (await page.getByRole('link', { name: 'Open the PDF' }).getAttribute('href')) ?? '';
  const pdf = await (await page.request.get(href)).body();
  const pages = execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf }).toString().split('\f').slice(0, -1);
  expect(pages.length).toBe(3);
  for (const name of names) expect(pages.filter((text) => text.includes(`Coming aboard ${name},`)).length).toBe(1);

  await page.goto('/post?q=Coming');
  await page
    .getByRole('button', { name: new RegExp(`Coming aboard ${mailed},`) })
    .first()
    .click();
  await expect(page.getByRole('link', { name: /\.pdf$/ })).toBeVisible();
  const dates = page.getByRole('link', { name: /\.ics$/ });
  const event = await (await page.request.get((await dates.getAttribute('href')) ?? '')).text();
  expect(event).toContain('BEGIN:VEVENT');
  expect(event).toMatch(/DTSTART:20261\d{3}T\d{6}Z/);

  await page.goto('/tasks/visits');
  await expect(row(mailed)).toContainText('sent 24 Nov, by mail');
  await row(handed).getByRole('checkbox').check();
  await page.getByRole('button', { name: '1 on paper went …' }).click();
  await page.getByRole('button', { name: 'Put it on record' }).click();
  await expect(row(handed)).toContainText('sent 24 Nov, by hand');
  await row(mailed).getByRole('link').click();
  await expect(page.getByRole('complementary').getByText('sent 24 Nov, by mail')).toBeVisible();
});

test('a letter is written with what is filled in for each, and says where it is wrong', async ({ page }) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/tasks/visits/letters');
  await expect(page.getByRole('textbox', { name: 'What the letter says' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'New letter' }).click();
  await expect(page.getByRole('button', { name: 'Add the letter' })).toBeVisible();
  await page.getByLabel('Name of the letter').fill('Winter covers');
  await page.getByLabel('what it is about').fill('Covers for {assett}');
  await page.getByRole('button', { name: 'Add the letter' }).click();
  await expect(page.getByText('Did you mean {asset}?')).toBeVisible();
  await page.getByLabel('what it is about').fill('Covers for {asset}');
  await page.getByRole('textbox', { name: 'What the letter says' }).click();
  await page.keyboard.press('Control+End');
  await page.getByRole('button', { name: '{place}' }).click();
  const example = page.getByRole('region', { name: 'An example' });
  await expect(example).toContainText('Covers for Little Auk');
  await expect(example).toContainText('Ines Callowayberth A4');
  // What is written is there again after a detour.
  await page.reload();
  await expect(page.getByLabel('Name of the letter')).toHaveValue('Winter covers');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('The letter “Winter covers” is kept.')).toBeVisible();
  await expect(
    page.getByRole('navigation', { name: 'Letters' }).getByRole('link', { name: /^Winter covers/ }),
  ).toBeVisible();
});
