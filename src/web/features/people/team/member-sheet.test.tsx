import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { Toaster } from 'sonner';
import { describe, expect, it } from 'vitest';
import type { Member } from '../../../../contract/index.ts';
import { problemOf } from '../../../../contract/problems.ts';
import { memberOf, WEEK } from '../../../testing/people.ts';
import { INES, NADIA, refusalOf, show, write } from '../../../testing/show.tsx';
import { MemberSheet } from './member-sheet.tsx';

interface Opened {
  readonly member?: Member;
  readonly id?: string;
  readonly me?: typeof INES;
  readonly answers?: Readonly<Record<string, unknown>>;
}

/** The sheet of a member; what is sent is kept, by where it went. */
async function sheet({ member = memberOf(), id = member.id, me = INES, answers = {} }: Opened = {}) {
  const sent: [string, unknown][] = [];
  const now = { member };
  const taken = (address: string) => (body: object) => {
    sent.push([address, body]);
    const { invite: _, ...written } = { invite: false, ...body };
    now.member = memberOf({ ...now.member, ...written, version: now.member.version + 1 });
    return { member: now.member, changeId: null };
  };
  const told = (signsIn: Member['signsIn'], invitedUntil: string | null) => () => {
    now.member = { ...now.member, signsIn, invitedUntil };
    return now.member;
  };
  await show(
    <>
      <Routes>
        <Route path="/team" element={<p>the team</p>} />
        <Route path="/team/:personId" element={<MemberSheet />} />
      </Routes>
      <Toaster />
    </>,
    {
      me,
      path: `/team/${id}`,
      answers: {
        '/team': () => ({ members: [now.member], weeks: ['2026-11-23', '2026-11-30'] }),
        '/clock/on': { on: [] },
        [`/leave?person=${member.id}`]: { leave: [] },
        [`/people/${member.id}/history`]: { entries: [] },
        'POST /people': taken('POST /people'),
        [`PUT /people/${member.id}`]: taken('PUT'),
        [`POST /people/${member.id}/invitation`]: told('invited', '2026-12-01T10:40'),
        [`DELETE /people/${member.id}/invitation`]: told('no', null),
        ...answers,
      },
    },
  );
  await screen.findByRole('complementary');
  return { sent };
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

describe('somebody of the team', () => {
  it('is saved as they are written, with the version that was read, and put back before that', async () => {
    const { sent } = await sheet();
    expect(screen.getByRole('button', { name: 'Save' })).toHaveProperty('disabled', true);
    write('Telephone', '01632 960 199');
    expect(screen.getByText('Not saved.')).toBeTruthy();
    press('Put back');
    expect(screen.getByLabelText<HTMLInputElement>('Telephone').value).toBe('01632 960 112');
    expect(screen.queryByText('Not saved.')).toBeNull();
    write('Telephone', '01632 960 199');
    write('Name', 'Nadia Orme-Pell');
    expect(screen.getByRole('heading', { name: 'Nadia Orme-Pell' })).toBeTruthy();
    press('Save');
    expect(await screen.findByText('Saved what is known of Nadia Orme-Pell.')).toBeTruthy();
    expect(sent).toMatchObject([['PUT', { name: 'Nadia Orme-Pell', telephone: '01632 960 199', version: 3 }]]);
    // Kept of a member, not of what is told besides.
    for (const told of ['id', 'signsIn', 'invitedUntil', 'loads', 'nextTurn'])
      expect(sent[0]?.[1]).not.toHaveProperty(told);
    await waitFor(() => expect(screen.getByRole('button', { name: 'Save' })).toHaveProperty('disabled', true));
  });

  it('stays written where saving is refused, and the reason stands beside it', async () => {
    const problem = problemOf('changed-meanwhile', 'Somebody has changed what is known of Nadia Orme.');
    await sheet({
      answers: {
        [`PUT /people/${NADIA.id}`]: () => refusalOf(problem),
      },
    });
    write('Telephone', '01632 960 199');
    press('Save');
    expect((await within(screen.getByRole('complementary')).findByText(problem.detail)).tagName).toBe('SPAN');
    expect(screen.getByLabelText<HTMLInputElement>('Telephone').value).toBe('01632 960 199');
    expect(screen.getByRole('button', { name: 'Save' })).toHaveProperty('disabled', false);
  });

  it('who has no name is not sent', async () => {
    const { sent } = await sheet();
    write('Name', '  ');
    press('Save');
    expect(await screen.findAllByText(/name is missing/i)).toBeTruthy();
    expect(sent).toEqual([]);
  });

  it('is known to a colleague without a way to change it', async () => {
    const tickets = [{ name: 'powerboat', until: '2027-03-01' }];
    await sheet({ member: memberOf({ ...INES, tickets, email: null, telephone: '' }), me: NADIA });
    expect(await screen.findByRole('heading', { name: 'Ines Calloway' })).toBeTruthy();
    expect(screen.getByText('no mail address is known')).toBeTruthy();
    expect(screen.getByText('no telephone number is known')).toBeTruthy();
    expect(screen.getByText(/powerboat, until .*1 Mar/)).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
  });

  it('is nobody where nobody has that address, which is a way back', async () => {
    await sheet({ id: '01937000-0000-7000-8000-0000000000ff' });
    expect(await screen.findByText('Nobody of this address')).toBeTruthy();
    press('Close');
    expect(await screen.findByText('the team')).toBeTruthy();
  });
});

describe('somebody new', () => {
  it('is added without a mail, or invited once one is known', async () => {
    const { sent } = await sheet({ id: 'new' });
    expect(await screen.findByRole('heading', { name: 'Somebody new' })).toBeTruthy();
    press('Add without a mail');
    // Only now, as it was tried, is said what is missing.
    expect(await screen.findAllByText(/name is missing/i)).toBeTruthy();
    expect(sent).toEqual([]);
    write('Name', 'Wren Tolliver');
    write('Mail', 'wren@ternquay.example');
    expect(screen.queryByRole('button', { name: 'Add without a mail' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Only add' })).toBeTruthy();
    press('Add and invite by mail');
    expect(await screen.findByText('Wren Tolliver is here, and an invitation is on its way.')).toBeTruthy();
    expect(sent).toMatchObject([
      ['POST /people', { name: 'Wren Tolliver', email: 'wren@ternquay.example', invite: true, access: 'member' }],
    ]);
    // Works as everybody here does until it is said otherwise.
    expect(sent[0]?.[1]).toMatchObject({ weeks: [WEEK], weeksFrom: '2026-11-24' });
  });

  it('is only added where that is wished', async () => {
    const { sent } = await sheet({ id: 'new' });
    await screen.findByRole('heading', { name: 'Somebody new' });
    write('Name', 'Wren Tolliver');
    write('Mail', 'wren@ternquay.example');
    press('Only add');
    expect(await screen.findByText('Wren Tolliver is here.')).toBeTruthy();
    expect(sent).toMatchObject([['POST /people', { invite: false }]]);
  });
});

describe('how somebody signs in', () => {
  it.each([
    [{ signsIn: 'yes' }, 'Signs in as nadia@ternquay.example.', []],
    [
      { signsIn: 'invited', invitedUntil: '2026-12-01T10:40' },
      'Invited to nadia@ternquay.example; the link works until Tue 1 Dec.',
      ['Send it again', 'Withdraw'],
    ],
    [
      { signsIn: 'invitation ended', invitedUntil: '2026-11-20T10:40' },
      'The invitation to nadia@ternquay.example ran out on Fri 20 Nov.',
      ['Send it again', 'Withdraw'],
    ],
    [{ signsIn: 'no' }, 'Does not sign in yet.', ['Invite by mail']],
    [{ signsIn: 'no', email: null }, 'Does not sign in: no mail address is known.', []],
  ] as const)('is said: %o', async (of, said, ways) => {
    await sheet({ member: memberOf(of) });
    expect(await screen.findByText(said)).toBeTruthy();
    const offered = ['Invite by mail', 'Send it again', 'Withdraw'].filter((name) =>
      screen.queryByRole('button', { name }),
    );
    expect(offered).toEqual(ways);
  });

  it('is asked for by mail, and withdrawn again', async () => {
    await sheet({ member: memberOf({ signsIn: 'no' }) });
    await screen.findByText('Does not sign in yet.');
    press('Invite by mail');
    expect(await screen.findByText('An invitation is on its way to nadia@ternquay.example.')).toBeTruthy();
    expect(await screen.findByText(/; the link works until Tue 1 Dec\.$/)).toBeTruthy();
    press('Withdraw');
    expect(await screen.findByText('The invitation is withdrawn: its link works no longer.')).toBeTruthy();
    expect(await screen.findByText('Does not sign in yet.')).toBeTruthy();
  });
});
