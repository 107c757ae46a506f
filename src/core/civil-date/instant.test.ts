import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { civilTimeAt, instantOf, isZone } from './instant.ts';

const at = (date: string, time: string, zone = 'Europe/London') => new Date(instantOf(date, time, zone)).toISOString();

describe('a civil time as an instant', () => {
  it('stays the time said on both sides of a clock change', () => {
    expect(at('2027-03-27', '08:00')).toBe('2027-03-27T08:00:00.000Z');
    expect(at('2027-03-28', '08:00')).toBe('2027-03-28T07:00:00.000Z');
    expect(at('2027-10-30', '08:00')).toBe('2027-10-30T07:00:00.000Z');
    expect(at('2027-10-31', '08:00')).toBe('2027-10-31T08:00:00.000Z');
  });

  it('moves forward when the clock leaves it out', () => {
    expect(civilTimeAt(instantOf('2027-03-28', '01:30', 'Europe/London'), 'Europe/London')).toEqual({
      date: '2027-03-28',
      time: '02:30',
    });
  });

  it('is the first when the clock shows it twice', () => {
    expect(at('2027-10-31', '01:30')).toBe('2027-10-31T00:30:00.000Z');
  });

  it('is shown back by a clock in the same zone', () => {
    for (const zone of ['Europe/London', 'America/St_Johns', 'Pacific/Apia', 'Asia/Kathmandu']) {
      expect(civilTimeAt(instantOf('2026-07-15', '09:45', zone), zone)).toEqual({ date: '2026-07-15', time: '09:45' });
    }
  });

  it('is what Temporal says at any instant, in the moment of a clock change too', () => {
    const zones = ['Europe/London', 'America/St_Johns', 'Pacific/Apia', 'Asia/Kathmandu', 'UTC', 'Australia/Lord_Howe'];
    const changes = zones.flatMap((zone) => {
      let time = Temporal.Instant.fromEpochMilliseconds(Date.UTC(2005, 0, 1)).toZonedDateTimeISO(zone);
      return Array.from({ length: 20 }, () => {
        time = time.getTimeZoneTransition('next') ?? time;
        return time.epochMilliseconds;
      });
    });
    const instant = fc.oneof(
      fc.integer({ min: Date.UTC(1970, 0, 1), max: Date.UTC(2060, 0, 1) }),
      fc.tuple(fc.constantFrom(...changes), fc.constantFrom(-60_000, -1, 0, 1, 60_000)).map(([at, by]) => at + by),
    );
    fc.assert(
      fc.property(instant, fc.constantFrom(...zones), (ms, zone) => {
        const there = Temporal.Instant.fromEpochMilliseconds(ms).toZonedDateTimeISO(zone).toPlainDateTime();
        const { date, time } = civilTimeAt(ms, zone);
        expect(`${date}T${time}`).toBe(there.toString({ smallestUnit: 'minute', roundingMode: 'floor' }));
      }),
      { numRuns: 120 },
    );
  });

  it('needs a zone that exists', () => {
    expect(isZone('Europe/London')).toBe(true);
    expect(isZone('Europe/Atlantis')).toBe(false);
    expect(() => instantOf('2026-01-01', '08:00', 'Europe/Atlantis')).toThrow();
  });
});
