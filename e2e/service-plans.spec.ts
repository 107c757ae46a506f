import type { Page } from '@playwright/test';
import { BUILT, enterAs, expect, expectAccessible, stepIn, test } from './journey.ts';

const dialogOf = (page: Page) => page.getByRole('dialog');

test(`a plan is made, four clients are put on it with one changed and one item left out, and a change reaches all but what is their own ${BUILT}`, async ({
  page,
}) => {
  await enterAs(page, 'Ines Calloway');
  await page.goto('/plans');
  await expect(page.getByRole('link', { name: 'Resident berth' })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('n');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Resident berth');
  const add = async (name: string) => {
    await page.getByRole('button', { name: 'Add an item' }).click();
    await page.getByRole('option', { name, exact: true }).click();
  };
  await add('Lines and fenders');
  await add('Meter reading');
  const item = (name: string) => page.getByRole('listitem').filter({ has: page.getByRole('heading', { name }) });
  await item('Lines and fenders').getByRole('button', { name: /^When/ }).click();
  const rule = page.getByRole('textbox', { name: 'When, in words' });
  await rule.fill('every blue moon');
  await expect(item('Lines and fenders').getByText('The dates stay as they were')).toBeVisible();
  await rule.fill('first Tuesday of each month');
  await expect(item('Lines and fenders')).toContainText('12 a year each');
  await item('Meter reading')
    .getByRole('button', { name: /Who does/ })
    .click();
  await page.getByRole('option', { name: 'nobody yet' }).click();
  await expectAccessible(page);
  // Its name is another's.
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'There is a plan “Resident berth” already.' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Quiet berth');
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await expect(page.getByRole('heading', { name: 'Nobody is on it yet' })).toBeVisible();

  await page.goto('/clients?plan=none');
  const choices = page.getByRole('checkbox', { name: /^Choose / });
  await choices.nth(0).check();
  await choices.nth(3).click({ modifiers: ['Shift'] });
  await expect(page.getByText('4 clients chosen, 4 on no plan')).toBeVisible();
  await page.getByRole('button', { name: 'Put 4 on a plan' }).click();
  await expect(page.getByRole('heading', { name: 'Put 4 clients on a plan' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Plan', exact: true }).selectOption({ label: 'Quiet berth' });
  await page.getByRole('textbox', { name: 'From', exact: true }).fill('1 Dec 2026');
  await expect(page.getByRole('button', { name: /^Lines and fenders for/ })).toHaveCount(4);
  const names = await page.getByRole('rowheader').locator('b').allTextContents();
  const [own = '', without = ''] = names;
  await page.getByRole('button', { name: `Lines and fenders for ${own}: as the plan` }).click();
  await page.getByRole('textbox', { name: 'When, in words' }).fill('first Thursday of each month');
  await expect(page.getByRole('button', { name: `Lines and fenders for ${own}: first Thursday` })).toContainText('3');
  await page.getByRole('button', { name: `Meter reading for ${without}: as the plan` }).click();
  await page.getByRole('button', { name: 'Leave it out' }).click();
  await page.getByRole('textbox', { name: 'Why it is left out' }).fill('no shore power');
  await expect(page.getByText('1 changed, 1 left out')).toBeVisible();
  await page.getByRole('button', { name: /^Start by hand/ }).click();
  await page.getByRole('option', { name: /^New berth-holder/ }).click();
  const started = page.getByRole('region', { name: 'Started by hand' });
  await expect(started.getByRole('listitem')).toHaveCount(6);
  await started.getByRole('button', { name: /^Leave Dinghy rack/ }).click();
  await expect(started.getByRole('listitem')).toHaveCount(5);
  await expectAccessible(page);
  // What was typed outlives a reload.
  await page.reload();
  await expect(page.getByText('1 changed, 1 left out')).toBeVisible();
  await page.getByRole('button', { name: /^Put 4 clients on it, make \d+ tasks$/ }).click();
  await expect(page.getByText(/4 clients put on Quiet berth. \d+ tasks made/)).toBeVisible();
  await expect(page.getByRole('heading', { name: '4 clients on it' })).toBeVisible();
  await expect(page.getByText('2 own changes of 2 clients')).toBeVisible();

  // The plan changes: who has a Thursday keeps it, and every task is told before.
  await item('Lines and fenders').getByRole('button', { name: /^When/ }).click();
  await page.getByRole('textbox', { name: 'When, in words' }).fill('first Wednesday of each month');
  await expect(page.getByText('It changes 3 clients, 1 keeps its own')).toBeVisible();
  await page.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(dialogOf(page)).toContainText('Wed 2 Dec');
  await expect(dialogOf(page)).not.toContainText(own);
  await dialogOf(page)
    .getByRole('button', { name: /^Add 3 tasks and take back 3/ })
    .click();
  await expect(page.getByText(/Quiet berth is changed. 3 tasks made, 3 taken back/)).toBeVisible();
  await page.getByRole('link', { name: own }).click();
  const onIt = page.getByRole('region', { name: 'Quiet berth' });
  await expect(onIt).toContainText('plan says first Wednesday of each month');
  await onIt.getByRole('button', { name: 'As the plan' }).click();
  await dialogOf(page)
    .getByRole('button', { name: /^Add 1 task and take back 1/ })
    .click();
  await expect(onIt.getByText('as plan')).toHaveCount(2);
  await expectAccessible(onIt);
});

test('a client goes over to another plan, and an undo brings all of it back', async ({ page }) => {
  await stepIn(page, 'Maud Ferrier');
  await page.goto('/clients?by=plan');
  await expect(page.getByRole('region', { name: 'Clients' }).getByText('no plan yet')).toBeVisible();
  await page.getByRole('combobox', { name: 'Plan', exact: true }).selectOption({ label: 'Resident berth' });
  await page
    .getByRole('link', { name: 'Quentin Brindle' })
    .or(page.getByRole('link', { name: 'Edda Roskilly' }))
    .first()
    .click();
  const plan = page.getByRole('region', { name: 'Resident berth' });
  await plan.getByRole('button', { name: 'Take off …' }).click();
  await plan.getByRole('textbox', { name: 'Off from' }).fill('7 Dec 2026');
  await plan.getByRole('combobox', { name: 'On to' }).selectOption({ label: 'Winter ashore' });
  await plan.getByRole('button', { name: 'Look at what it changes' }).click();
  await expect(dialogOf(page)).toContainText('from Resident berth to Winter ashore');
  await dialogOf(page)
    .getByRole('button')
    .filter({ hasText: /^(Add|Take back|Save|Change)/ })
    .click();
  await expect(plan).toContainText('off from 7 Dec 2026');
  await expect(page.getByRole('region', { name: 'Winter ashore' })).toContainText('since 7 Dec 2026');
  await page.locator('[data-toast]').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('region', { name: 'Winter ashore' })).toBeHidden();
  await expect(plan).not.toContainText('off from');
});

test('who may not plan sees the plans, and an empty workspace is told what they are for', async ({ page }) => {
  await stepIn(page, 'Ada Winn');
  await page.goto('/plans');
  await expect(page.getByText('What does every client get?')).toBeVisible();
  await page.goto('/plans/put-on');
  await expect(page.getByText('There is no plan with anything in it yet.')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Sign out/ }).click();
  await enterAs(page, 'Nadia Orme');
  await page.goto('/plans');
  await page.getByRole('link', { name: 'Resident berth' }).click();
  await expect(page.getByRole('heading', { name: '32 clients on it' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Look at|Take .* out|Add an item/ })).toHaveCount(0);
  await expectAccessible(page);
  await page.goto('/plans/new');
  await expect(page.getByText(/planner/)).toBeVisible();
});

test('clients of a plan that asks are kept for another year, and schedules that are there come under a plan', async ({
  page,
}) => {
  await stepIn(page, 'Maud Ferrier');
  await page.goto('/plans');
  await page.getByRole('link', { name: /13 clients roll on by 31 Dec 2026/ }).click();
  await expect(page.getByRole('heading', { name: 'Who rolls on' })).toBeVisible();
  await page
    .getByRole('checkbox', { name: /^Choose / })
    .first()
    .check();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep 1 until 31 Dec 2027' }).click();
  await expect(dialogOf(page)).toContainText('1 client of Winter ashore until 31 Dec 2027');
  await dialogOf(page)
    .getByRole('button')
    .filter({ hasText: /^(Add|Take back|Save|Change)/ })
    .click();
  await expect(page.getByText(/1 client go(es)? on until 31 Dec 2027/)).toBeVisible();
  await expect(page.getByText('12 clients whose year on a plan ends soon')).toBeVisible();
  await page.locator('[data-toast]').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('13 clients whose year on a plan ends soon')).toBeVisible();
  // Changed: what one has, item by item on the same page, or all of them over to another plan.
  await page
    .getByRole('button', { name: /^Change what / })
    .first()
    .click();
  await expect(page.getByRole('region', { name: 'Winter ashore' })).toContainText('Lines and fenders');
  await page.getByRole('button', { name: 'Take off …' }).click();
  await expect(page.getByRole('textbox', { name: 'Off from' })).toHaveValue(/1 Jan/);
  const over = page.getByRole('combobox', { name: 'Over to another plan, Winter ashore' });
  await over.selectOption({ label: 'Resident berth' });
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(dialogOf(page)).toContainText('13 clients from Winter ashore to Resident berth');
  await dialogOf(page).getByRole('button', { name: 'Close' }).click();
  await expectAccessible(page);

  await page.goto('/plans/new');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Gas aboard');
  await page.getByRole('button', { name: 'Add an item' }).click();
  await page.getByRole('option', { name: 'Gas and shore power', exact: true }).click();
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await expect(page.getByRole('heading', { name: 'Nobody is on it yet' })).toBeVisible();
  await page.goto('/schedules?find=Gas');
  await expect(page.getByText('32 of')).toBeVisible();
  await page.getByRole('checkbox', { name: /all/i }).check();
  await page.getByRole('button', { name: 'Gather under a plan …' }).click();
  await page.getByRole('combobox', { name: 'Plan', exact: true }).selectOption({ label: 'Gas aboard' });
  await page.getByRole('button', { name: 'Gather 32 schedules' }).click();
  await expect(page.getByText(/32 schedules of Gas aboard.*32 clients put on it. No task changed./)).toBeVisible();
  await page.goto('/plans');
  await page.getByRole('link', { name: 'Gas aboard' }).click();
  await expect(page.getByRole('heading', { name: '32 clients on it' })).toBeVisible();
});
