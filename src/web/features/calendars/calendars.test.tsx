import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { CalendarAddress } from '../../../contract/index.ts';
import { INES, show } from '../../testing/show.tsx';
import { CalendarLink } from './calendar-link.tsx';
import { MyCalendars } from './my-calendars.tsx';

const id = (n: number) => `01937000-0000-7000-8000-00000000c${String(n).padStart(3, '0')}`;
const calendar = (n: number, more: Partial<CalendarAddress> = {}): CalendarAddress => ({
  ...{ id: id(n), of: { kind: 'client', id: id(50) }, name: 'Piran Lusk', madeAt: '2026-11-20T09:00' },
  ...{ askedAt: null, askedBy: '', ...more },
});
const ADDRESS = 'https://rota.example/api/calendar.ics?key=abc';

it('makes an address, tells it once, and offers a file', async () => {
  const user = userEvent.setup();
  let made: unknown = null;
  await show(<CalendarLink of={{ kind: 'schedule', id: id(7) }} />, {
    answers: {
      '/calendars': { calendars: [] },
      'POST /calendars': (body: unknown) => {
        made = body;
        return { address: ADDRESS, calendar: calendar(1) };
      },
    },
  });
  await user.click(screen.getByRole('button', { name: 'Calendar' }));
  const box = screen.getByRole('dialog', { name: 'As a calendar' });
  expect(within(box).getByRole('link', { name: 'Save a file' }).getAttribute('href')).toBe(
    `/api/calendars/file.ics?kind=schedule&id=${id(7)}`,
  );
  await user.click(within(box).getByRole('button', { name: 'Make a private address' }));
  const told = await within(box).findByRole<HTMLInputElement>('textbox', { name: /told this once/ });
  expect([told.value, made]).toEqual([ADDRESS, { kind: 'schedule', id: id(7) }]);
  expect(within(box).getByRole('link', { name: 'Open it in a calendar' }).getAttribute('href')).toBe(
    ADDRESS.replace('https', 'webcal'),
  );
  expect(within(box).queryByRole('button', { name: 'Make a private address' })).toBeNull();
});

it('says of each address what it is of and when it was asked for; renews and withdraws it', async () => {
  const user = userEvent.setup();
  const asked = { askedAt: '2026-11-24T10:00', askedBy: 'Almanac/3' };
  await show(<MyCalendars />, {
    answers: {
      '/calendars': {
        calendars: [
          calendar(1, asked),
          calendar(2, { name: null }),
          calendar(3, { of: { kind: 'person', id: INES.id }, name: INES.name }),
        ],
      },
      [`POST /calendars/${id(1)}/renewal`]: { address: ADDRESS, calendar: calendar(1) },
      [`DELETE /calendars/${id(2)}`]: { calendars: [calendar(1)] },
    },
  });
  const items = await screen.findAllByRole('listitem');
  expect(items.map(({ textContent }) => textContent)).toEqual([
    expect.stringMatching(/^the client Piran Lusk.*last asked for Tue 24 Nov, 10:00 by Almanac\/3$/i),
    expect.stringMatching(/^something that is gone.*never asked for yet$/),
    expect.stringMatching(/^the work of Ines Calloway/),
  ]);
  await user.click(screen.getByRole('button', { name: 'Another address for the client Piran Lusk' }));
  expect((await screen.findByRole<HTMLInputElement>('textbox')).value).toBe(ADDRESS);
  await user.click(screen.getByRole('button', { name: 'Withdraw the address of something that is gone' }));
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(1));
});
