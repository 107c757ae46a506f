import type { Browser, Page } from '@playwright/test';
import { startJourneyServer } from '../scripts/journey-server.mjs';
import { enterAs, expect, test } from './journey.ts';

/** One and the same installation on another day: stopped, and started again when it is that moment. */
async function on(now: string, browser: Browser, who: string, journey: (page: Page) => Promise<void>): Promise<void> {
  const { LATER_DATABASE: database = '', LATER_FILES: files = '' } = process.env;
  const server = await startJourneyServer({ build: 'development', database, files, now });
  try {
    expect(await server.ready, 'the server answers').toBe(true);
    const page = await (await browser.newContext({ baseURL: server.address })).newPage();
    await enterAs(page, who);
    await journey(page);
    await page.context().close();
  } finally {
    await server.stop();
  }
}

/** How a call went is with the server, not on this device alone. */
const saved = (page: Page) => page.waitForResponse((answer) => answer.url().endsWith('/rung') && answer.ok());

test('who asked to be called back is on the list of that day at that time, and not before', async ({ browser }) => {
  let promised = '';
  await on('2026-11-24T10:40', browser, 'Ayesha Quill', async (page) => {
    await page.goto('/calls');
    const panel = page.getByRole('complementary', { name: /The call to/ });
    promised = (await panel.getByRole('heading', { level: 2 }).innerText()).trim();
    await page.keyboard.press('3');
    await panel.getByLabel('Call back on', { exact: true }).fill('27 Nov 2026');
    await panel.getByLabel('At', { exact: true }).fill('9:30');
    const kept = saved(page);
    await panel.getByRole('button', { name: /^Keep/ }).click();
    await kept;
    await expect(page.getByRole('region', { name: /promised$/ })).toContainText(promised);
  });
  await on('2026-11-26T10:40', browser, 'Ayesha Quill', async (page) => {
    await page.goto('/calls');
    await expect(page.getByRole('region', { name: /to ring$/ })).toBeVisible();
    await expect(page.getByRole('region', { name: /to ring$/ })).not.toContainText(promised);
  });
  await on('2026-11-27T09:00', browser, 'Ayesha Quill', async (page) => {
    await page.goto('/calls');
    const line = page
      .getByRole('region', { name: /to ring$/ })
      .getByRole('listitem')
      .filter({ hasText: promised });
    await expect(line).toContainText('call back asked for 09:30');
    await line.getByRole('button').first().click();
    const told = saved(page);
    await page.keyboard.press('1');
    await told;
    await expect(page.getByRole('region', { name: /done$/ })).toContainText(promised);
  });
});
