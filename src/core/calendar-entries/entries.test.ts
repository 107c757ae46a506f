import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { givenTo } from '../assignment/assignment.ts';
import { longestClosure } from '../calendar/closed-season.ts';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { addDate, changeDate, moveDate, skipDate } from '../planning/by-hand.ts';
import { isDated, planDays } from '../planning/plan.ts';
import { reckoningFault } from '../planning/reckoning-fault.ts';
import type { Exception, PlannedSchedule } from '../planning/schedule-plan.ts';
import { FRESH_TIMING } from '../planning/timing.ts';
import { anyFullRecurrence, orTooMuch } from '../recurrence/generated.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import type { Entry, EntryPart, EntryTime } from './entry.ts';
import { type CalendarChoices, type EntryFate, meaningOf, zonesOf } from './meaning.ts';
import { type Series, type SeriesDate, seriesOf } from './series.ts';
import { laterBy, minutesBetween, momentIn } from './times.ts';
import { entryPersonKey, holderOfEntry, peopleOfEntry, ruleOfEntry } from './who.ts';

const calendar = WEEKDAYS_ONLY;
const TODAY = '2026-11-24';
const CHOICES: CalendarChoices = {
  ...{ repeating: 'schedule', single: 'task', wholeDays: 'as work', toDos: 'template' },
};
const ZONES: Readonly<Record<string, string>> = { Eastern: 'America/New_York', 'Europe/London': 'Europe/London' };

const at = (date: string, time: string | null = null, zone: string | null = null): EntryTime => ({ date, time, zone });
const part = (rest: Partial<EntryPart>): EntryPart => ({
  ...{ kind: 'event', summary: 'Round', description: '', location: '', url: '', categories: [], priority: 0 },
  ...{ status: '', isTransparent: false, sequence: 0, start: at('2026-12-01'), end: null, minutes: null },
  ...{ rules: [], added: [], takenOut: [], of: null, alarms: [], people: [], besides: [] },
  ...rest,
});
const meant = (
  main: EntryPart | null,
  changed: readonly EntryPart[] = [],
  said: EntryFate | null = null,
  choices = CHOICES,
) =>
  meaningOf({ uid: 'a', main, changed }, said, {
    ...{ today: dayOfIso(TODAY), zone: 'Europe/London', calendar, choices },
    zoneOf: (tzid) => ZONES[tzid] ?? null,
  });
const WEEKLY = ['FREQ=WEEKLY'];

