import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import type { HandOver, Held } from '../../../../contract/index.ts';
import { problemOf } from '../../../../contract/problems.ts';
import { impactOf } from '../../../testing/impact.ts';
import { memberOf } from '../../../testing/people.ts';
import { INES, NADIA, refusalOf, show, write } from '../../../testing/show.tsx';
import { HandOverPage } from './hand-over-page.tsx';

const MEMBER = memberOf();
const id = (n: number) => `01937000-0000-7000-8000-0000000000e${n}`;
const NOTHING: Held = {
  counts: { tasks: 0, underWay: 0, schedules: 0, templates: 0, signOffs: 0 },
  ...{ tasks: [], schedules: [], templates: [], signOffs: [] },
};
const HELD: Held = {
  counts: { tasks: 71, underWay: 2, schedules: 1, templates: 0, signOffs: 1 },
  tasks: [
    { id: id(1), title: 'Pontoon inspection', on: '2026-11-24', about: 'Pontoon C' },
    { id: id(2), title: 'Life-ring count', on: '2026-12-01', about: null },
  ],
  schedules: [{ id: id(3), name: 'Mooring lines', about: 'Meridian Charters' }],
  templates: [],
  signOffs: [{ id: id(4), name: 'Crane inspection' }],
};

interface Opened {
  readonly held?: Held;
  readonly me?: typeof INES;
  readonly answers?: Readonly<Record<string, unknown>>;
}

/** What somebody holds, with what was sent of it. */
async function page({ held = HELD, me = INES, answers = {} }: Opened = {}) {
  const looked: HandOver[] = [];
  const sent: HandOver[] = [];
  await show(
    <Routes>
      <Route path="/team/:personId" element={<p>the sheet</p>} />
      <Route path="/team/:personId/hand-over" element={<HandOverPage />} />
    </Routes>,
    {
      me,
      path: `/team/${NADIA.id}/hand-over`,
      answers: {
        '/team': { members: [MEMBER], weeks: ['2026-11-23', '2026-11-30'] },
        [`/people/${NADIA.id}/held`]: held,
        [`POST /people/${NADIA.id}/hand-over/impact`]: (body: HandOver) => {
          looked.push(body);
          return impactOf({ changed: 71 });
        },
        [`POST /people/${NADIA.id}/hand-over`]: (body: HandOver) => {
          sent.push(body);
          return { member: MEMBER, changeId: null };
        },
        ...answers,
      },
    },
  );
  return { looked, sent };
}
const choose = (label: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name: label }), { target: { value } });
const seeImpact = () => fireEvent.click(screen.getByRole('button', { name: 'See impact and hand over' }));
const EVERYTHING = 'Who takes all of it over';

describe('what somebody holds', () => {
  it('stands in bands with its counts, the first of each with a way there, and how many more there are', async () => {
    await page();
    const tasks = (await screen.findByRole('link', { name: 'Pontoon inspection' })).closest('ul') as HTMLElement;
    expect(
      within(tasks)
        .getAllByRole('listitem')
        .map(({ textContent }) => textContent),
    ).toEqual([
      'Pontoon inspectionPontoon CTue 24 Nov',
      expect.stringMatching(/^Life-ring count.*1 Dec$/),
      'and 69 more',
    ]);
    expect(within(tasks).getByRole('link', { name: 'Life-ring count' }).getAttribute('href')).toBe(
      `/schedules/task/${id(2)}`,
    );
    expect(screen.getByText('2 under way')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Crane inspection' }).getAttribute('href')).toBe(`/templates/${id(4)}`);
    expect(screen.getByText(': then a manager signs them')).toBeTruthy();
    // There is no template by default: none is to be handed over.
    expect(screen.queryByRole('combobox', { name: /templates by default/ })).toBeNull();
  });

  it('goes to one, or each part to another, as the look says before it is done', async () => {
    const { looked, sent } = await page();
    await screen.findByRole('combobox', { name: EVERYTHING });
    choose(EVERYTHING, INES.id);
    expect(screen.queryByText(': then a manager signs them')).toBeNull();
    choose('Who takes over the schedules', 'nobody');
    // No longer one for all.
    expect(screen.getByRole<HTMLSelectElement>('combobox', { name: EVERYTHING }).value).toBe('nobody');
    seeImpact();
    const dialog = await screen.findByRole('dialog', { name: 'What this changes' });
    expect(
      within(dialog).getByText(
        '71 open tasks and 1 template to sign off go to Ines Calloway; 1 schedule goes to nobody yet. Nothing is saved yet.',
      ),
    ).toBeTruthy();
    expect(sent).toEqual([]);
    fireEvent.click(within(dialog).getByRole('button', { name: 'Close' }));
    seeImpact();
    const again = await screen.findByRole('dialog', { name: 'What this changes' });
    fireEvent.click(within(again).getByRole('button', { name: /^Save|^Change|^Hand|71/ }));
    expect(await screen.findByText('the sheet')).toBeTruthy();
    const asked = { tasksTo: INES.id, schedulesTo: null, templatesTo: INES.id, signOffsTo: INES.id };
    expect(sent).toEqual([{ ...asked, version: 3, lastDay: null }]);
    expect(looked).toEqual([sent[0], sent[0]]);
  });

  it('is handed over by whoever leaves, and a last day that is refused is so beside it', async () => {
    const wrong = {
      ...problemOf('invalid', 'Not handed over.'),
      errors: [{ path: 'lastDay', message: 'before the first day' }],
    };
    const { sent } = await page({
      answers: {
        [`POST /people/${NADIA.id}/hand-over/impact`]: () => refusalOf(wrong),
      },
    });
    await screen.findByRole('combobox', { name: EVERYTHING });
    choose('Whether somebody leaves', 'on');
    write('Last day', '18 Dec 2026');
    seeImpact();
    expect(await screen.findByText('before the first day')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Last day').value).toMatch(/18 Dec/);
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(sent).toEqual([]);
  });

  it('that is nothing is given by nobody who stays, and may still be left', async () => {
    const { looked } = await page({ held: NOTHING });
    expect(await screen.findByText('Nadia Orme holds nothing.')).toBeTruthy();
    const button = () => screen.getByRole('button', { name: 'See impact and hand over' });
    expect(button()).toHaveProperty('disabled', true);
    choose('Whether somebody leaves', 'on');
    expect(button()).toHaveProperty('disabled', false);
    seeImpact();
    await waitFor(() => expect(looked).toMatchObject([{ lastDay: '2026-11-24' }]));
    const dialog = await screen.findByRole('dialog', { name: 'What this changes' });
    expect(within(dialog).getByText('Nadia Orme leaves on Tue 24 Nov. Nothing is saved yet.')).toBeTruthy();
  });

  it('is no business of whoever may not change people', async () => {
    await page({ me: NADIA });
    expect(await screen.findByText(/hand work over/)).toBeTruthy();
    expect(screen.queryByText('Pontoon inspection')).toBeNull();
  });
});
