import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import {
  dayOfIso,
  makeCalendar,
  PLAIN_TIMING,
  parsePhrase,
  rehearsedLines,
  type Step,
  setParts,
  type Timing,
} from '../../../../core/index.ts';
import { partsFor } from '../who.ts';
import { csvOf, icsOf, pasteOf } from './rehearsal-files.ts';
import { rehearsalLine } from './rehearsal-lines.ts';

const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: ['2026-12-25'] });
const parts = (steps: readonly Step[] = []) =>
  setParts({ titlePattern: 'Fire points', estimateMinutes: 10, demands: [], signOff: null, tickets: [], steps });
const words = { title: ({ titlePattern }: { titlePattern: string }) => titlePattern, who: () => 'Maud' };
const plan = (phrase: string, timing: Partial<Timing> = {}, steps: readonly Step[] = []) =>
  rehearsedLines(
    {
      recurrence: parsePhrase(phrase, { start: '2026-12-01' }),
      timing: { ...PLAIN_TIMING, ...timing },
      exceptions: [{ kind: 'add', date: '2026-12-30' }],
    },
    { parts: parts(steps), whose: () => ({ kind: 'nobody', why: null }), ofParts: partsFor(null, calendar) },
    calendar,
    dayOfIso('2026-12-01'),
    dayOfIso('2026-12-31'),
  );

const PREPARE: Step = {
  kind: 'task',
  key: 'prepare',
  titlePattern: 'Prepare',
  note: '',
  offset: { amount: -2, unit: 'workingDay' },
  startTime: null,
  dueTime: '12:00',
  assignee: { by: 'set' },
  estimateMinutes: 5,
  demands: [],
  signOff: null,
};

describe('the lines of a rehearsal', () => {
  it('hold every task of a set, each on its own day', () => {
    const lines = plan('15th of each month', {}, [PREPARE]).map((one) => rehearsalLine(one, words, calendar));
    expect(lines.slice(0, 2).map(([nominal, task, on, , , due]) => [nominal, task, on, due])).toEqual([
      ['2026-12-15', 'Fire points', '2026-12-15', '2026-12-15'],
      ['2026-12-15', 'Prepare', '2026-12-11', '2026-12-11 12:00'],
    ]);
  });

  it('hold each date in ISO form, with times, reminders, who and a remark', () => {
    const timing: Partial<Timing> = {
      startTime: '08:00',
      reminders: [{ offset: { amount: -1, unit: 'workingDay' }, time: '09:00' }],
    };
    expect(
      plan('25th of each month, or the working day before', timing).map((one) => rehearsalLine(one, words, calendar)),
    ).toEqual([
      [
        '2026-12-25',
        'Fire points',
        '2026-12-24',
        '2026-12-24',
        '2026-12-24 08:00',
        '2026-12-24',
        '2026-12-23 09:00',
        'Maud',
        'moved: day off',
      ],
      [
        '2026-12-30',
        'Fire points',
        '2026-12-30',
        '2026-12-30',
        '2026-12-30 08:00',
        '2026-12-30',
        '2026-12-29 09:00',
        'Maud',
        'added by hand',
      ],
    ]);
  });

  it('say why a date makes nothing', () => {
    expect(
      plan('25th of each month, not on days off')
        .slice(0, 1)
        .map((one) => rehearsalLine(one, words, calendar)),
    ).toEqual([['2026-12-25', '', '', '', '', '', '', '', 'not made: day off']]);
  });
});

describe('the files of a rehearsal', () => {
  it('quote what a spreadsheet would take apart', () => {
    expect(
      csvOf(
        ['a', 'b'],
        [
          ['1, 2', 'say “so”'],
          ['"x"', ''],
        ],
      ),
    ).toBe('a,b\r\n"1, 2",say “so”\r\n"""x""",');
    expect(pasteOf(['a', 'b'], [['1, 2', '3']])).toBe('a\tb\n1, 2\t3');
  });

  it('are read back by a calendar program: whole days, or between instants', () => {
    const file = (timing: Partial<Timing>, steps: readonly Step[] = []) =>
      icsOf({
        title: ({ titlePattern }, { nominal }) =>
          titlePattern === 'Fire points' ? 'Payroll; run, twice' : `${titlePattern} ${nominal}`,
        key: 'payroll',
        tasks: plan('15th of each month', timing, steps).filter((one) => one.kind === 'task'),
        workspaceZone: 'Europe/London',
        now: '2026-11-24T10:40',
      });
    const events = (text: string) =>
      new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((entry) => new ICAL.Event(entry));
    const [whole] = events(file({ due: { amount: 1, unit: 'day' } }));
    expect(whole?.summary).toBe('Payroll; run, twice');
    expect([whole?.startDate.toString(), whole?.endDate.toString()]).toEqual(['2026-12-15', '2026-12-17']);
    const [timed] = events(file({ startTime: '08:00', dueTime: '12:00', zone: 'Australia/Sydney' }));
    expect([timed?.startDate.toString(), timed?.endDate.toString()]).toEqual([
      '2026-12-14T21:00:00Z',
      '2026-12-15T01:00:00Z',
    ]);
    expect(events(file({})).map(({ uid }) => uid)).toEqual([
      'payroll-2026-12-15@jolly-rota.example',
      'payroll-2026-12-30@jolly-rota.example',
    ]);
    // Every task of a set is an entry of its own, on its own day.
    const set = events(file({}, [PREPARE])).slice(0, 2);
    expect(set.map(({ uid, startDate }) => [uid, startDate.toString()])).toEqual([
      ['payroll-2026-12-15@jolly-rota.example', '2026-12-15'],
      ['payroll-2026-12-15-prepare@jolly-rota.example', '2026-12-11'],
    ]);
  });
});