describe('what an entry becomes', () => {
  const everyFate = (main: EntryPart, choices = CHOICES) =>
    ([null, 'schedule', 'task', 'template', 'days off', 'left out'] as const).map((said) => {
      const meaning = meant(main, [], said, choices);
      return meaning.becomes === 'left out' ? meaning.why : meaning.becomes;
    });

  it('is as chosen, where it can be', () => {
    expect(everyFate(part({ rules: WEEKLY, start: at('2026-12-01', '09:00') }))).toEqual([
      ...['schedule', 'schedule', 'it repeats: make a schedule of it', 'template'],
      ...['it has a time of day, and days off have none', 'as chosen'],
    ]);
    expect(everyFate(part({}))).toEqual([
      ...['task', 'it does not repeat', 'task', 'template', 'days off', 'as chosen'],
    ]);
    expect(everyFate(part({ kind: 'to-do', start: null }))).toEqual([
      ...['template', 'it has no day: make a template of it', 'it has no day: make a template of it', 'template'],
      ...['it has a time of day, and days off have none', 'as chosen'],
    ]);
  });

  it('is as all of its kind, where nothing is chosen for it', () => {
    const free: CalendarChoices = {
      ...{ repeating: 'left out', single: 'left out', wholeDays: 'days off', toDos: 'left out' },
    };
    const kinds = [
      part({}),
      part({ people: [{ name: 'Nadia Orme', mail: '' }] }),
      part({ start: at('2026-12-01', '09:00') }),
      part({ start: at('2026-12-01', '09:00'), rules: WEEKLY }),
      part({ kind: 'to-do', start: null }),
    ];
    expect(kinds.map((one) => meant(one, [], null, free).becomes)).toEqual([
      ...['days off', 'left out', 'left out', 'left out', 'left out'],
    ]);
    // A to-do that has a day is work on that day.
    expect(meant(part({ kind: 'to-do' })).becomes).toBe('task');
  });

  it('begins and ends by the clocks of the workspace, and not at midnight', () => {
    const span = (start: EntryTime, end: EntryTime | null, minutes: number | null = null) => {
      const meaning = meant(part({ start, end, minutes }));
      if (meaning.becomes !== 'task') throw new Error(`It becomes ${meaning.becomes}.`);
      const { on, startTime, dueOn, dueTime, work } = meaning;
      return [on, startTime, dueOn, dueTime, work.minutes];
    };
    expect(span(at('2026-12-01'), at('2026-12-03'))).toEqual(['2026-12-01', null, '2026-12-02', null, null]);
    expect(span(at('2026-12-01', '22:00'), at('2026-12-02', '00:00'))).toEqual([
      ...['2026-12-01', '22:00', '2026-12-01', null, 120],
    ]);
    expect(span(at('2026-12-01', '22:00'), null, 600)).toEqual(['2026-12-01', '22:00', '2026-12-02', '08:00', 600]);
    expect(span(at('2026-12-01', '23:30', 'Eastern'), null, 45)).toEqual([
      ...['2026-12-02', '04:30', '2026-12-02', '05:15', 45],
    ]);
    // What ends before it begins does not say when it ends.
    expect(span(at('2026-12-01', '09:00'), at('2026-12-01', '08:00'))).toEqual([
      ...['2026-12-01', '09:00', '2026-12-01', null, null],
    ]);
  });

  it('keeps as text what has no place, and says so', () => {
    expect(
      meant(
        part({
          ...{ description: 'Two people', location: 'Outer mole', besides: ['attached files'], priority: 7 },
          alarms: [{ minutes: -30, of: 'start' }],
        }),
      ),
    ).toMatchObject({
      work: {
        ...{ priority: 'low' },
        text: 'Two people\n\nPlace: Outer mole\n\nIts alarms: a task of no schedule has no reminders\n\nNot taken over: attached files',
      },
      unsaid: ['Its alarms: a task of no schedule has no reminders', 'Not taken over: attached files'],
    });
  });

  it('follows other times from an occurrence on, and tells what it can’t follow', () => {
    const main = part({ start: at('2026-12-01', '09:00'), minutes: 60, rules: WEEKLY });
    const later = (rest: Partial<EntryPart>) =>
      part({
        ...{ start: at('2026-12-15', '10:30'), minutes: 60, of: { at: at('2026-12-15', '09:00'), isLaterToo: true } },
        ...rest,
      });
    expect(meant(main, [later({})])).toMatchObject({
      revisions: [{ from: '2026-12-15', timing: { startTime: '10:30', dueTime: '11:30' } }],
      unsaid: [],
    });
    expect(meant(main, [later({ start: at('2026-12-16', '09:00') })])).toMatchObject({
      revisions: [],
      unsaid: ['From 15 Dec 2026 on it is on other days, first on 16 Dec 2026'],
    });
    expect(meant(main, [later({ status: 'CANCELLED' })])).toMatchObject({
      revisions: [],
      unsaid: ['From 15 Dec 2026 on it is cancelled: end the schedule then'],
    });
  });

  it('is one task of what is told of a series that is not in the file', () => {
    const one = (day: string) => part({ start: at(day), of: { at: at(day), isLaterToo: false } });
    expect(meant(null, [one('2026-12-08'), one('2026-12-15')])).toMatchObject({
      ...{ becomes: 'task', on: '2026-12-08' },
      unsaid: ['Other dates of the same series stand in the file too'],
    });
    expect(meant(null)).toEqual({ becomes: 'left out', why: 'it says nothing' });
  });

  it('asks for every zone that a time of it is in', () => {
    const entry: Entry = {
      uid: 'a',
      main: part({
        start: at('2026-12-01', '09:00', 'Ours'),
        takenOut: [at('2026-12-08', '09:00', 'Eastern')],
        alarms: [{ at: at('2026-12-01', '08:00', 'Theirs') }],
      }),
      changed: [
        part({
          start: at('2026-12-15', '09:00', 'UTC'),
          of: { at: at('2026-12-15', '09:00', 'Other'), isLaterToo: false },
        }),
      ],
    };
    expect(zonesOf(entry).sort()).toEqual(['Eastern', 'Other', 'Ours', 'Theirs']);
  });
});

