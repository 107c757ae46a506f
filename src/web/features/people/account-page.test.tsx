import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Toaster } from 'sonner';
import { describe, expect, it } from 'vitest';
import type { AccountSession } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import { NADIA, refusalOf, show } from '../../testing/show.tsx';
import AccountPage from './account-page.tsx';

const FIREFOX = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';
const session = (n: number, agent: string, isThis = false): AccountSession => ({
  id: `01937000-0000-7000-8000-00000000005${n}`,
  agent,
  begunAt: '2026-11-23T08:15',
  isThis,
});
const HERE = session(1, FIREFOX, true);

interface Foreseen {
  readonly sessions?: readonly AccountSession[];
  readonly answers?: Readonly<Record<string, unknown>>;
}

async function account({ sessions = [HERE], answers = {} }: Foreseen = {}) {
  const now = { sessions };
  await show(
    <>
      <AccountPage />
      <Toaster />
    </>,
    {
      me: NADIA,
      path: '/account',
      answers: {
        '/account/sessions': () => ({ email: 'nadia@ternquay.example', sessions: now.sessions }),
        [`/leave?person=${NADIA.id}`]: { leave: [] },
        '/calendars': { calendars: [] },
        '/tokens': { tokens: [] },
        ...answers,
      },
    },
  );
  await screen.findByRole('heading', { name: 'Signed in' });
  return now;
}

/** As it is typed into a form. */
const type = (form: HTMLElement, label: string | RegExp, text: string) =>
  fireEvent.change(within(form).getByLabelText(label), { target: { value: text } });
const typed = (form: HTMLElement, label: string | RegExp) => within(form).getByLabelText<HTMLInputElement>(label).value;
const form = (name: string) => screen.getByRole('form', { name });

