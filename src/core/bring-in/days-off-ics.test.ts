import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { readDaysOff } from './days-off-ics.ts';

const [FROM, TO] = [dayOfIso('2026-01-01'), dayOfIso('2031-12-31')];
const file = (...events: readonly (readonly string[])[]) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    ...events.flatMap((lines) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT']),
    'END:VCALENDAR',
    '',
  ].join('\r\n');
const read = (...lines: string[]) => readDaysOff(file(lines), FROM, TO);

describe('days off of a calendar file', () => {
  it('are its whole-day events, to the day before their end', () => {
    expect(read('DTSTART;VALUE=DATE:20261209', 'DTEND;VALUE=DATE:20261211', 'SUMMARY:Regatta\\, both days')).toEqual({
      days: [
        { date: '2026-12-09', name: 'Regatta, both days' },
        { date: '2026-12-10', name: 'Regatta, both days' },
      ],
      ...{ left: [], outside: 0 },
    });
    expect(read('DTSTART;VALUE=DATE:20261209', 'SUMMARY:One').days).toHaveLength(1);
    expect(read('DTSTART;VALUE=DATE:20261209', 'DURATION:P1W').days).toHaveLength(7);
    expect(read('DTSTART;VALUE=DATE:20261209', 'DTEND;VALUE=DATE:20261209').days).toHaveLength(1);
  });

  it('come again by their rule, but for those taken out', () => {
    const dates = read(
      'DTSTART;VALUE=DATE:20200501',
      'RRULE:FREQ=YEARLY',
      'EXDATE;VALUE=DATE:20280501',
      'SUMMARY:May Day',
    );
    expect(dates.days.map(({ date }) => date)).toEqual([
      ...['2026-05-01', '2027-05-01', '2029-05-01', '2030-05-01', '2031-05-01'],
    ]);
    expect(read('DTSTART;VALUE=DATE:20260501', 'EXDATE;VALUE=DATE:20260501').days).toEqual([]);
    expect(read('DTSTART;VALUE=DATE:20270329', 'RDATE;VALUE=DATE:20280417').days.map(({ date }) => date)).toEqual([
      '2027-03-29',
      '2028-04-17',
    ]);
  });

  it('tell what they leave, and why', () => {
    expect(
      readDaysOff(
        file(
          ['DTSTART:20261209T090000Z', 'SUMMARY:Meeting'],
          ['DTSTART;VALUE=DATE:20260231', 'SUMMARY:No day'],
          ['DTSTART;VALUE=DATE:20261209', 'STATUS:CANCELLED', 'SUMMARY:Off'],
          ['DTSTART;VALUE=DATE:20260101', 'DTEND;VALUE=DATE:20261231', 'SUMMARY:All year'],
          ['DTSTART;VALUE=DATE:20260101', 'RRULE:FREQ=HOURLY', 'SUMMARY:Often'],
          ['SUMMARY:Nothing'],
          ['DTSTART;VALUE=DATE:20250101', 'SUMMARY:Past'],
        ),
        FROM,
        TO,
      ),
    ).toEqual({
      days: [],
      outside: 1,
      left: [
        { name: 'Meeting', why: 'it has a time of day' },
        { name: 'No day', why: '“20260231” is no date' },
        { name: 'Off', why: 'it is cancelled' },
        { name: 'All year', why: 'it is 364 days long, 92 at most' },
        { name: 'Often', why: expect.any(String) },
        { name: 'Nothing', why: 'it has no day' },
      ],
    });
    expect(() => readDaysOff('date,name\n', FROM, TO)).toThrow('That is no calendar file');
  });

  it('have long names put together again, and an alarm of theirs says nothing', () => {
    const { days } = read(
      'DTSTART;VALUE=DATE:20261209',
      'SUMMARY:The day of the',
      '  harbour fair',
      'BEGIN:VALARM',
      'SUMMARY:Wake',
      'END:VALARM',
      'X-NOTE;CN="a: b":c',
    );
    expect(days).toEqual([{ date: '2026-12-09', name: 'The day of the harbour fair' }]);
  });

  it('are each day once, of 5,000 events as of one', () => {
    const many = Array.from({ length: 5000 }, (_, i) => [
      `DTSTART;VALUE=DATE:${isoOfDay(FROM + (i % 700)).replaceAll('-', '')}`,
      `SUMMARY:Day ${i}`,
    ]);
    expect(readDaysOff(file(...many), FROM, TO).days).toHaveLength(700);
  });

  it('are never a fault, whatever stands in the file', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 8 }), (lines) => {
        expect(read(...lines).days.length).toBeLessThanOrEqual(TO - FROM + 1);
      }),
    );
  });
});
