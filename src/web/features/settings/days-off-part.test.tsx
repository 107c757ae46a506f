import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import type { HolidaySetting } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import { refusalOf, show, write } from '../../testing/show.tsx';
import { DaysOffPart } from './days-off-part.tsx';

const COUNTRIES = {
  countries: [
    { code: 'GB', name: 'United Kingdom', regions: [{ code: 'SCT', name: 'Scotland' }] },
    { code: 'SE', name: 'Sweden', regions: [] },
  ],
};
const day = (date: string, name: string): HolidaySetting => ({ date, name });
const PAST = day('2026-05-04', 'Early May');
const CHRISTMAS = day('2026-12-25', 'Christmas Day');

/** The part as the settings hold it; what they came to, told one after the other. */
async function daysOff(first: readonly HolidaySetting[], answers: Readonly<Record<string, unknown>> = {}) {
  const told: (readonly HolidaySetting[])[] = [];
  function Held() {
    const [holidays, setHolidays] = useState<HolidaySetting[]>([...first]);
    const onChange = (next: readonly HolidaySetting[]) => {
      told.push(next);
      setHolidays([...next]);
    };
    return <DaysOffPart holidays={holidays} wrong={undefined} onChange={onChange} />;
  }
  await show(<Held />, { answers: { '/settings/countries': COUNTRIES, ...answers } });
  return { told, user: userEvent.setup() };
}

describe('the days off of a workspace', () => {
  it('are those to come, with how many are past, and one can be taken out', async () => {
    const { told, user } = await daysOff([PAST, CHRISTMAS]);
    expect(screen.getByText('1 to come')).toBeTruthy();
    expect(screen.getByText('1 day of the past stays as it was.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Take out Christmas Day, 25 Dec 2026' }));
    expect(told).toEqual([[PAST]]);
    expect(screen.getByText('No day off is known yet: bring some in, or add your own.')).toBeTruthy();
  });

  it('are six, and the rest where they are asked for', async () => {
    const many = Array.from({ length: 8 }, (_, i) => day(`2027-0${i + 1}-01`, `Day ${i + 1}`));
    const { user } = await daysOff(many);
    expect(within(screen.getByRole('list')).getAllByRole('listitem').length).toBe(6);
    await user.click(screen.getByRole('button', { name: '2 more days, to 1 Aug 2027' }));
    expect(within(screen.getByRole('list')).getAllByRole('listitem').length).toBe(8);
    await user.click(screen.getByRole('button', { name: 'Only the next 6' }));
    expect(within(screen.getByRole('list')).getAllByRole('listitem').length).toBe(6);
  });

  it('of our own are one or a span, in their order, and never one that is there already', async () => {
    const { told, user } = await daysOff([CHRISTMAS]);
    const add = () => screen.getByRole('button', { name: /^Add / });
    await user.click(add());
    expect(told).toEqual([]);
    write('First day off', '9 dec');
    await user.type(screen.getByLabelText('What the day off is called'), 'Regatta{Enter}');
    expect(told).toEqual([[day('2026-12-09', 'Regatta'), CHRISTMAS]]);
    write('First day off', '24 dec');
    write('Last day off', '26 dec');
    await user.type(screen.getByLabelText('What the day off is called'), 'Closed');
    await user.click(screen.getByRole('button', { name: 'Add 3 days' }));
    expect(told.at(-1)).toEqual([
      day('2026-12-09', 'Regatta'),
      day('2026-12-24', 'Closed'),
      CHRISTMAS,
      day('2026-12-26', 'Closed'),
    ]);
  });

  it('are refused where a span ends before it begins, is too long, or is one that is there', async () => {
    const { told, user } = await daysOff([CHRISTMAS]);
    await user.type(screen.getByLabelText('What the day off is called'), 'Regatta');
    write('First day off', '25 dec');
    expect(screen.getByText('25 Dec 2026 is a day off already: Christmas Day.')).toBeTruthy();
    write('Last day off', '1 jul 2027');
    expect(screen.getByText('92 days in one go at most: add the rest after them.')).toBeTruthy();
    write('Last day off', '20 dec');
    expect(screen.getByText('It ends before it begins: choose a later last day.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /^Add / }));
    expect(told).toEqual([]);
  });

  it('are those of a country, or of a region of it, and how many of them were there is said', async () => {
    const { told, user } = await daysOff([CHRISTMAS], {
      '/settings/public-holidays?country=GB&region=SCT': {
        holidays: [day('2026-11-30', 'St Andrew’s Day'), CHRISTMAS],
      },
    });
    await user.click(screen.getByRole('button', { name: 'Bring them in' }));
    expect(told).toEqual([]);
    await user.click(screen.getByRole('button', { name: /Country/ }));
    await user.click(await screen.findByText('United Kingdom'));
    await user.click(screen.getByRole('button', { name: /Region/ }));
    await user.click(await screen.findByText('Scotland'));
    await user.click(screen.getByRole('button', { name: 'Bring them in' }));
    expect((await screen.findByRole('status')).textContent).toBe('1 day added; 1 was there already.');
    expect(told).toEqual([[day('2026-11-30', 'St Andrew’s Day'), CHRISTMAS]]);
    await user.click(screen.getByRole('button', { name: 'Bring them in' }));
    expect(await screen.findByText('0 days added; 2 were there already.')).toBeTruthy();
  });

  it('of nowhere are refused in words', async () => {
    const problem = problemOf('invalid', 'No holidays are known of Sweden.');
    const { told, user } = await daysOff([], {
      '/settings/public-holidays?country=SE&region=': () => refusalOf(problem),
    });
    await user.click(screen.getByRole('button', { name: /Country/ }));
    await user.click(await screen.findByText('Sweden'));
    expect(screen.queryByRole('button', { name: /Region/ })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Bring them in' }));
    expect((await screen.findByRole('status')).textContent).toBe('No holidays are known of Sweden.');
    expect(told).toEqual([]);
  });

  it('come from the whole days of a calendar file, and what is left of it is named', async () => {
    const { told, user } = await daysOff([CHRISTMAS]);
    const event = (of: string[]) => ['BEGIN:VEVENT', ...of, 'END:VEVENT'];
    const lines = [
      ...['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test//EN'],
      ...event(['UID:1', 'SUMMARY:Lift-out week', 'DTSTART;VALUE=DATE:20270301', 'DTEND;VALUE=DATE:20270303']),
      ...event(['UID:2', 'SUMMARY:Long ago', 'DTSTART;VALUE=DATE:20190301']),
      ...event(['UID:3', 'SUMMARY:Dentist', 'DTSTART:20270301T090000']),
      'END:VCALENDAR',
    ];
    await user.upload(screen.getByLabelText('A calendar file'), new File([lines.join('\r\n')], 'off.ics'));
    const said = await screen.findByRole('status');
    expect(said.textContent).toContain('2 days added.');
    expect(said.textContent).toContain('1 day of other years left.');
    expect(said.textContent).toContain('Left: “Dentist”, since ');
    expect(told).toEqual([[CHRISTMAS, day('2027-03-01', 'Lift-out week'), day('2027-03-02', 'Lift-out week')]]);
    await user.upload(screen.getByLabelText('A calendar file'), new File(['no calendar'], 'off.ics'));
    expect(await screen.findByText(/calendar/i, { selector: 'li' })).toBeTruthy();
    expect(told.length).toBe(1);
  });
});