describe('where one is signed in', () => {
  it.each([
    ['Firefox on Linux', FIREFOX],
    ['Chromium on Android', 'Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/140.0 Mobile Safari/537.36'],
    ['Edge on Windows', 'Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0 Safari/537.36 Edg/140.0'],
    ['Safari on a phone or tablet', 'Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) Version/19.0 Safari/604.1'],
    ['Safari on a Mac', 'Mozilla/5.0 (Macintosh; Intel Mac OS X 15_0) Version/19.0 Safari/605.1'],
    ['Firefox', 'Firefox/140.0'],
    ['curl/8.14', 'curl/8.14'],
    ['a program that does not say what it is', ''],
  ])('is said by browser and system: %s', async (said, agent) => {
    await account({ sessions: [session(1, agent, true)] });
    const [line] = within(screen.getByText('here').closest('ul') as HTMLElement).getAllByRole('listitem');
    expect(line?.textContent).toBe(`${said}since yesterday, 08:15here`);
    expect(screen.queryByRole('button', { name: 'Sign out there' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Sign out everywhere else' })).toBeNull();
  });

  it('is ended at one place or at all others, and never here', async () => {
    const asked: unknown[] = [];
    const others = [session(2, ''), session(3, 'curl/8.14'), session(4, FIREFOX)];
    const now = await account({
      sessions: [HERE, ...others],
      answers: {
        'POST /account/sessions/end': ({ only }: { only: string | null }) => {
          asked.push(only);
          const before = now.sessions.length;
          now.sessions = now.sessions.filter(({ id, isThis }) => isThis || (only !== null && id !== only));
          return { ended: before - now.sessions.length };
        },
      },
    });
    const buttons = screen.getAllByRole('button', { name: 'Sign out there' });
    expect(buttons).toHaveLength(3);
    fireEvent.click(buttons[1] as HTMLElement);
    expect(await screen.findByText('Signed out there.')).toBeTruthy();
    await waitFor(() => expect(screen.queryByText('curl/8.14')).toBeNull());
    fireEvent.click(screen.getByRole('button', { name: 'Sign out everywhere else' }));
    expect(await screen.findByText('Signed out in 2 other places.')).toBeTruthy();
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Sign out there' })).toBeNull());
    expect(asked).toEqual([others[1]?.id, null]);
    expect(screen.getByText('here')).toBeTruthy();
  });
});

describe('another password', () => {
  const [PRESENT, NEXT] = ['Your present one', /^A new one/];
  const change = () => fireEvent.click(screen.getByRole('button', { name: 'Change the password' }));

  it('is refused beside the blank that is wrong, with what was typed, and taken then', async () => {
    const wrong = { ...problemOf('invalid', 'Not changed.'), errors: [{ path: 'current', message: 'not the one' }] };
    const sent: unknown[] = [];
    let answer: unknown = refusalOf(wrong);
    await account({
      answers: {
        'PUT /account/password': (body: unknown) => {
          sent.push(body);
          return answer;
        },
      },
    });
    const password = form('Password');
    type(password, PRESENT, 'tern on the piles');
    type(password, NEXT, 'cormorants dry their wings');
    change();
    expect(await within(password).findByText('not the one')).toBeTruthy();
    const present = within(password).getByLabelText(PRESENT);
    expect(present.getAttribute('aria-invalid')).toBe('true');
    expect(within(password).getByLabelText(NEXT).getAttribute('aria-invalid')).toBe('false');
    expect(typed(password, NEXT)).toBe('cormorants dry their wings');
    type(password, PRESENT, 'terns on the piles');
    answer = { ended: 1 };
    change();
    expect(await screen.findByText('Your password is changed. Signed out in 1 other place.')).toBeTruthy();
    expect([typed(password, PRESENT), typed(password, NEXT)]).toEqual(['', '']);
    expect(within(password).queryByText('not the one')).toBeNull();
    expect(sent.at(-1)).toEqual({ current: 'terns on the piles', next: 'cormorants dry their wings' });
  });

  it('stays typed where the server does not answer, and says so', async () => {
    await account({ answers: { 'PUT /account/password': new TypeError('no net') } });
    const password = form('Password');
    type(password, NEXT, 'cormorants dry their wings');
    change();
    expect(await within(password).findByText(/^The server does not answer\. What you typed is kept/)).toBeTruthy();
    expect(typed(password, NEXT)).toBe('cormorants dry their wings');
  });
});

describe('another address', () => {
  const send = () => fireEvent.click(screen.getByRole('button', { name: 'Send a link there' }));

  it('is asked for, and what was said of one is gone once the next is refused', async () => {
    const said = 'A link is on its way to nadia@orme.example. Until it is opened you sign in as before.';
    const taken = { ...problemOf('invalid', 'Not sent.'), errors: [{ path: 'email', message: 'an address, please' }] };
    let answer: unknown = { said };
    await account({ answers: { 'POST /account/address': () => answer } });
    const address = form('Address');
    expect(within(address).getByText('You sign in with nadia@ternquay.example.')).toBeTruthy();
    type(address, 'Another one', 'nadia@orme.example');
    type(address, 'Your password, to be sure', 'terns on the piles');
    send();
    expect((await within(address).findByRole('status')).textContent).toBe(said);
    expect(typed(address, 'Another one')).toBe('');
    answer = refusalOf(taken);
    type(address, 'Another one', 'nobody');
    send();
    expect(await within(address).findByText('an address, please')).toBeTruthy();
    expect(within(address).queryByRole('status')).toBeNull();
    expect(typed(address, 'Another one')).toBe('nobody');
  });

  it('is refused in words where no blank is at fault', async () => {
    const problem = problemOf('too-many', 'Too many wrong passwords. Try again at 10:55.');
    await account({ answers: { 'POST /account/address': () => refusalOf(problem) } });
    send();
    expect(await within(form('Address')).findByText(problem.detail)).toBeTruthy();
  });
});

it('is one’s own: all that is kept of them can be taken along', async () => {
  await account();
  const link = screen.getByRole('link', { name: 'All that is kept of you' });
  expect(link.getAttribute('href')).toContain(NADIA.id);
  expect(link.hasAttribute('download')).toBe(true);
  expect(screen.getByText('Dockhand, signs in as nadia@ternquay.example')).toBeTruthy();
});
