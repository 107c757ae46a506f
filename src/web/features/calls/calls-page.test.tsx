import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { CallDay, ListedCall } from '../../../contract/index.ts';
import { USUAL_OUTCOMES } from '../../../core/index.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import { CallsPage } from './calls-page.tsx';

const TODAY = '2026-11-24';
const idOf = (n: number) => `01937000-0000-7000-8000-0000000000${n.toString(16).padStart(2, '0')}`;
const QUOTA = {
  id: idOf(1),
  name: 'Renewal calls',
  asks: ['Do they stay?'],
  minutesEach: 10,
  readyAt: '08:00',
  isMade: true,
};
const call = (n: number, name: string, rest: Partial<ListedCall> = {}): ListedCall => ({
  ...{ id: idOf(n), version: 1, quotaId: QUOTA.id, place: n, number: `01632 960 10${n}`, state: 'open', note: '' },
  contact: { id: idOf(n + 40), name },
  client: { id: idOf(n + 60), name },
  ...{
    asset: 'Tidy Sum',
    why: { kind: 'neverRung' },
    outcome: null,
    rungAt: null,
    rungBy: null,
    callBack: null,
    last: null,
  },
  ...rest,
});
const dayWith = (calls: ListedCall[], rest: Partial<CallDay> = {}): CallDay => ({
  ...{ person: { id: INES.id, name: INES.name }, on: TODAY, quotas: [QUOTA], calls, promised: [], promisedCount: 0 },
  week: [{ on: TODAY, wanted: 3, made: 1 }],
  outcomes: [...USUAL_OUTCOMES],
  ...rest,
});

/** A server that keeps what it was told of calls. */
function server(of: CallDay) {
  const sent: unknown[] = [];
  const before = { lines: [], counts: { call: 0, task: 0, notice: 0, mail: 0, link: 0 } };
  return {
    sent,
    answers: {
      [`/calls?person=${INES.id}&on=${TODAY}`]: of,
      ...Object.fromEntries(of.calls.map(({ id }) => [`/calls/${id}/before`, before])),
      ...Object.fromEntries(
        of.calls.map((one) => [
          `POST /calls/${one.id}/rung`,
          (body: object) => {
            sent.push([one.contact.name, body]);
            return { call: one, changeId: idOf(200) };
          },
        ]),
      ),
    },
  };
}

const THREE = () =>
  dayWith([
    call(2, 'Verity Lanyon'),
    call(3, 'Orla Sturt'),
    call(4, 'Silas Opie', { state: 'rung', outcome: USUAL_OUTCOMES[0] as never, rungAt: `${TODAY}T09:12` }),
  ]);

describe('the calls of a day', () => {
  it('are rung one after the other: how each went by its number, with the note that was written', async () => {
    const { sent, answers } = server(THREE());
    await show(<CallsPage />, { path: '/calls', answers });
    const panel = await screen.findByRole('complementary', { name: 'The call to Verity Lanyon' });
    expect(within(panel).getByText('Do they stay?')).toBeTruthy();
    expect(screen.getByText('1 of 3, 20 min left')).toBeTruthy();
    await userEvent.setup().type(within(panel).getByLabelText('Note'), 'Stays.');
    fireEvent.blur(within(panel).getByLabelText('Note'));
    (document.activeElement as HTMLElement).blur();
    fireEvent.keyDown(document.body, { key: '1' });
    await waitFor(() =>
      expect(sent).toEqual([['Verity Lanyon', { version: 1, outcome: 'reached', note: 'Stays.', callBack: null }]]),
    );
    fireEvent.keyDown(document.body, { key: 'j' });
    expect(await screen.findByRole('complementary', { name: 'The call to Orla Sturt' })).toBeTruthy();
  });

  it('are promised for a day, the next working one until another is said', async () => {
    const { sent, answers } = server(THREE());
    await show(<CallsPage />, { path: '/calls', answers });
    const panel = await screen.findByRole('complementary');
    const user = userEvent.setup();
    await user.click(within(panel).getByRole('button', { name: /call back on/ }));
    const at = within(panel).getByLabelText('At');
    await user.type(at, '14');
    fireEvent.blur(at);
    // A look at another call takes nothing of it.
    await user.click(screen.getByRole('button', { name: /^Orla Sturt/ }));
    await user.click(screen.getByRole('button', { name: /^Verity Lanyon/ }));
    await user.click(screen.getByRole('button', { name: 'Keep, then Orla Sturt' }));
    const callBack = { on: '2026-11-25', at: '14:00', personId: INES.id };
    await waitFor(() =>
      expect(sent).toEqual([['Verity Lanyon', { version: 1, outcome: 'call-back', note: '', callBack }]]),
    );
  });

  it('are looked at without being said by whoever they are not of', async () => {
    const of = dayWith([call(2, 'Verity Lanyon')], { person: { id: INES.id, name: INES.name } });
    const { answers } = server(of);
    const { [`/calls?person=${INES.id}&on=${TODAY}`]: day, ...rest } = answers;
    await show(<CallsPage />, {
      me: { ...NADIA, access: 'viewer' },
      path: '/calls',
      answers: { ...rest, [`/calls?person=${NADIA.id}&on=${TODAY}`]: day },
    });
    await screen.findByRole('complementary');
    expect(screen.queryByRole('button', { name: /reached/ })).toBeNull();
  });

  it.each([
    ['before their time', '07:55', false, 'The list is there from 08:00 on.'],
    ['while they are being made', '08:01', false, 'The list is being made.'],
    ['where nobody may be rung', '08:01', true, 'There is nobody in the pool who may be rung today.'],
  ])('are none %s, which is said', async (_, time, isMade, said) => {
    const of = dayWith([], { quotas: [{ ...QUOTA, isMade }] });
    await show(<CallsPage />, {
      ...{ path: '/calls', answers: server(of).answers },
      workspace: { now: `${TODAY}T${time}` },
    });
    expect(await screen.findByText(said)).toBeTruthy();
  });
});
