import type { APIRequestContext, BrowserContext, Page } from '@playwright/test';
import sharp from 'sharp';
import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

test.use({ serviceWorkers: 'allow', viewport: { width: 390, height: 844 } });

const TODAY = '2026-11-24';
const ROUND = [1, 2, 3, 4, 5, 6].map((number) => `Lamp round ${number}`);

const photo = async () => ({
  name: 'lamp.png',
  mimeType: 'image/png',
  buffer: await sharp({ create: { width: 240, height: 160, channels: 3, background: '#2f6f7e' } })
    .png()
    .toBuffer(),
});

/** Six tasks of a round for somebody, made by a manager: each with a step, a reading and a photo. */
async function makeRound(by: APIRequestContext, origin: string, assigneeId: string): Promise<string[]> {
  const post = async (path: string, data: object) => {
    const answer = await by.post(`${origin}/api${path}`, { data, headers: { Origin: origin } });
    expect(answer.ok(), await answer.text()).toBe(true);
    return answer.json();
  };
  const { template } = await post('/templates', {
    template: {
      ...{ name: `Lamp round ${Date.now()}`, titlePattern: 'Lamp round', category: null, estimateMinutes: 10 },
      instructions: '<p>Look at the glass <strong>and</strong> at the seal.</p>',
      steps: [{ kind: 'check', key: 'lit', text: 'Lamp is lit', note: '', demands: [] }],
      demands: [
        { key: 'volt', label: 'Voltage', kind: 'number', unit: 'V', least: 11, most: 14 },
        { key: 'pic', label: 'Photo of the lamp', kind: 'file' },
      ],
    },
    like: null,
  });
  const ids: string[] = [];
  for (const title of ROUND) {
    const parts = [{ step: '', on: TODAY, startTime: null, dueTime: null, assigneeId }];
    const subject = { clientId: null, assetId: null, assigneeId, special: '' };
    const { tasks } = await post(`/templates/${template.id}/start`, { on: TODAY, ...subject, parts });
    const { id, version } = tasks[0];
    const task = await (await by.get(`${origin}/api/tasks/${id}`)).json();
    const edit = {
      ...{ title, instructions: task.instructions, workOn: TODAY, dueOn: TODAY, startTime: null, dueTime: null },
      ...{ assigneeId, estimateMinutes: 10, priority: 'normal', version, reach: 'one' },
    };
    const edited = await by.put(`${origin}/api/tasks/${id}`, { data: edit, headers: { Origin: origin } });
    expect(edited.ok(), await edited.text()).toBe(true);
    ids.push(id);
  }
  return ids;
}

/** Everything of the round is on the device, and the application itself too. */
async function takenAlong(page: Page, ids: readonly string[]): Promise<void> {
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await expect
    .poll(
      () =>
        page.evaluate(
          (wanted) =>
            new Promise<number>((resolve, reject) => {
              const asked = indexedDB.open('jolly-rota');
              asked.onerror = () => reject(asked.error);
              asked.onsuccess = () => {
                const keys = asked.result.transaction('answers').objectStore('answers').getAllKeys();
                keys.onsuccess = () => {
                  asked.result.close();
                  resolve(wanted.filter((id) => keys.result.includes(`/api/tasks/${id}`)).length);
                };
              };
            }),
          ids,
        ),
      { timeout: 60_000 },
    )
    .toBe(ids.length);
}

async function doOne(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: `Start: ${title}` }).click();
  const sheet = page.getByRole('complementary', { name: title });
  await expect(sheet).toContainText('Look at the glass');
  await sheet.getByRole('checkbox', { name: 'Lamp is lit' }).check();
  await sheet.getByLabel('Voltage').fill('12.4');
  await sheet.getByLabel('Photo or file for Photo of the lamp').setInputFiles(await photo());
  await expect(sheet.getByRole('img', { name: 'lamp.png' })).toBeVisible();
  await sheet.getByLabel('Note', { exact: true }).fill(`Seen, ${title}.`);
  await sheet.getByRole('button', { name: 'Finish' }).click();
  await expect(sheet).toContainText('Finished on this device');
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(page.locator('[data-task]', { hasText: title })).toContainText('not sent yet');
}