describe('who has what an entry says', () => {
  const known = new Map<string, string | null>([
    ['nadia@marina.example', 'nadia'],
    ['bram hollis', 'bram'],
    ['osric', null],
  ]);
  const people = [
    { name: 'N. Orme', mail: 'nadia@marina.example' },
    { name: 'Bram Hollis', mail: '' },
    { name: 'Bram Hollis', mail: '' },
    { name: 'Osric', mail: '' },
  ];

  it('is who is known by mail or name, each once, and the others by name', () => {
    expect(peopleOfEntry(people, known)).toEqual({ ids: ['nadia', 'bram'], strangers: ['Osric'] });
    expect(people.map(entryPersonKey).slice(0, 2)).toEqual(['nadia@marina.example', 'bram hollis']);
  });

  it('is one of them, each of them or any of them', () => {
    const group = { of: 'people', ids: ['nadia', 'bram'] };
    expect(ruleOfEntry([], 'each of')).toEqual(givenTo(null));
    expect(ruleOfEntry(['nadia'], 'each of')).toEqual(givenTo('nadia'));
    expect(ruleOfEntry(group.ids, 'each of')).toEqual({ v: 1, kind: 'eachOf', group, daysOffToo: true });
    expect(ruleOfEntry(group.ids, 'any of')).toEqual({ v: 1, kind: 'anyOf', group });
    expect(holderOfEntry(['nadia'])).toEqual({ assigneeId: 'nadia', offeredTo: null });
    expect(holderOfEntry(group.ids)).toEqual({ assigneeId: null, offeredTo: group });
  });
});

describe('times of an entry', () => {
  const anyMoment = fc.record({
    date: fc.integer({ min: dayOfIso('2026-01-01'), max: dayOfIso('2028-12-31') }).map(isoOfDay),
    time: fc
      .integer({ min: 0, max: 1439 })
      .map((all) => `${String(Math.floor(all / 60)).padStart(2, '0')}:${String(all % 60).padStart(2, '0')}`),
  });

  it('are so many minutes apart as one was put off', () =>
    fc.assert(
      fc.property(anyMoment, fc.integer({ min: -100_000, max: 100_000 }), (moment, minutes) => {
        expect(minutesBetween(moment, laterBy(moment, minutes))).toBe(minutes);
      }),
    ));

  it('float with every clock where no zone is said, or it is not known', () => {
    const zoneOf = (tzid: string) => ZONES[tzid] ?? null;
    expect(momentIn(at('2026-07-01', '23:30'), 'Europe/London', zoneOf)).toEqual({ date: '2026-07-01', time: '23:30' });
    expect(momentIn(at('2026-07-01', '23:30', 'UTC'), 'Europe/London', zoneOf)).toEqual({
      ...{ date: '2026-07-02', time: '00:30' },
    });
    expect(momentIn(at('2026-07-01', '23:30', 'Nowhere'), 'Europe/London', zoneOf)).toEqual({
      ...{ date: '2026-07-01', time: '23:30' },
    });
  });
});

