import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { civilTimeAt, instantOf } from '../civil-date/instant.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { planBetween } from './iso-plan.ts';
import { PLAIN_TIMING, type Timing } from './timing.ts';

const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: ['2026-12-25', '2026-12-28'] });
const utc = (epoch: number) => new Date(epoch).toISOString().slice(0, 16);

function instants(timing: Partial<Timing>, date: string, zone = 'Europe/London') {
  const schedule = { recurrence: parsePhrase(`on ${date}`), timing: { ...PLAIN_TIMING, ...timing } };
  const [one] = planBetween(schedule, calendar, date, date, { instantsIn: zone });
  if (one?.kind !== 'dated' || !one.instants) throw new Error('no occurrence');
  return one.instants;
}

describe('the instants of an occurrence', () => {
  it('are its days’ beginnings and ends where no time is said', () => {
    const { appears, starts, due } = instants({ appears: { amount: -1, unit: 'workingDay' } }, '2026-12-29');
    expect([appears, starts, due].map(utc)).toEqual(['2026-12-24T00:00', '2026-12-29T00:00', '2026-12-30T00:00']);
  });

  it('are the times said, on each side of a clock change', () => {
    const timing = { startTime: '08:00', dueTime: '17:00' };
    expect(utc(instants(timing, '2027-03-27').starts)).toBe('2027-03-27T08:00');
    expect(utc(instants(timing, '2027-03-28').starts)).toBe('2027-03-28T07:00');
    expect(utc(instants(timing, '2027-03-28').due)).toBe('2027-03-28T16:00');
  });

  it('are in the zone of the schedule, where it has one', () => {
    expect(utc(instants({ startTime: '08:00', zone: 'Australia/Sydney' }, '2026-11-24').starts)).toBe(
      '2026-11-23T21:00',
    );
  });

  it('remind at each time asked for, earliest first', () => {
    const reminders = [
      { offset: { amount: 0, unit: 'day' }, time: '07:30' },
      { offset: { amount: -14, unit: 'day' }, time: '09:00' },
      { offset: { amount: -1, unit: 'workingDay' }, time: '16:00' },
    ] as const;
    expect(instants({ reminders }, '2026-12-29').reminders.map(utc)).toEqual([
      '2026-12-15T09:00',
      '2026-12-24T16:00',
      '2026-12-29T07:30',
    ]);
  });

  it('need a zone that exists', () => {
    expect(() => instants({ zone: 'Europe/Atlantis' }, '2026-11-24')).toThrow(RangeError);
  });
});

/** Clock changes of a zone from 2020 to 2040: the instant, and the offsets before and after in seconds. */
function* changesOf(zone: string) {
  let at = Temporal.Instant.from('2020-01-01T00:00Z').toZonedDateTimeISO(zone);
  for (;;) {
    const next = at.getTimeZoneTransition('next');
    if (!next || next.year > 2040) return;
    const before = next.subtract({ nanoseconds: 1 }).offsetNanoseconds / 1e9;
    yield { epoch: next.epochMilliseconds, before, after: next.offsetNanoseconds / 1e9 };
    at = next;
  }
}

const wall = (epoch: number, offsetSeconds: number) => {
  const text = new Date(epoch + offsetSeconds * 1000).toISOString();
  return { date: text.slice(0, 10), time: text.slice(11, 16) };
};

describe('every clock change of every zone from 2020 to 2040', () => {
  it('shows the time that was said; in a gap it is later by the gap, in an overlap the first', () => {
    let changes = 0;
    for (const zone of Intl.supportedValuesOf('timeZone')) {
      for (const { epoch, before, after } of changesOf(zone)) {
        changes++;
        const shift = after - before;
        // Well before, just before, just after and well after: there the clock shows what was said.
        for (const minutes of [-181, -1, 0, 181]) {
          const at = epoch + minutes * 60_000 + (minutes >= 0 ? Math.max(0, -shift) * 1000 : 0);
          const said = wall(at, at < epoch ? before : after);
          // In the hours that come twice the first is meant: before the change, not after.
          const isTwice = shift < 0 && at < epoch && at >= epoch + shift * 1000;
          const instant = instantOf(said.date, said.time, zone);
          if (!isTwice) expect(civilTimeAt(instant, zone), `${zone} ${said.date} ${said.time}`).toEqual(said);
          expect(instant, `${zone} ${said.date} ${said.time}`).toBe(at - (at % 60_000));
        }
        const middle = epoch + Math.trunc(Math.abs(shift) / 2) * 1000 - (shift < 0 ? -shift * 1000 : 0);
        const said = wall(middle, before);
        const instant = instantOf(said.date, said.time, zone);
        if (shift > 0) expect(civilTimeAt(instant, zone), `gap in ${zone}`).toEqual(wall(middle, after));
        else expect(instant, `overlap in ${zone}`).toBe(middle - (middle % 60_000));
      }
    }
    expect(changes).toBeGreaterThan(4000);
  });
});
