import { describe, expect, it } from 'vitest';
import type { Settings } from '../../../contract/index.ts';
import { dayOfIso, NO_VISITS, USUAL_ASKING, USUAL_ESCALATION, USUAL_WAYS } from '../../../core/index.ts';
import { calendarOf, sayChanges, workingDays, yearFrom } from './settings-changes.ts';

const TODAY = dayOfIso('2026-11-24');
const saved: Settings = {
  version: 1,
  name: 'Tern Quay',
  zone: 'Europe/London',
  workingWeekdays: [1, 2, 3, 4, 5],
  weekMinutes: [450, 450, 450, 450, 450, 0, 0],
  yearStarts: 1,
  horizonDays: 30,
  makeTime: '04:00',
  phraseHabits: {},
  seasons: [],
  ways: USUAL_WAYS,
  doneStaysDays: 1,
  visits: NO_VISITS,
  asking: USUAL_ASKING,
  escalation: USUAL_ESCALATION,
  hearing: {},
  keepYears: null,
  swapsNeedNod: false,
  holidays: [
    { date: '2026-12-25', name: 'Christmas Day' },
    { date: '2026-12-28', name: 'Boxing Day (substitute)' },
  ],
};
const regatta = { date: '2027-06-18', name: 'Regatta' };
const outing = { date: '2026-12-09', name: 'Staff outing' };
const said = (change: Partial<Settings>) => sayChanges(saved, { ...saved, ...change }, TODAY);

describe('what is to be different', () => {
  it.each<[Partial<Settings>, string[]]>([
    [{}, []],
    [{ workingWeekdays: [1, 2, 3, 4, 5, 6] }, ['Saturdays become working days']],
    [
      { weekMinutes: [450, 450, 450, 450, 300, 0, 0] },
      ['The hours of the week are others, for people who are added from now on'],
    ],
    [{ workingWeekdays: [1, 2, 3, 4, 6, 7] }, ['Saturdays and Sundays become working days', 'Fridays are off']],
    [{ holidays: [...saved.holidays, regatta] }, ['Regatta on Fri 18 Jun 2027 is a day off']],
    [
      { holidays: [...saved.holidays, regatta, outing] },
      ['Regatta on Fri 18 Jun 2027 and Staff outing on Wed 9 Dec are days off'],
    ],
    [{ holidays: saved.holidays.slice(1) }, ['Christmas Day on Fri 25 Dec is no day off any more']],
    [
      { holidays: [{ date: '2026-12-25', name: 'Christmas' }, ...saved.holidays.slice(1)] },
      ['Christmas on Fri 25 Dec has another name'],
    ],
    [
      { name: 'Tern Quay Marina', makeTime: '05:00' },
      ['The workspace is called Tern Quay Marina', 'The daily run is at 05:00'],
    ],
    [{ zone: 'Europe/Lisbon', yearStarts: 4 }, ['Its clock is that of Lisbon', 'The financial year begins in April']],
    [{ phraseHabits: { biweekly: 1 }, horizonDays: 1 }, ['“biweekly” is twice a week', 'Tasks are made 1 day ahead']],
  ])('%j', (change, words) => {
    expect(said(change)).toEqual(words);
  });

  it('counts days that are many', () => {
    const many = Array.from({ length: 5 }, (_, i) => ({ date: `2027-03-0${i + 1}`, name: 'Refit' }));
    expect(said({ holidays: [...saved.holidays, ...many] })).toEqual(['5 more days are days off']);
  });

  it('counts the working days of twelve months from the present one on', () => {
    const { from, to } = yearFrom(TODAY);
    expect([from, to]).toEqual([dayOfIso('2026-11-01'), dayOfIso('2027-10-31')]);
    // 52 weekends and one Sunday more, and two holidays.
    expect(workingDays(calendarOf(saved), from, to)).toBe(365 - 2 * 52 - 1 - 2);
  });

  it('of who is told of late work are said whole', () => {
    expect(sayChanges(saved, { ...saved, escalation: { own: 1, answering: 2, deputy: null } }, TODAY)).toContain(
      'Late work is told to whoever has it after 1 hour, to those who answer for it after 2 hours',
    );
    expect(sayChanges(saved, { ...saved, escalation: { own: null, answering: null, deputy: null } }, TODAY)).toContain(
      'Late work is told to nobody',
    );
  });
});
