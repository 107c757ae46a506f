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

  it('needs a zone that exists', () => {
    expect(isZone('Europe/London')).toBe(true);
    expect(isZone('Europe/Atlantis')).toBe(false);
    expect(() => instantOf('2026-01-01', '08:00', 'Europe/Atlantis')).toThrow();
  });
});
