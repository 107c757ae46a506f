import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it } from 'vitest';
import type { NoticeDraft, NoticeLetter } from '../../../contract/index.ts';
import { LETTER_TOKEN_NAMES, type LetterToken } from '../../../core/index.ts';
import { show } from '../../testing/show.tsx';
import { WritePage } from './write-page.tsx';

afterEach(() => sessionStorage.clear());

const id = (n: number) => `01937000-0000-7000-8000-00000000f${String(n).padStart(3, '0')}`;
const values = Object.fromEntries(LETTER_TOKEN_NAMES.map((name) => [name, `the ${name}`])) as Record<
  LetterToken,
  string
>;
const letter = (n: number, of: Partial<NoticeLetter>): NoticeLetter => ({
  ...{ id: id(500 + n), version: 3, name: `Letter ${n}`, workType: 'routine', language: 'en-GB' },
  ...{ subject: 'Coming aboard {asset}', body: [{ kind: 'paragraph', runs: [{ text: 'Dear {contact}' }] }] },
  ...of,
});
const LETTERS = [letter(1, { language: 'de-DE' }), letter(2, {}), letter(3, { workType: 'departure' })];
const draft = (n: number, of: Partial<NoticeDraft> = {}): NoticeDraft => ({
  ...{ taskId: id(n), version: 1, title: `Check ${n}`, on: '2026-12-03', startTime: '11:00', dueTime: '12:00' },
  ...{
    client: { id: id(200), name: 'Isolde Kestle' },
    asset: { id: id(300 + n), name: `Auk ${n}`, place: 'berth A4' },
  },
  ...{
    workType: 'routine',
    who: 'Kit Sorrell',
    email: 'isolde@kestle.example',
    to: ['Isolde Kestle', '7 Netloft Lane'],
  },
  ways: [
    { name: 'by hand', kind: 'hand', sendBy: '2026-11-26', earliest: '2026-12-01' },
    { name: 'by mail', kind: 'mail', sendBy: '2026-11-26', earliest: '2026-12-01' },
  ],
  ...{ values, replaces: null, replacing: null },
  standing: { state: 'notWritten', sendBy: '2026-11-26', remindOn: null, inTime: null },
  ...of,
});
const late = draft(2, {
  on: '2026-11-26',
  ways: [{ name: 'by hand', kind: 'hand', sendBy: '2026-11-19', earliest: '2026-12-01' }],
  ...{
    values: { ...values, contact: '' },
    standing: { state: 'tooLate', sendBy: '2026-11-19', remindOn: null, inTime: null },
  },
});

interface Sent {
  readonly letterId: string;
  readonly visits: readonly object[];
}
async function page(drafts: readonly NoticeDraft[]) {
  const sent: Sent[] = [];
  await show(<WritePage />, {
    path: `/tasks/visits/write?of=${drafts.map(({ taskId }) => taskId).join(',')}`,
    answers: {
      '/letters': { letters: LETTERS },
      '/visits?toSend=yes': { lines: [], more: null },
      'POST /notices/look': ({ tasks }: { tasks: string[] }) => ({
        drafts: drafts.filter(({ taskId }) => tasks.includes(taskId)),
      }),
      'POST /notices': (body: Sent) => {
        sent.push(body);
        return { batchId: id(600), count: 1, mailed: 1, changeId: id(601) };
      },
    },
  });
  await screen.findByRole('heading', { level: 1 });
  await screen.findByRole('article', { name: 'The letter' });
  return sent;
}
const item = (name: string) =>
  screen.getAllByRole('listitem').find((one) => within(one).queryByRole('button', { name })) as HTMLElement;

describe('writing notices', () => {
  it('takes the letter that is meant in our language, and the mail where that is early enough', async () => {
    const sent = await page([draft(1)]);
    expect((screen.getByLabelText('Letter') as HTMLSelectElement).value).toBe(id(502));
    expect(screen.getByRole('article').textContent).toContain('Coming aboard the asset');
    const user = userEvent.setup();
    await user.type(screen.getByLabelText('What is done there'), 'winter check');
    await user.click(screen.getByRole('button', { name: 'Write 1 notice' }));
    expect(await screen.findByRole('heading', { name: '1 notice is written.' })).toBeTruthy();
    expect(sent).toEqual([
      expect.objectContaining({
        ...{ letterId: id(502), letterVersion: 3, issuedOn: '2026-11-24', mail: true, reason: 'winter check' },
        visits: [{ taskId: id(1), version: 1, way: 'by mail', evenLate: false }],
      }),
    ]);
    expect(screen.getByRole('link', { name: 'Open the PDF' }).getAttribute('href')).toBe(
      `/api/notices.pdf?batch=${id(600)}`,
    );
    expect(Object.keys(sessionStorage)).toEqual([]);
  });

  it('says what is too late, what nobody has said, and leaves out or writes all the same', async () => {
    const sent = await page([draft(1), late]);
    expect(item('Auk 2').textContent).toContain('5 days too late');
    expect(item('Auk 2').textContent).toContain('A notice from today allows Tue 1 Dec at the earliest');
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Page of notice 2' }));
    expect(screen.getByRole('alert').textContent).toBe('Not known here: whom the letter is to.');
    await user.click(screen.getByRole('checkbox', { name: 'write it all the same' }));
    await user.click(screen.getByRole('button', { name: 'Leave out Auk 1' }));
    await waitFor(() => expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Write 1 notice'));
    await user.click(screen.getByRole('button', { name: 'Write 1 notice' }));
    await waitFor(() => expect(sent.length).toBe(1));
    expect(sent[0]?.visits).toEqual([{ taskId: id(2), version: 1, way: 'by hand', evenLate: true }]);
  });
});
