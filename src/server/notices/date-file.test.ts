import { expect, it } from 'vitest';
import { dateFileOf } from './date-file.ts';

const date = (startTime: string | null, dueTime: string | null) =>
  dateFileOf({
    ...{ taskId: 't', on: '2026-07-01', startTime, dueTime, zone: 'Europe/London', summary: 'Aboard' },
    ...{ location: '', sequence: 2, at: new Date('2026-06-20T08:00:00Z') },
  });

it.each([
  ['11:00', '12:00', ['DTSTART:20260701T100000Z', 'DTEND:20260701T110000Z']],
  ['11:00', null, ['DTSTART:20260701T100000Z']],
  [null, '12:00', ['DTSTART;VALUE=DATE:20260701', 'DTEND;VALUE=DATE:20260702']],
  [null, null, ['DTSTART;VALUE=DATE:20260701', 'DTEND;VALUE=DATE:20260702']],
])('a visit from %s until %s makes up no hours', (from, until, lines) => {
  const text = date(from, until);
  expect(text.split('\r\n').filter((line) => /^DT(START|END)/.test(line))).toEqual(lines);
  expect(text).toContain('SEQUENCE:2');
});