describe('a schedule as one recurring entry', () => {
  const [from, to] = [dayOfIso(TODAY), dayOfIso('2028-12-31')] as const;
  const datesOf = (schedule: PlannedSchedule): string[] =>
    planDays(schedule, calendar, from, to)
      .filter(isDated)
      .map(({ on, timing }) => `${isoOfDay(on)} ${timing.startTime ?? ''}`.trim());

  /** The entry that a program reads of it. */
  function entryOf({ first, rules, added, takenOut, changed }: Series): Entry {
    const timeOf = ({ on, startTime }: Pick<SeriesDate, 'on' | 'startTime'>) => at(on, startTime);
    const endOf = ({ dueOn, startTime, dueTime }: SeriesDate) =>
      startTime === null ? at(isoOfDay(dayOfIso(dueOn) + 1)) : dueTime === null ? null : at(dueOn, dueTime);
    const of = (date: SeriesDate) => part({ start: timeOf(date), end: endOf(date) });
    const listed = (dates: readonly string[]) => dates.map((on) => timeOf({ on, startTime: first.startTime }));
    return {
      uid: 'a',
      main: { ...of(first), rules, added: listed(added), takenOut: listed(takenOut) },
      changed: changed.map((one) => ({
        ...of(one),
        of: { at: timeOf({ on: one.nominal, startTime: first.startTime }), isLaterToo: false },
      })),
    };
  }

  it('says its exceptions, and is read as the same dates', () => {
    let schedule = {
      recurrence: parsePhrase('every week on Mon', { start: '2026-11-30' }),
      timing: { ...FRESH_TIMING, startTime: '09:00', dueTime: '10:00' },
      exceptions: [] as readonly Exception[],
    };
    for (const change of [
      (one: typeof schedule) => skipDate(one, dayOfIso('2026-12-07')),
      (one: typeof schedule) => moveDate(one, dayOfIso('2026-12-14'), dayOfIso('2026-12-16')),
      (one: typeof schedule) => changeDate(one, dayOfIso('2026-12-21'), { startTime: '11:00', dueTime: '12:00' }),
      (one: typeof schedule) => addDate(one, dayOfIso('2026-12-23')),
    ])
      schedule = { ...schedule, ...change(schedule) };
    const series = seriesOf(schedule, calendar, from, to);
    expect(series).toMatchObject({
      rules: ['FREQ=WEEKLY;BYDAY=MO'],
      added: ['2026-12-23'],
      takenOut: ['2026-12-07'],
      changed: [
        { nominal: '2026-12-14', on: '2026-12-16', startTime: '09:00' },
        { nominal: '2026-12-21', on: '2026-12-21', startTime: '11:00' },
      ],
      remark: null,
    });
    if (!series) throw new Error('It has dates.');
    const meaning = meant(entryOf(series).main, entryOf(series).changed);
    if (meaning.becomes !== 'schedule') throw new Error(`It becomes ${meaning.becomes}.`);
    expect(datesOf(meaning).slice(0, 6)).toEqual([
      ...['2026-11-30 09:00', '2026-12-16 09:00', '2026-12-21 11:00', '2026-12-23 09:00'],
      ...['2026-12-28 09:00', '2027-01-04 09:00'],
    ]);
    expect(datesOf(meaning)).toEqual(datesOf(schedule));
  });

  it('is read as the same dates, whatever its rule is', () => {
    const some = anyFullRecurrence.filter(
      ({ rules, closed }) =>
        rules.every(({ kind }) => kind !== 'follows') && longestClosure(closed?.seasons ?? []) < 200,
    );
    fc.assert(
      fc.property(some, fc.boolean(), (recurrence, isTimed) => {
        const timing = { ...FRESH_TIMING, ...(isTimed ? { startTime: '08:30', dueTime: '09:15' } : {}) };
        const schedule: PlannedSchedule = { recurrence, timing };
        fc.pre(reckoningFault(schedule, calendar, from) === null);
        // What takes too long to reckon over years is told as that, and not written.
        const told = orTooMuch(() => ({ series: seriesOf(schedule, calendar, from, to) }));
        fc.pre(told !== null);
        const { series } = told;
        const wanted = datesOf(schedule);
        if (series === null) {
          expect(wanted).toEqual([]);
          return;
        }
        const entry = entryOf(series);
        const meaning = meant(
          entry.main,
          entry.changed,
          series.rules.length + series.added.length === 0 ? null : 'schedule',
        );
        if (meaning.becomes === 'schedule') expect([...new Set(datesOf(meaning))]).toEqual([...new Set(wanted)]);
        else if (meaning.becomes === 'task')
          expect([`${meaning.on} ${meaning.startTime ?? ''}`.trim()]).toEqual(wanted);
        else expect([meaning, wanted]).toEqual([{ becomes: 'left out', why: 'it is over' }, []]);
      }),
      { numRuns: 60 },
    );
  });
});
