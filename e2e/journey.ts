import { test as base, expect, type Locator, type Page } from '@playwright/test';
import axe from 'axe-core';

const serversOf = (build: string) => (process.env[`${build.toUpperCase()}_URLS`] ?? 'http://127.0.0.1:4180').split(' ');

/** Journeys that are gone once more on the build that people get: what a bundler may change of a page. */
export const BUILT = '@built';

/** A page of this worker's server, that fails its test when the browser or React reports an error or a warning. */
export const test = base.extend<{ quiet: undefined }>({
  // biome-ignore lint/correctness/noEmptyPattern: Playwright reads what a fixture needs from its pattern.
  baseURL: async ({}, use, { parallelIndex, project }) => use(serversOf(project.name)[parallelIndex]),
  quiet: [
    async ({ page }, use) => {
      const errors: string[] = [];
      // A refusal is an answer, not a fault: the browser notes each on its console.
      // Nor is a connection that the journey itself takes away, or the service worker that it goes without.
      const isRefusal = (text: string) =>
        /status of (4\d\d)|net::ERR_(INTERNET_DISCONNECTED|FAILED)|Service Worker registration blocked/.test(text);
      page.on('console', (message) => {
        if (['error', 'warning'].includes(message.type()) && !isRefusal(message.text())) errors.push(message.text());
      });
      page.on('pageerror', (error) => errors.push(error.message));
      await use(undefined);
      expect(errors, 'errors and warnings on the console').toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** Steps in as one of the demo's people without a page, for a journey that begins at an address of its own. */
export async function enterAs(page: Page, name: string): Promise<void> {
  const welcome = await page.request.get('/api/welcome');
  const { demoPeople } = (await welcome.json()) as { demoPeople: { id: string; name: string }[] };
  const personId = demoPeople.find((one) => one.name.startsWith(name))?.id;
  const headers = { Origin: new URL(welcome.url()).origin };
  const entered = await page.request.post('/api/session/demo', { data: { personId }, headers });
  expect(entered.ok(), `${name} steps in`).toBe(true);
}

/** Steps in as one of the demo's people, as people do. */
export async function stepIn(page: Page, name: string): Promise<void> {
  await page.goto('/sign-in');
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  // The page below the bar stands: only then do its keys work.
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByRole('slider')).toBeVisible();
}

/**
 * Nothing that axe finds, in the light theme and in the dark one.
 * @param what a page; or the part of it that is new, where another journey looks at the page without it
 */
export async function expectAccessible(what: Page | Locator): Promise<void> {
  const [page, part] = 'page' in what ? [what.page(), what] : [what, what.locator(':root')];
  // Nothing is judged half way through a fade.
  await page.addStyleTag({
    content: '*, *::before, *::after { transition: none !important; animation: none !important }',
  });
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  const found = await part.evaluate(async (element, tags) => {
    const { axe: inPage } = window as unknown as { axe: typeof axe };
    // Everything once; what a theme can change, in the other as well.
    const themes = { daybreak: tags, nightwatch: { type: 'rule' as const, values: ['color-contrast'] } };
    const told: string[] = [];
    for (const [theme, runOnly] of Object.entries(themes)) {
      document.documentElement.setAttribute('data-theme', theme);
      // Where each of a thousand parts that pass stands is as long to tell as all else.
      const { violations } = await inPage.run(element, { runOnly, resultTypes: ['violations'], preload: false });
      for (const { id, nodes } of violations)
        told.push(`${theme}: ${id}: ${nodes.map(({ target }) => target.join(' ')).join(' | ')}`);
    }
    return told;
  }, WCAG);
  expect(found).toEqual([]);
}
