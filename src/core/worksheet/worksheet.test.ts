import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { givenTo } from '../assignment/assignment.ts';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { PLAIN_TIMING } from '../planning/timing.ts';
import { canonicalRecurrence } from '../recurrence/canonical.ts';
import { anyRecurrence } from '../recurrence/generated.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { CELLS, type CellContext, type CellName, type CellSchedule, readCell, writeCell } from './cells.ts';
import {
  changedFields,
  editedRow,
  keepMine,
  NO_EDITS,
  pastedInto,
  plansJoined,
  putCellsBack,
  putTexts,
  readTabs,
  replaceWords,
  type SheetRow,
  sheetCell,
  withoutMet,
  writeTabs,
} from './sheet.ts';

const context: CellContext = {
  today: dayOfIso('2026-11-24'),
  people: [
    { id: 'a', name: 'Nadia Orme' },
    { id: 'b', name: 'Bram Tolliver' },
    { id: 'c', name: 'Bram Oakes' },
  ],
  roles: ['dock crew', 'yard'],
  teams: ['north'],
  yearStarts: 1,
  habits: {},
  seasons: [],
  calendar: WEEKDAYS_ONLY,
  plans: [
    { id: 'berth', name: 'Resident berth' },
    { id: 'winter', name: 'Winter, ashore' },
    { id: 'both', name: 'Winter' },
  ],
};
const monday: SheetRow = {
  id: 's',
  assignment: givenTo('a'),
  recurrence: parsePhrase('every 2 weeks on Mon', { start: '2026-02-02' }),
  timing: { ...PLAIN_TIMING, appears: { amount: -2, unit: 'workingDay' }, startTime: '08:00' },
  pauses: [],
  exceptions: [],
  revisions: [],
  plans: [{ id: 'berth', name: 'Resident berth' }],
};
const read = (column: CellName, text: string, schedule: CellSchedule = monday) => {
  const reading = readCell(column, text, schedule, context);
  return reading.kind === 'read' ? reading.schedule : reading;
};
const rewritten = (column: CellName, text: string) => {
  const reading = readCell(column, text, monday, context);
  return reading.kind === 'read' ? writeCell(column, reading.schedule, context) : reading.message;
};