test(`a round without a net: done, closed and opened in the middle, and all of it there once when the net is back ${BUILT}`, async ({
  page: first,
  context,
  browser,
  baseURL,
}) => {
  const origin = new URL(baseURL ?? '').origin;
  const office = await browser.newContext({ baseURL: origin });
  const ines = await office.newPage();
  await stepIn(ines, 'Ines Calloway');
  await stepIn(first, 'Nadia Orme');
  const me = await first.evaluate(async () => (await (await fetch('/api/session')).json()).person.id as string);
  const ids = await makeRound(ines.request, origin, me);
  // How it looked last time, for whoever goes there next.
  const seen = await ines.request.post(`${origin}/api/files`, {
    headers: { Origin: origin },
    multipart: { key: crypto.randomUUID(), taskId: ids[5] ?? '', file: { ...(await photo()), name: 'pier.png' } },
  });
  const small = `/api/files/${((await seen.json()) as { file: { id: string } }).file.id}/small`;
  await first.goto('/day-sheet');
  await takenAlong(first, ids);
  // Pictures come last, where the service worker came after the first of it also in a second go.
  await expect
    .poll(() => first.evaluate(async (at) => (await caches.match(at)) !== undefined, small), { timeout: 60_000 })
    .toBe(true);

  await context.setOffline(true);
  for (const title of ROUND.slice(0, 3)) await doOne(first, title);
  await expectAccessible(first);
  await first.close();

  // Opened anew, without a net: what was done is done, and the round goes on.
  const page = await context.newPage();
  await page.goto('/day-sheet');
  await expect(page.getByText('No connection:')).toBeVisible();
  for (const title of ROUND.slice(0, 3))
    await expect(page.locator('[data-task]', { hasText: title })).toContainText('not sent yet');
  for (const title of ROUND.slice(3, 5)) await doOne(page, title);
  await page.getByRole('link', { name: ROUND[5] ?? '', exact: true }).click();
  const last = page.getByRole('complementary', { name: ROUND[5] ?? '' });
  const pier = last.getByRole('img', { name: 'pier.png' });
  await expect.poll(() => pier.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
  await last.getByRole('button', { name: 'Skip it' }).click();
  await last.getByLabel('Why it is not done this time').fill('The pier is shut.');
  await last.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(last).toContainText('Skipped on this device');
  await last.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Capture' }).click();
  await page.getByRole('textbox', { name: 'What is to be done, when' }).fill('Order new lamp glass today');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Kept on this device: “Order new lamp glass”')).toBeVisible();
  await page.keyboard.press('Escape');

  // Meanwhile the office has decided otherwise about one of them.
  const skipped = await ines.request.post(`${origin}/api/tasks/${ids[4]}/skip`, {
    data: { reason: 'Nobody goes there this week.' },
    headers: { Origin: origin },
  });
  expect(skipped.ok()).toBe(true);

  await context.setOffline(false);
  const taskOf = async (id: string | undefined) => (await ines.request.get(`${origin}/api/tasks/${id}`)).json();
  const changesOf = async (id: string | undefined) =>
    (await (await ines.request.get(`${origin}/api/tasks/${id}/history`)).json()) as { entries: unknown[] };
  await expect.poll(async () => (await taskOf(ids[5])).state, { timeout: 60_000 }).toBe('skipped');
  for (const [index, id] of ids.slice(0, 4).entries()) {
    const task = await taskOf(id);
    expect(task).toMatchObject({ state: 'done', doneBy: 'Nadia Orme', note: `Seen, ${ROUND[index]}.` });
    expect(task.answers.volt.value).toBe(12.4);
    expect(task.files).toHaveLength(1);
    // Begun, ticked, read, shown, noted, finished; each once. The manager had named it.
    const { entries } = await changesOf(id);
    expect(JSON.stringify(entries).match(/finished/gi)).toHaveLength(1);
  }
  const captured = await ines.request.get(`${origin}/api/task-list?find=lamp+glass`);
  expect(((await captured.json()) as { lines: unknown[] }).lines).toHaveLength(1);

  // The one that was decided otherwise: what was written is there, and both are shown.
  expect(await taskOf(ids[4])).toMatchObject({ state: 'skipped' });
  await expect(page.getByText('Not taken:').first()).toBeVisible();
  await page.getByRole('link', { name: ROUND[4] ?? '', exact: true }).click();
  const refused = page.getByRole('complementary', { name: ROUND[4] ?? '' });
  await expect(refused).toContainText('Nobody goes there this week.');
  await expect(refused).toContainText('Finished on this device');
  await expect(refused).toContainText(`Seen, ${ROUND[4]}.`);
  await expectAccessible(refused);
  await refused.getByRole('button', { name: /^Let go of all \d things/ }).click();
  await expect(refused).not.toContainText('Finished on this device');
  await office.close();
});

test('what was kept on this device goes with whoever signs out, who is warned of what is not sent', async ({
  page,
  context,
}: {
  page: Page;
  context: BrowserContext;
}) => {
  await enterAs(page, 'Nadia Orme');
  await page.goto('/day-sheet');
  await expect(page.locator('[data-task]').first()).toBeVisible();
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Capture' }).click();
  await page.getByRole('textbox', { name: 'What is to be done, when' }).fill('Sweep the slip today');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Kept on this device: “Sweep the slip”')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('dialog', { name: 'Sign out' })).toContainText('“Sweep the slip”, captured here');
  await page.getByRole('button', { name: 'Stay signed in' }).click();
  await context.setOffline(false);
  await expect(page.getByRole('link', { name: 'Sweep the slip' })).toBeVisible();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page).toHaveURL(/sign-in/);
  const kept = () =>
    page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          const asked = indexedDB.open('jolly-rota');
          asked.onsuccess = () => {
            const all = asked.result.transaction('answers').objectStore('answers').getAllKeys();
            all.onsuccess = () =>
              resolve(all.result.filter((key) => /tasks|people|workspace/.test(String(key))).length);
          };
        }),
    );
  await expect.poll(kept).toBe(0);
});
