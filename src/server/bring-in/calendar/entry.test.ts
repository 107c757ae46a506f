import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
// biome-ignore lint/style/noRestrictedImports: generators for tests stay behind the core's door
import { longestClosure } from '../../../core/calendar/closed-season.ts';
import {
  dayOfIso,
  type EntryFate,
  type EntryMeaning,
  FRESH_TIMING,
  instantOf,
  isDated,
  isoOfDay,
  meaningOf,
  occurrenceSeries,
  type PlannedSchedule,
  planDays,
  reckoningFault,
  workingCalendar,
  writeRRule,
} from '../../../core/index.ts';
// biome-ignore lint/style/noRestrictedImports: generators for tests stay behind the core's door
import { anyFullRecurrence, orTooMuch } from '../../../core/recurrence/generated.ts';
import { readEntry, zoneOfTzid } from './entry.ts';
import { readCalendar } from './read-calendar.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'jolly-ics-'));
});
afterAll(() => rm(folder, { recursive: true }));

const calendar = workingCalendar([1, 2, 3, 4, 5], new Map());
const read = async (file: string | Buffer) => {
  const path = join(folder, 'some.ics');
  await writeFile(path, file);
  return readCalendar(path);
};
const within = (...lines: readonly string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const event = (...lines: readonly string[]) => ['BEGIN:VEVENT', 'UID:one@example.org', ...lines, 'END:VEVENT'];

function entryOf(uid: string, text: string) {
  const reading = readEntry(uid, text);
  if ('problem' in reading) throw new Error(reading.problem);
  return reading.entry;
}

/** What the first entry of a calendar becomes in London on 24 November 2026. */
async function meant(lines: readonly string[], said: EntryFate | null = null): Promise<EntryMeaning> {
  const { entries, zones } = await read(within(...lines));
  const [first] = entries;
  if (!first) throw new Error('There is no entry.');
  return meaningOf(entryOf(first.uid, first.text), said, {
    ...{ today: dayOfIso('2026-11-24'), zone: 'Europe/London', calendar },
    zoneOf: (tzid) => zoneOfTzid(tzid, zones.get(tzid), 'Europe/London'),
    choices: { repeating: 'schedule', single: 'task', wholeDays: 'as work', toDos: 'template' },
  });
}

/** Days with their time of day, as far as asked. */
function datesOf(meaning: EntryMeaning, from: string, to: string): string[] {
  if (meaning.becomes !== 'schedule') throw new Error(`It becomes ${JSON.stringify(meaning)}.`);
  return planDays(meaning, calendar, dayOfIso(from), dayOfIso(to))
    .filter(isDated)
    .map(({ on, timing }) => [isoOfDay(on), timing.startTime].filter(Boolean).join(' '));
}

describe('entries as programs write them', () => {
  it('keeps a rule with EXDATE, RDATE, COUNT, a moved, a later and a cancelled occurrence', async () => {
    const meaning = await meant([
      ...event(
        'SUMMARY:Weekly round',
        'DTSTART;TZID=Europe/London:20261130T090000',
        'DTEND;TZID=Europe/London:20261130T093000',
        'RRULE:FREQ=WEEKLY;COUNT=8',
        'EXDATE;TZID=Europe/London:20261214T090000',
        'RDATE;TZID=Europe/London:20261216T103000',
      ),
      ...event(
        'SUMMARY:Weekly round',
        'RECURRENCE-ID;TZID=Europe/London:20261207T090000',
        'DTSTART;TZID=Europe/London:20261208T140000',
        'DURATION:PT30M',
      ),
      ...event(
        'SUMMARY:Weekly round',
        'RECURRENCE-ID:20261221T090000Z',
        'DTSTART;TZID=Europe/London:20261221T090000',
        'DURATION:PT30M',
        'STATUS:CANCELLED',
      ),
      ...event(
        'SUMMARY:With the auditor',
        'RECURRENCE-ID;TZID=Europe/London:20261228T090000',
        'DTSTART;TZID=Europe/London:20261228T090000',
        'DURATION:PT30M',
      ),
    ]);
    expect(datesOf(meaning, '2026-11-01', '2027-12-31')).toEqual([
      ...['2026-11-30 09:00', '2026-12-08 14:00', '2026-12-16 10:30', '2026-12-28 09:00', '2027-01-04 09:00'],
      ...['2027-01-11 09:00', '2027-01-18 09:00'],
    ]);
    expect(meaning).toMatchObject({
      timing: { startTime: '09:00', dueTime: '09:30', zone: null },
      unsaid: ['On 28 Dec 2026 it is “With the auditor”'],
      work: { name: 'Weekly round', minutes: 30 },
    });
  });

  it('knows zones by what programs on Windows call them, by longer names, and by their clocks', async () => {
    const of = (tzid: string, definition?: string) => zoneOfTzid(tzid, definition, 'Europe/London');
    expect(of('W. Europe Standard Time')).toBe('Europe/Berlin');
    expect(of('GMT Standard Time')).toBe('Europe/London');
    expect(of('/example.org/20260101/America/New_York')).toBe('America/New_York');
    expect(of('UTC')).toBe('UTC');
    const clocks = (winter: string, summer: string) =>
      `BEGIN:VTIMEZONE\r\nTZID:Ours\r\nTZOFFSETTO:${winter}\r\nTZOFFSETTO:${summer}\r\n`;
    expect(of('Ours', clocks('+0000', '+0100'))).toBe('Europe/London');
    expect(of('Ours', clocks('-0500', '-0400'))).toBeNull();
    expect(of('Ours', `${clocks('-0500', '-0400')}X-LIC-LOCATION:America/Chicago`)).toBe('America/Chicago');
    const meaning = await meant(
      event(
        'SUMMARY:Call',
        'DTSTART;TZID=W. Europe Standard Time:20261201T100000',
        'DURATION:PT1H',
        'RRULE:FREQ=MONTHLY',
      ),
    );
    expect(meaning).toMatchObject({ timing: { startTime: '10:00', zone: 'Europe/Berlin' } });
  });

  it('takes times that float as they stand, and those of a single event by the clocks of the workspace', async () => {
    expect(
      await meant(event('SUMMARY:Lunch', 'DTSTART:20261201T120000', 'RRULE:FREQ=DAILY;UNTIL=20261203T120000')),
    ).toMatchObject({
      timing: { startTime: '12:00', dueTime: null, zone: null },
      recurrence: { end: { kind: 'on', date: '2026-12-03' } },
    });
    expect(
      await meant(event('SUMMARY:Call', 'DTSTART;TZID="America/New_York":20261201T233000', 'DURATION:PT45M')),
    ).toMatchObject({
      ...{ becomes: 'task', on: '2026-12-02', startTime: '04:30', dueOn: '2026-12-02', dueTime: '05:15' },
    });
    expect(
      await meant(event('SUMMARY:Night watch', 'DTSTART:20261201T220000', 'DTEND:20261202T060000', 'RRULE:FREQ=DAILY')),
    ).toMatchObject({
      timing: { startTime: '22:00', dueTime: '06:00', due: { amount: 1, unit: 'day' } },
      work: { minutes: 480 },
    });
  });

  it('turns alarms into reminders, and says which it can’t', async () => {
    const alarm = (...lines: readonly string[]) => [
      'BEGIN:VALARM',
      'ACTION:DISPLAY',
      'DESCRIPTION:x',
      ...lines,
      'END:VALARM',
    ];
    const meaning = await meant(
      event(
        ...['SUMMARY:Tides', 'DTSTART;VALUE=DATE:20261201', 'RRULE:FREQ=WEEKLY'],
        ...[
          ...alarm('TRIGGER:-PT9H'),
          ...alarm('TRIGGER;RELATED=END:P1D'),
          ...alarm('TRIGGER;VALUE=DATE-TIME:20261101T080000Z'),
        ],
      ),
    );
    expect(meaning).toMatchObject({
      timing: {
        reminders: [
          { offset: { amount: -1, unit: 'day' }, time: '15:00' },
          { offset: { amount: 1, unit: 'day' }, time: '00:00' },
        ],
      },
      unsaid: ['An alarm at one fixed time, which does not repeat'],
    });
  });

  it('leaves out what is over, cancelled or finer than a day, and says why', async () => {
    const why = async (...lines: readonly string[]) => {
      const meaning = await meant(event(...lines));
      return meaning.becomes === 'left out' ? meaning.why : meaning.becomes;
    };
    expect(await why('SUMMARY:Past', 'DTSTART:20200101T090000')).toBe('it is over');
    expect(await why('SUMMARY:Past', 'DTSTART:20200101T090000', 'RRULE:FREQ=DAILY;COUNT=3')).toBe('it is over');
    expect(await why('SUMMARY:Gone', 'DTSTART:20270101T090000', 'STATUS:CANCELLED')).toBe('it is cancelled');
    expect(await why('SUMMARY:Often', 'DTSTART:20270101T090000', 'RRULE:FREQ=HOURLY')).toMatch(/HOURLY|finer|hour/i);
    expect(await why('DTSTART:20270101T090000')).toBe('it has no name');
  });

  it('makes templates of to-dos without a day and tasks of those with one', async () => {
    const toDo = (...lines: readonly string[]) => ['BEGIN:VTODO', 'UID:two', ...lines, 'END:VTODO'];
    expect(await meant(toDo('SUMMARY:Winter cover', 'DESCRIPTION:Two people\\, one rope', 'PRIORITY:1'))).toMatchObject(
      {
        becomes: 'template',
        work: { name: 'Winter cover', text: 'Two people, one rope', priority: 'high' },
      },
    );
    expect(await meant(toDo('SUMMARY:Pay', 'DUE;VALUE=DATE:20261204'))).toMatchObject({
      becomes: 'task',
      on: '2026-12-04',
      dueOn: '2026-12-04',
    });
    expect(await meant(toDo('SUMMARY:Pay', 'STATUS:COMPLETED', 'DUE:20261204T170000'))).toMatchObject({
      why: 'it is done already',
    });
  });
});

describe('a calendar file', () => {
  it('undoes folds within a letter, mends lines that were broken, and takes what is no text out', async () => {
    const folded = Buffer.concat([
      Buffer.from('BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTART:20270101T090000\r\nSUMMARY:Caf'),
      Buffer.from([0xc3]),
      Buffer.from('\r\n '),
      Buffer.from([0xa9]),
      Buffer.from(
        `\r\nDESCRIPTION:${'x'.repeat(70)}\r\nyy and more\r\nATTACH;ENCODING=BASE64;VALUE=BINARY:${'A'.repeat(9000)}\r\nLOCATION:Pontoon D\r\nsecond line\r\nEND:VEVENT\r\nBEGIN:VJOURNAL\r\nUID:j\r\nEND:VJOURNAL\r\nEND:VCALENDAR\r\n`,
      ),
    ]);
    const { entries, mended, others, encoding } = await read(folded);
    expect([mended, others, encoding, entries.length]).toEqual([2, 1, 'UTF-8', 1]);
    const { main } = entryOf('a', entries[0]?.text ?? '');
    expect(main).toMatchObject({
      summary: 'Café',
      description: `${'x'.repeat(70)}yy and more`,
      location: 'Pontoon D second line',
      besides: ['attached files'],
    });
  });

  it('refuses what is none, breaks off or is empty, in words', async () => {
    await expect(read('what,when\nx,y')).rejects.toThrow('That is no calendar file');
    await expect(read('')).rejects.toThrow('It is empty');
    await expect(read('BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:a')).rejects.toThrow('breaks off');
    await expect(read(within())).rejects.toThrow('neither an event nor a to-do');
  });

  it('takes ten thousand events apart without holding others up', async () => {
    const lines = Array.from({ length: 10_000 }, (_, i) => [
      'BEGIN:VEVENT',
      `UID:e${i}`,
      'SUMMARY:x',
      'DTSTART:20270101T090000',
      'END:VEVENT',
    ]).flat();
    expect((await read(within(...lines))).entries.length).toBe(10_000);
  });
});

/** What waits for the last one has no dates to write. */
const dated = anyFullRecurrence.filter(
  ({ rules, closed }) => rules.every(({ kind }) => kind !== 'follows') && longestClosure(closed?.seasons ?? []) < 200,
);

it('has the dates of any schedule again, once it was written as iCalendar', async () => {
  await fc.assert(
    fc.asyncProperty(dated, fc.boolean(), async (recurrence, isTimed) => {
      // What takes too long to reckon is refused when it is saved, and never written.
      fc.pre(reckoningFault({ recurrence, timing: FRESH_TIMING }, calendar, dayOfIso('2026-11-24')) === null);
      const lines = orTooMuch(() => writeRRule(recurrence, { calendar, to: '2031-12-31' }))?.split('\n') ?? [];
      // A rule without any date has none to write: DTSTART is one by itself (RFC 5545, section 3.8.5.3), and alone it is no series.
      const { next } = occurrenceSeries({ ...recurrence, except: [] }, calendar);
      fc.pre(
        lines.some((line) => /^R(RULE|DATE)/.test(line)) &&
          orTooMuch(() => next(dayOfIso(recurrence.start) - 1)) !== null,
      );
      // With a time of day each date is a DATE-TIME of the same clock.
      const timed = lines.map((line) =>
        isTimed && !line.startsWith('COMMENT')
          ? line
              .replace(
                /;VALUE=DATE:(.*)$/,
                (_, dates: string) =>
                  `;TZID=Europe/London:${dates
                    .split(',')
                    .map((date) => `${date}T083000`)
                    .join(',')}`,
              )
              .replace(/UNTIL=(\d{8})/, 'UNTIL=$1T235959Z')
          : line,
      );
      const planned: PlannedSchedule = { recurrence, timing: { ...FRESH_TIMING, startTime: isTimed ? '08:30' : null } };
      const span = [dayOfIso('2026-11-24'), dayOfIso('2029-12-31')] as const;
      const wanted = planDays(planned, calendar, ...span)
        .filter(isDated)
        .map(({ on }) => isoOfDay(on));
      const meaning = await meant(event('SUMMARY:Any', ...timed));
      if (meaning.becomes === 'left out') {
        expect([meaning.why, wanted]).toEqual(['it is over', []]);
        return;
      }
      if (meaning.becomes !== 'schedule') throw new Error(`It becomes ${meaning.becomes}.`);
      expect(meaning.timing.startTime).toBe(planned.timing.startTime);
      const again = planDays(meaning, calendar, ...span)
        .filter(isDated)
        .map(({ on }) => isoOfDay(on));
      expect([...new Set(again)]).toEqual([...new Set(wanted)]);
    }),
    { numRuns: 150 },
  );
});

it('reads the same instant, whatever zone a single event was written in', () =>
  fc.assert(
    fc.asyncProperty(
      fc.constantFrom('America/New_York', 'Asia/Kolkata', 'Pacific/Auckland', 'UTC', 'Europe/Berlin'),
      fc.integer({ min: dayOfIso('2026-12-01'), max: dayOfIso('2028-12-31') }),
      fc.integer({ min: 0, max: 1439 }),
      async (zone, day, minutes) => {
        const time = `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
        const value = `${isoOfDay(day).replaceAll('-', '')}T${time.replace(':', '')}00`;
        const line = zone === 'UTC' ? `DTSTART:${value}Z` : `DTSTART;TZID=${zone}:${value}`;
        const meaning = await meant(event('SUMMARY:Any', line));
        if (meaning.becomes !== 'task' || meaning.startTime === null) throw new Error('It is a task at a time.');
        expect(instantOf(meaning.on, meaning.startTime, 'Europe/London')).toBe(instantOf(isoOfDay(day), time, zone));
      },
    ),
    { numRuns: 100 },
  ));
