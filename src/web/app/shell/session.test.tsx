import { act, fireEvent, screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { watchTyping } from '../../kit/typing.ts';
import { INES, show } from '../../testing/show.tsx';
import { useSession } from './session.ts';
import { tellSessionEnded } from './signed-out.ts';

function Who() {
  const { me, hasEnded } = useSession();
  return (
    <p>
      {me === undefined ? 'not known yet' : (me?.name ?? 'nobody')}
      {hasEnded && ', ended'}
      <input aria-label="Typed" />
    </p>
  );
}

/** A page that Ines opened; the server then says what the test has it say. */
async function opened(first: unknown = { person: INES }) {
  const says = { next: first };
  let asked = 0;
  await show(<Who />, {
    answers: {
      '/session': () => {
        asked++;
        if (says.next instanceof Error) throw says.next;
        return says.next;
      },
    },
  });
  const text = () => screen.getByRole('paragraph').textContent;
  const told = (times = 1) =>
    act(async () => {
      for (let time = 0; time < times; time++) tellSessionEnded();
    });
  return { says, text, told, asked: () => asked };
}

it('is nobody’s page where nobody is signed in', async () => {
  const { text } = await opened({ person: null });
  await vi.waitFor(() => expect(text()).toBe('nobody, ended'));
});

it('stays the page of whoever opened it when the session ends under it', async () => {
  const { says, text, told, asked } = await opened();
  await vi.waitFor(() => expect(text()).toBe(INES.name));
  says.next = { person: null };
  await told(3);
  await vi.waitFor(() => expect(text()).toBe(`${INES.name}, ended`));
  // Many things are refused at once; the server is asked once, and no more while it is known.
  expect(asked()).toBe(2);
  await told();
  expect(asked()).toBe(2);
});

it('goes on where what was refused belonged to a session before this one', async () => {
  const { text, told, asked } = await opened();
  await vi.waitFor(() => expect(text()).toBe(INES.name));
  await told();
  await vi.waitFor(() => expect(asked()).toBe(2));
  expect(text()).toBe(INES.name);
});

it('asks once more when it could not hear the answer', async () => {
  const { says, text, told } = await opened();
  await vi.waitFor(() => expect(text()).toBe(INES.name));
  says.next = new TypeError('no connection');
  await told();
  expect(text()).toBe(INES.name);
  says.next = { person: null };
  await told();
  await vi.waitFor(() => expect(text()).toBe(`${INES.name}, ended`));
});

it('asks for the password only when whoever types has finished, and not if the session has begun anew by then', async () => {
  watchTyping(document);
  const { says, text, told, asked } = await opened();
  await vi.waitFor(() => expect(text()).toBe(INES.name));
  vi.useFakeTimers();
  try {
    fireEvent.input(screen.getByLabelText('Typed'), { target: { value: 'not this' } });
    says.next = { person: null };
    await told();
    expect(asked()).toBe(1);
    says.next = { person: INES };
    await act(() => vi.advanceTimersByTimeAsync(2000));
    expect(asked()).toBe(2);
    expect(text()).toBe(INES.name);
  } finally {
    vi.useRealTimers();
  }
});
