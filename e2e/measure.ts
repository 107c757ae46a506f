import type { Page } from '@playwright/test';
import pg from 'pg';
import { expect, stepIn, test } from './journey.ts';

/** How quick the interface is with much in it: npm run bench:interface. Prints figures; nothing here fails for being slow. */

const TEMPLATES = 2000;
const STEPS = 200;
const SCHEDULES = 2000;
const ROSTER = 30;

/** Keeps what the browser tells of each keystroke: from the press to the end of its handlers, and to the next frame. */
async function watchKeys(page: Page): Promise<void> {
  await page.evaluate(() => {
    const kept: { handled: number; shown: number }[] = [];
    Object.assign(window, { kept });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as PerformanceEventTiming[])
        if (entry.name === 'keydown' || entry.name === 'input')
          kept.push({ handled: entry.processingEnd - entry.startTime, shown: entry.duration });
    }).observe({ type: 'event', durationThreshold: 16, buffered: false } as PerformanceObserverInit);
  });
}

async function tellKeys(page: Page, what: string, keys: number): Promise<void> {
  const kept = await page.evaluate(() => (window as unknown as { kept: { handled: number; shown: number }[] }).kept);
  const sorted = (of: (entry: { handled: number; shown: number }) => number) => kept.map(of).sort((a, b) => a - b);
  const at = (values: number[], share: number) =>
    values[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0;
  const [handled, shown] = [sorted((entry) => entry.handled), sorted((entry) => entry.shown)];
  console.log(
    `${what}: ${keys} keys, ${kept.length} events over 16 ms to the next frame; handled in ${at(handled, 0.5).toFixed(0)} ms median, ${at(handled, 0.95).toFixed(0)} ms p95; shown in ${at(shown, 0.5).toFixed(0)} ms median, ${at(shown, 0.95).toFixed(0)} ms p95`,
  );
}

/** Frames that came later than two of sixty a second while a list is scrolled from end to end. */
async function scroll(
  page: Page,
  selector: string,
  way: 'down' | 'sideways' = 'down',
): Promise<{ frames: number; late: number; longest: number }> {
  return page
    .locator(selector)
    .first()
    .evaluate(async (frame, along) => {
      const times: number[] = [];
      frame.scrollTo(0, 0);
      for (let i = 0; i < 120; i++) {
        if (along === 'down') frame.scrollTop += frame.scrollHeight / 120;
        else frame.scrollLeft += frame.scrollWidth / 120;
        times.push(await new Promise<number>((resolve) => requestAnimationFrame(resolve)));
      }
      const gaps = times.slice(1).map((time, i) => time - (times[i] ?? time));
      return { frames: gaps.length, late: gaps.filter((gap) => gap > 34).length, longest: Math.max(...gaps) };
    }, way);
}

test('the library of templates', async ({ page }) => {
  test.setTimeout(300_000);
  const database = new pg.Client({ connectionString: process.env['DATABASE_URL'] ?? '' });
  await database.connect();
  await database.query(
    `insert into template (workspace_id, id, version, name, summary, title_pattern, category, instructions, links, priority, finish_with_last,
       numbered, demands, estimate_minutes, assignment, tickets, steps, changed_at)
     select id, gen_random_uuid(), 1, 'Work ' || lpad(n::text, 4, '0'), '', 'Work {date}', 'yard', '<p>How</p>', '[]', 'normal', false,
       false, '[]', 5, '{"v": 1, "kind": "nobody"}', '[]', '[]', now()
     from workspace, generate_series(1, ${TEMPLATES}) n where name = 'Tern Quay'`,
  );
  await database.end();
  await stepIn(page, 'Ines Calloway');
  const answers: number[] = [];
  page.on('requestfinished', (request) => {
    if (request.url().includes('/api/templates')) answers.push(request.timing().responseEnd);
  });
  const from = Date.now();
  await page.goto('/templates');
  await expect(page.getByText(/^20\d\d templates/)).toBeVisible();
  console.log(
    `library of ${TEMPLATES}: whole list after ${Date.now() - from} ms; pages of 500 in ${answers.map((ms) => ms.toFixed(0)).join(', ')} ms`,
  );
  await watchKeys(page);
  const words = 'work 19';
  await page.getByLabel('Find templates').pressSequentially(words, { delay: 60 });
  await expect(page.getByText(/^\d+ of 20\d\d$/)).toBeVisible();
  await tellKeys(page, 'finding in the library', words.length);
  await page.getByLabel('Find templates').fill('');
  const rows = await scroll(page, 'main .overflow-auto');
  console.log(
    `scrolling the library: ${rows.late} of ${rows.frames} frames late, longest ${rows.longest.toFixed(0)} ms`,
  );
});

test('a template with many steps', async ({ page }) => {
  test.setTimeout(300_000);
  await stepIn(page, 'Ines Calloway');
  await page.goto('/templates/new');
  await page.getByLabel('Name', { exact: true }).fill('Refit');
  await page.getByLabel('Title pattern').fill('Refit {asset}');
  await page.getByRole('button', { name: 'Paste lines of text' }).click();
  const lines = Array.from({ length: STEPS }, (_, i) => `Step ${i + 1} of the refit`).join('\n');
  await page.getByRole('textbox', { name: 'Lines of text' }).fill(lines);
  const from = Date.now();
  await page.getByRole('button', { name: `Add ${STEPS} check lines` }).click();
  await expect(page.getByLabel(`Check line ${STEPS}`, { exact: true })).toBeVisible();
  console.log(`${STEPS} steps: pasted and drawn in ${Date.now() - from} ms`);
  await watchKeys(page);
  const words = ' and looked at by a second person';
  await page.getByLabel('Check line 100', { exact: true }).press('End');
  await page.getByLabel('Check line 100', { exact: true }).pressSequentially(words, { delay: 60 });
  await tellKeys(page, `typing in one of ${STEPS} steps`, words.length);
  const moved = Date.now();
  for (let i = 0; i < 10; i++) await page.locator('input[data-step]:focus').press('Alt+ArrowUp');
  console.log(`moving a step by keyboard: ${((Date.now() - moved) / 10).toFixed(0)} ms each, the press included`);
  const rows = await scroll(page, 'fieldset');
  console.log(
    `scrolling ${STEPS} steps: ${rows.late} of ${rows.frames} frames late, longest ${rows.longest.toFixed(0)} ms`,
  );
  const saved = Date.now();
  await page.getByRole('button', { name: 'Save the template' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Refit');
  console.log(`saved and shown in ${Date.now() - saved} ms`);
});

test('the bench with a long order of turns', async ({ page }) => {
  test.setTimeout(300_000);
  const database = new pg.Client({ connectionString: process.env['DATABASE_URL'] ?? '' });
  await database.connect();
  // Everybody stands there as often as it takes.
  const { rows } = await database.query<{ id: string }>(
    `update schedule set assignment = jsonb_build_object('v', 1, 'kind', 'inTurn', 'cover', 'next', 'turns', jsonb_build_object(
       'length', '{"per": "occurrence"}'::jsonb, 'swaps', '[]'::jsonb, 'rosters', jsonb_build_array(jsonb_build_object(
         'from', '2026-11-24', 'people', (select jsonb_agg(id) from (
           select person.id from person, generate_series(1, 3) n
           where workspace_id = schedule.workspace_id and works_from is null and works_until is null order by n, name limit ${ROSTER}) one)))))
     where id = (select s.id from schedule s join template t on t.id = s.template_id where t.name = 'Opening walk' limit 1) returning id`,
  );
  await database.end();
  await stepIn(page, 'Ines Calloway');
  await page.goto(`/schedules/${rows[0]?.id}`);
  await expect(page.getByRole('list', { name: 'The order of turns' }).getByRole('listitem').first()).toBeVisible();
  const phrase = page.getByLabel('When, in words');
  await phrase.fill('');
  await watchKeys(page);
  const words = 'every weekday, or the working day before';
  await phrase.pressSequentially(words, { delay: 60 });
  await tellKeys(page, `typing a rule beside an order of ${ROSTER}`, words.length);
});

test('the worksheet', async ({ page }) => {
  test.setTimeout(300_000);
  const database = new pg.Client({ connectionString: process.env['DATABASE_URL'] ?? '' });
  await database.connect();
  // Copies of the schedules there are, ended so that they make nothing.
  await database.query(
    `insert into schedule (workspace_id, id, version, template_id, client_id, asset_id, assignment, recurrence, timing, overlap,
       pauses, exceptions, revisions, settled_to, created_at)
     select s.workspace_id, gen_random_uuid(), 1, template_id, client_id, asset_id, assignment,
       jsonb_set(recurrence, '{end}', '{"kind": "on", "date": "2026-01-31"}'), timing, overlap, '[]', '[]', '[]', '2026-11-24', now()
     from schedule s, generate_series(1, ${SCHEDULES / 80}) n order by s.id, n limit ${SCHEDULES}`,
  );
  await database.end();
  await stepIn(page, 'Ines Calloway');
  const from = Date.now();
  await page.goto('/schedules/worksheet?order=name');
  await expect(page.getByText(/^20\d\d$/)).toBeVisible();
  await expect(page.getByRole('gridcell').first()).toBeVisible();
  console.log(`worksheet of ${SCHEDULES} and the demo's: shown after ${Date.now() - from} ms`);
  const grid = page.getByRole('grid');
  await grid.focus();
  await watchKeys(page);
  for (let i = 0; i < 40; i++) await page.keyboard.press('ArrowDown', { delay: 30 });
  await tellKeys(page, 'arrows on the worksheet', 40);
  await watchKeys(page);
  await page.keyboard.press('F');
  await page.keyboard.press('Escape');
  const words = 'Nadia Orme';
  await page.keyboard.type(words, { delay: 40 });
  await page.keyboard.press('Enter');
  await tellKeys(page, 'typing into a cell', words.length);
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Control+ArrowUp');
  await page.keyboard.press('Control+Shift+ArrowDown');
  await page.keyboard.type('5');
  const filled = Date.now();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^[\d,]+ cells in [\d,]+ schedules/)).toBeVisible({ timeout: 60_000 });
  console.log(`one text into all cells of a column: ${Date.now() - filled} ms`);
  const found = Date.now();
  await page.getByLabel('Words to find').fill('05');
  await expect(page.getByText(/^in \d+ cells$/)).toBeVisible();
  console.log(`found in all cells of the column: ${Date.now() - found} ms`);
  const rows = await scroll(page, 'main .overflow-auto');
  console.log(
    `scrolling the worksheet: ${rows.late} of ${rows.frames} frames late, longest ${rows.longest.toFixed(0)} ms`,
  );
  const looked = Date.now();
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(page.getByRole('dialog', { name: 'What this changes' })).toBeVisible({ timeout: 60_000 });
  console.log(`Impact of all of it on the screen: ${Date.now() - looked} ms`);
});

test('the wallchart with 500 rows of a year of days', async ({ page }) => {
  test.setTimeout(300_000);
  await stepIn(page, 'Ines Calloway');
  const [rows, columns] = [500, 365];
  // Something every second day, of every look in turn, as a full chart has it.
  await page.route('**/api/wallchart?*', (route) =>
    route.fulfill({
      json: {
        ...{ first: '2026-06-01', length: 1, columns, start: 0, count: rows, foreseenUpTo: '2027-12-29' },
        names: { client: null, site: null, template: null },
        rows: Array.from({ length: rows }, (_, row) => ({
          ...{ key: `row ${row}`, name: `Pontoon ${row + 1}`, detail: `P-${row + 1}`, group: `Quay ${row >> 3}` },
          marks: Array.from({ length: columns >> 1 }, (__, i) => [
            i * 2 + (row % 2),
            (i + row) % 11,
            1 + (i % 4 === 0 ? 2 : 0),
          ]).flat(),
          rests: [],
        })),
      },
    }),
  );
  await page.goto('/wallchart?by=day');
  const grid = page.getByRole('grid');
  await expect(grid.getByRole('rowheader', { name: /Pontoon 1\b/ })).toBeVisible();
  const down = await scroll(page, '[role=grid]');
  console.log(
    `scrolling ${rows} rows of ${columns} days: ${down.late} of ${down.frames} frames late, longest ${down.longest.toFixed(0)} ms`,
  );
  const across = await scroll(page, '[role=grid]', 'sideways');
  console.log(`sideways: ${across.late} of ${across.frames} frames late, longest ${across.longest.toFixed(0)} ms`);
  await grid.focus();
  await watchKeys(page);
  const keys = 60;
  for (let i = 0; i < keys; i++) {
    await page.keyboard.press(i % 3 === 2 ? 'ArrowDown' : 'ArrowRight');
    await page.waitForTimeout(40);
  }
  await tellKeys(page, 'moving through the wallchart', keys);
});