describe('a cell', () => {
  it('says what a schedule has, and is read back as the same', () => {
    expect(CELLS.map((column) => writeCell(column, monday, context))).toEqual([
      'Nadia Orme',
      'every 2 weeks on Mon',
      '2 working days before',
      '08:00',
      'on the day',
      'end of day',
      'never',
      'running',
      'Resident berth',
    ]);
    for (const column of CELLS) expect(read(column, writeCell(column, monday, context))).toBe(monday);
  });

  it.each<[CellName, string, string]>([
    ['who', 'nadia', 'Nadia Orme'],
    ['who', '', 'nobody yet'],
    ['who', 'bram oakes', 'Bram Oakes'],
    ['when', 'last working day of every quarter', 'last working day of every quarter'],
    ['appears', '3', 'Write it like “2 days before”, “1 working day before” or “on the day”.'],
    ['appears', '3 days', '3 days before'],
    ['appears', '2 wd', '2 working days before'],
    ['appears', '1 week before', '7 days before'],
    ['appears', '0', 'on the day'],
    ['from', '830', '08:30'],
    ['from', '', 'any time'],
    ['due', '2 working days', '2 working days after'],
    ['by', '17', '17:00'],
    ['by', '07:30', 'It would be due at 07:30, before it starts at 08:00.'],
    ['ends', '30 Sep 2027', '30 Sep 2027'],
    ['ends', 'after 12 times', 'after 12 times'],
    ['ends', 'someday', 'Write “never”, a last day like “30 Sep 2027”, or “after 12 times”.'],
    ['state', 'paused', 'paused'],
    ['state', 'paused until 1 Mar', 'paused until 1 Mar 2027'],
    ['state', 'ended', 'ended'],
    ['plan', 'resident berth , winter, ashore', 'Resident berth, Winter, ashore'],
    ['plan', 'Winter, Resident berth', 'Resident berth, Winter'],
    ['plan', 'Resident berth, Sumer', 'There is no plan “Sumer” to be put on.'],
    [
      'plan',
      'Winter',
      'Here clients are put on plans; Resident berth stays. Clients are taken off a plan on their own page.',
    ],
    [
      'plan',
      '',
      'Here clients are put on plans; Resident berth stays. Clients are taken off a plan on their own page.',
    ],
    ['state', 'gone', 'Write “running”, “paused”, “paused until 1 Mar 2027” or “ended”.'],
  ])('of %s takes “%s”', (column, text, is) => {
    expect(rewritten(column, text)).toBe(is);
  });

  it('says who may be meant', () => {
    expect(read('who', 'Bram')).toMatchObject({ message: expect.stringContaining('Bram Tolliver or Bram Oakes') });
    expect(read('who', 'Nadja Orme')).toMatchObject({ offers: ['Nadia Orme'] });
    expect(read('when', 'evry Monday')).toMatchObject({ kind: 'unread', offers: ['every Monday'] });
  });

  it('of plans asks back for one that is left out, and says nothing of whom it is not for', () => {
    expect(read('plan', 'winter')).toMatchObject({ offers: ['Resident berth, Winter'] });
    expect(read('plan', 'Resident berth, Wintr')).toMatchObject({ offers: ['Resident berth, Winter'] });
    const none: SheetRow = { ...monday, plans: [] };
    expect(writeCell('plan', none, context)).toBe('none');
    expect(read('plan', 'none', none)).toBe(none);
    const ofNobody: SheetRow = { ...monday, plans: null };
    expect(writeCell('plan', ofNobody, context)).toBe('');
    expect(read('plan', 'Winter', ofNobody)).toMatchObject({ message: expect.stringMatching(/for no client/) });
    const unknown = readCell('plan', 'Winter', none, { ...context, plans: null });
    expect(unknown).toMatchObject({ kind: 'unread', message: 'The plans are not here yet.' });
  });

  it('keeps the start and the end that a phrase does not say', () => {
    const ended = read('ends', '30 Sep 2027') as CellSchedule;
    const tuesdays = read('when', 'every 2 weeks on Tue', ended) as CellSchedule;
    expect(tuesdays.recurrence).toMatchObject({ start: '2026-02-02', end: { kind: 'on', date: '2027-09-30' } });
  });

  it('pauses, resumes and ends as the table does', () => {
    const paused = read('state', 'paused') as CellSchedule;
    expect(paused.pauses).toEqual([{ from: '2026-11-24', to: null }]);
    expect((read('state', 'running', paused) as CellSchedule).pauses).toEqual([]);
    const ended = read('state', 'ended') as CellSchedule;
    expect(ended.recurrence.end).toEqual({ kind: 'on', date: '2026-11-23' });
    expect(read('state', 'running', ended)).toMatchObject({ message: expect.stringContaining('has ended') });
  });

  it('reads and changes the rule in force, not the one before it', () => {
    const { recurrence, timing } = monday;
    const revised = { ...monday, revisions: [{ from: '2026-11-01', recurrence, timing }] };
    const later = read('from', '09:15', revised) as CellSchedule;
    expect(later.timing.startTime).toBe('08:00');
    expect(later.revisions[0]?.timing.startTime).toBe('09:15');
    expect(writeCell('from', later, context)).toBe('09:15');
  });

  it('of any rule is read back as the same rule', () => {
    fc.assert(
      fc.property(anyRecurrence.map(canonicalRecurrence), (recurrence) => {
        const row = { ...monday, recurrence };
        for (const column of ['when', 'ends'] as const) {
          const text = writeCell(column, row, context);
          // On another schedule, so that it has to be read.
          const reading = readCell(
            column,
            text,
            {
              ...monday,
              recurrence: { ...recurrence, rules: monday.recurrence.rules, end: { kind: 'after', count: 7 } },
            },
            context,
          );
          expect(reading.kind).toBe('read');
          if (reading.kind === 'read') expect(writeCell(column, reading.schedule, context)).toBe(text);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('the changes of a sheet', () => {
  const put = (column: CellName, text: string, edits = NO_EDITS) =>
    putTexts(edits, [{ row: monday, column, text }], context);

  it('are kept as typed, and read on top of each other', () => {
    const edits = put('by', '12', put('from', '10'));
    const edited = editedRow(monday, edits, context);
    expect(edited.schedule.timing).toMatchObject({ startTime: '10:00', dueTime: '12:00' });
    expect(changedFields(monday, edited.schedule)).toEqual({ timing: edited.schedule.timing });
    expect(sheetCell(monday, 'from', edits, edited, context)).toEqual({
      text: '10:00',
      isChanged: true,
      problem: null,
      meanwhile: null,
    });
  });

  it('go away where a cell says what it said before', () => {
    expect(put('from', '08:00', put('from', '10:00')).size).toBe(0);
    expect(putCellsBack(put('from', '10:00'), [{ row: monday, column: 'from' }], context).size).toBe(0);
  });

  it('that puts its client on a plan changes nothing of the schedule, and is over once that is so', () => {
    const edits = put('plan', 'Resident berth, winter');
    const edited = editedRow(monday, edits, context);
    expect(changedFields(monday, edited.schedule)).toBeNull();
    expect(plansJoined(monday, edited.schedule)).toEqual([{ id: 'both', name: 'Winter' }]);
    const rows = (row: SheetRow) => new Map([[row.id, row]]);
    expect(withoutMet(edits, rows(monday), context)).toEqual(edits);
    const onBoth: SheetRow = { ...monday, plans: [...(monday.plans ?? []), { id: 'both', name: 'Winter' }] };
    expect(withoutMet(edits, rows(onBoth), context).size).toBe(0);
    const two = put('from', '8', edits);
    expect([...(withoutMet(two, rows(onBoth), context).get('s')?.keys() ?? [])]).toEqual([]);
    expect([
      ...(withoutMet(put('from', '9', edits), rows(onBoth), context)
        .get('s')
        ?.keys() ?? []),
    ]).toEqual(['from']);
  });

  it('keep what can’t be read, with what is wrong', () => {
    const edits = put('when', 'evry Monday');
    const edited = editedRow(monday, edits, context);
    expect(changedFields(monday, edited.schedule)).toBeNull();
    expect(sheetCell(monday, 'when', edits, edited, context)).toMatchObject({
      text: 'evry Monday',
      problem: { offers: ['every Monday'] },
    });
  });

  it('tell what somebody else has put into the same cell meanwhile, and leave the choice', () => {
    const edits = put('from', '10:00');
    const theirs: SheetRow = { ...monday, assignment: givenTo(null), timing: { ...monday.timing, startTime: '06:00' } };
    const edited = editedRow(theirs, edits, context);
    expect(edited.meanwhile).toEqual(new Map([['from', '06:00']]));
    // What they changed elsewhere is theirs.
    expect(changedFields(theirs, edited.schedule)).toEqual({ timing: { ...monday.timing, startTime: '10:00' } });
    const kept = keepMine(edits, [theirs], context);
    expect(editedRow(theirs, kept, context).meanwhile.size).toBe(0);
    expect(putCellsBack(edits, [{ row: theirs, column: 'from' }], context).size).toBe(0);
  });
});

describe('the clipboard', () => {
  it('takes cells to a spreadsheet and back as they are', () => {
    const text = fc.string({ maxLength: 12 }).map((one) => one.replaceAll('\r', ''));
    fc.assert(
      fc.property(fc.array(fc.array(text, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 4 }), (block) => {
        expect(readTabs(writeTabs(block))).toEqual(block);
      }),
    );
    expect(readTabs('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]);
    expect(readTabs('say "no"')).toEqual([['say "no"']]);
  });

  it('fills all chosen cells with one text, repeats a block that fits, else goes down and right', () => {
    const cells = [
      ['a1', 'a2', 'a3'],
      ['b1', 'b2', 'b3'],
      ['c1', 'c2', 'c3'],
    ];
    const column = [['a1'], ['b1'], ['c1']];
    expect(pastedInto([['x']], column, cells).map(({ place }) => place)).toEqual(['a1', 'b1', 'c1']);
    expect(pastedInto([['x'], ['y']], column, cells)).toEqual([
      { place: 'a1', text: 'x' },
      { place: 'b1', text: 'y' },
    ]);
    expect(
      pastedInto(
        [['x', 'y']],
        [['b2']],
        [
          ['b2', 'b3'],
          ['c2', 'c3'],
        ],
      ),
    ).toEqual([
      { place: 'b2', text: 'x' },
      { place: 'b3', text: 'y' },
    ]);
  });

  it('finds words whatever their case, and takes signs as they are', () => {
    expect(replaceWords('every week on Mon', 'MON', 'Tue')).toBe('every week on Tue');
    expect(replaceWords('08:00', '0.', '9')).toBeNull();
    expect(replaceWords('a.b', '.', '$&')).toBe('a$&b');
  });

  it('asks what a phrase means, with the next dates of each thing it may be', () => {
    expect(read('when', 'every second Tuesday')).toMatchObject({
      kind: 'unread',
      message:
        'This can mean “every 2 weeks on Tue” (Tue 24 Nov, Tue 8 Dec, Tue 22 Dec) or “second Tuesday of each month” (Tue 8 Dec, Tue 12 Jan 2027, Tue 9 Feb 2027): say which.',
    });
  });
});
