import ICAL from 'ical.js';
import { RRule } from 'rrule';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../../civil-date/iso-date.ts';
import { nextOccurrence, occurrencesBetween } from '../occurrences.ts';
import { type Seeded, seeded } from '../seeded.ts';
import { parseRRule } from './reader.ts';

/**
 * Thousands of seeded random rules beside two independent readings of RFC 5545. Where they differ, the RFC decides:
 *
 * - Both, when BYSETPOS stands elsewhere than beside a monthly BYDAY, or past the end of the set: `rrule` repeats or drops
 *   dates, `ical.js` never ends. Those are checked against the RFC's own examples and in `rrule.test.ts`.
 * - `rrule` gives a whole week for BYWEEKNO alone; the RFC takes the weekday from DTSTART, like all that is left unsaid.
 * - `ical.js` gives DTSTART even if the rule does not, and counts BYSETPOS from it in the first month; it loses the interval's phase and days of the first period with
 *   BYMONTH, reads yearly BYMONTHDAY and BYWEEKNO otherwise, and never ends with a negative BYMONTHDAY in a daily rule.
 */

const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

function randomRule(random: Seeded): string {
  const { whole, one, some, chance } = random;
  const freq = one(['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']);
  const parts = [`FREQ=${freq}`];
  const add = (percent: number, part: () => string): boolean => {
    const added = chance(percent);
    if (added) parts.push(part());
    return added;
  };
  add(50, () => `INTERVAL=${whole(2, 5)}`);
  const months = add(30, () => `BYMONTH=${some([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12], 3)}`);
  const dates =
    freq !== 'WEEKLY' && add(35, () => `BYMONTHDAY=${some([1, 2, 13, 15, 28, 29, 30, 31, -1, -2, -5, -31], 3)}`);
  const yearDays =
    freq === 'YEARLY' && add(15, () => `BYYEARDAY=${some([1, 60, 100, 200, 365, 366, -1, -100, -366], 3)}`);
  const weeks =
    freq === 'YEARLY' && !months && !dates && !yearDays && add(25, () => `BYWEEKNO=${some([1, 2, 20, 52, 53, -1], 2)}`);
  const hasOrdinal = (freq === 'MONTHLY' || freq === 'YEARLY') && !weeks && chance(60);
  // Not -5 nor -53: `rrule` takes some of them for the first.
  const ordinals = freq === 'YEARLY' && !months ? [1, 2, 20, 52, -1, -2] : [1, 2, 3, 4, 5, -1, -2];
  const weekdays = add(
    weeks ? 100 : 45,
    () => `BYDAY=${some(WEEKDAYS, 2).map((day) => `${hasOrdinal ? one(ordinals) : ''}${day}`)}`,
  );
  if (freq === 'MONTHLY' && weekdays && !hasOrdinal && !months && !dates)
    add(50, () => `BYSETPOS=${one([1, 2, 3, -1, -2])}`);
  if (freq === 'WEEKLY') add(30, () => `WKST=${one(WEEKDAYS)}`);
  return parts.join(';');
}

const utc = (day: number) => new Date(day * 86_400_000);
const iso = (at: Date) => at.toISOString().slice(0, 10);

function byRRule(text: string, start: number, from: number, to: number): string[] {
  const options = RRule.parseString(text);
  // Ended where it is no longer asked: else it looks for dates that never come until the year 9999.
  return new RRule({ until: utc(to), ...options, dtstart: utc(start) }).between(utc(from), utc(to), true).map(iso);
}

/** Whether `ical.js` reads a rule as the RFC does: see above. */
function isReadByIcal(text: string): boolean {
  const has = (part: string) => text.includes(`;${part}=`);
  if (has('BYWEEKNO') || has('BYSETPOS')) return false;
  if (has('BYMONTHDAY')) return text.startsWith('FREQ=MONTHLY') && !has('BYDAY') && !has('BYMONTH');
  if (has('BYMONTH')) return text.startsWith('FREQ=DAILY');
  return !(text.startsWith('FREQ=YEARLY') && has('BYDAY'));
}

function byIcal(text: string, start: number, to: number): string[] {
  const iterator = ICAL.Recur.fromString(text).iterator(ICAL.Time.fromDateString(isoOfDay(start)));
  const dates: string[] = [];
  for (let at = iterator.next(); at; at = iterator.next()) {
    const date = at.toString().slice(0, 10);
    if (date > isoOfDay(to)) break;
    dates.push(date);
  }
  return dates;
}

describe('beside other readings of RFC 5545', () => {
  it('gives the same dates as rrule for 2,000 random rules over random windows', () => {
    const random = seeded(20_261_124);
    let rare = 0;
    for (let i = 0; i < 2000; i++) {
      const text = randomRule(random);
      const start = dayOfIso('2020-01-01') + random.whole(0, 1500);
      const from = start + random.whole(-100, 200);
      const to = from + random.whole(0, text.startsWith('FREQ=DAILY') ? 100 : 700);
      const rule = parseRRule(text, isoOfDay(start));
      // “The 31st of February”: rrule would look for it until the year 9999, which takes it seconds.
      const isRare = (nextOccurrence(rule, isoOfDay(from - 1)) ?? '9999') > isoOfDay(from + 4000);
      if (isRare) {
        rare++;
        continue;
      }
      const ours = occurrencesBetween(rule, isoOfDay(from), isoOfDay(to));
      expect(ours, `${i}: ${text} from ${isoOfDay(start)}`).toEqual(byRRule(text, start, from, to));
    }
    expect(rare).toBeLessThan(100);
  });

  it('gives the same dates as ical.js for those of 2,000 random rules that it reads as the RFC does', () => {
    const random = seeded(3_853);
    let compared = 0;
    for (let i = 0; i < 2000; i++) {
      const text = randomRule(random);
      const start = dayOfIso('2020-01-01') + random.whole(0, 1500);
      const to = start + random.whole(50, text.startsWith('FREQ=DAILY') ? 120 : 900);
      if (!isReadByIcal(text)) continue;
      compared++;
      const ours = occurrencesBetween(parseRRule(text, isoOfDay(start)), isoOfDay(start), isoOfDay(to));
      if (ours.length === 0) continue;
      const theirs = byIcal(text, start, to).filter((date) => date !== isoOfDay(start) || ours[0] === date);
      expect(ours, `${i}: ${text} from ${isoOfDay(start)}`).toEqual(theirs);
    }
    expect(compared).toBeGreaterThan(1000);
  });

  it('ends after the same count, and until the same day', () => {
    const random = seeded(5545);
    const far = dayOfIso('2100-01-01');
    for (let i = 0; i < 150; i++) {
      const start = dayOfIso('2024-01-01') + random.whole(0, 700);
      const rule = randomRule(random);
      const end = random.chance(50)
        ? `COUNT=${random.whole(1, 20)}`
        : `UNTIL=${isoOfDay(start + random.whole(0, 500)).replaceAll('-', '')}`;
      const text = `${rule};${end}`;
      const ours = occurrencesBetween(parseRRule(text, isoOfDay(start)), isoOfDay(start), isoOfDay(far));
      expect(ours, `${i}: ${text} from ${isoOfDay(start)}`).toEqual(byRRule(text, start, start, far));
    }
  });
});
