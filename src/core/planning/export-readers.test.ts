import fc from 'fast-check';
import ICAL from 'ical.js';
import { RRule, RRuleSet } from 'rrule';
import { describe, expect, it } from 'vitest';
import { longestClosure } from '../calendar/closed-season.ts';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { TooMuchReckoningError } from '../reckoning.ts';
import { anyFullRecurrence } from '../recurrence/generated.ts';
import type { Recurrence } from '../recurrence/rule.ts';
import { isDated, planDays } from './plan.ts';
import { writeRRule } from './rrule-writer.ts';
import { PLAIN_TIMING } from './timing.ts';

/** How many exports are read; EXPORTS=5000 for a long look. */
const EXPORTS = Number(process.env['EXPORTS'] ?? 300);
const WINDOW_DAYS = 900;

const isoOf = (compact: string) => `${compact.slice(0, 4)}-${compact.slice(4, 6)}-${compact.slice(6, 8)}`;
const utc = (iso: string) => new Date(`${iso}T00:00:00Z`);

interface Lines {
  readonly start: string;
  readonly rules: readonly string[];
  readonly added: readonly string[];
  readonly out: readonly string[];
}

function linesOf(text: string): Lines {
  const values = (name: string) =>
    text.split('\n').flatMap((line) => (line.startsWith(name) ? [line.slice(line.indexOf(':') + 1)] : []));
  const dates = (name: string) => values(name).flatMap((value) => value.split(',').map(isoOf));
  return {
    start: isoOf(values('DTSTART')[0] ?? ''),
    rules: values('RRULE'),
    added: dates('RDATE'),
    out: dates('EXDATE'),
  };
}

/** As the package `rrule` reads it; DTSTART is a date of its own to it only where a rule gives it. */
function byRRule({ start, rules, added, out }: Lines, from: string, to: string): string[] {
  const set = new RRuleSet();
  // Ended where it is no longer asked: else it looks for dates that never come until the year 9999.
  for (const rule of rules) set.rrule(new RRule({ until: utc(to), ...RRule.parseString(rule), dtstart: utc(start) }));
  for (const date of added) set.rdate(utc(date));
  for (const date of out) set.exdate(utc(date));
  return set.between(utc(from), utc(to), true).map((at) => at.toISOString().slice(0, 10));
}

/** Whether `ical.js` reads all of it as the RFC does: it leaves some limits out. */
function isReadByIcal({ rules }: Lines): boolean {
  return (
    rules.length <= 1 &&
    rules.every((rule) => {
      const has = (part: string) => rule.includes(`;${part}=`);
      if (has('BYWEEKNO') || has('BYSETPOS') || has('BYYEARDAY')) return false;
      if (has('BYMONTHDAY')) return rule.startsWith('FREQ=MONTHLY') && !has('BYDAY') && !has('BYMONTH');
      if (has('BYMONTH')) return rule.startsWith('FREQ=DAILY');
      return !(rule.startsWith('FREQ=YEARLY') && has('BYDAY'));
    })
  );
}

/** As `ical.js` reads it, which takes DTSTART for a date whatever the rules say. */
function byIcal(text: string, from: string, to: string): string[] {
  const component = new ICAL.Component(
    ICAL.parse(
      `BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:1\r\n${text.replaceAll('\n', '\r\n')}\r\nEND:VEVENT\r\nEND:VCALENDAR`,
    ),
  ).getFirstSubcomponent('vevent');
  if (!component) throw new Error('No event was read.');
  const expansion = new ICAL.RecurExpansion({
    component,
    dtstart: component.getFirstPropertyValue('dtstart') as ICAL.Time,
  });
  const dates: string[] = [];
  for (let at = expansion.next(); at; at = expansion.next()) {
    const date = at.toString().slice(0, 10);
    if (date > to) break;
    if (date >= from) dates.push(date);
  }
  return dates;
}

/** The dates on which a recurrence is worked, and its export; null where it takes too long or never comes. */
function exported(
  recurrence: Recurrence,
): { readonly worked: string[]; readonly text: string; readonly to: string } | null {
  const from = dayOfIso(recurrence.start);
  const to = isoOfDay(from + WINDOW_DAYS);
  try {
    const worked = planDays({ recurrence, timing: PLAIN_TIMING }, WEEKDAYS_ONLY, from - 400, from + WINDOW_DAYS)
      .filter(isDated)
      .map(({ on }) => isoOfDay(on));
    return worked.length === 0 ? null : { worked, text: writeRRule(recurrence, { to }), to };
  } catch (error) {
    if (error instanceof TooMuchReckoningError) return null;
    throw error;
  }
}

/** Half of them with what RRULE can say: the others are listed. */
const anyExport = fc.oneof(
  anyFullRecurrence,
  anyFullRecurrence.map(
    ({ start, rules, end }): Recurrence => ({
      start,
      rules: rules.slice(0, 1),
      end: rules[0]?.kind === 'rrule' ? { kind: 'never' } : end,
      dayOff: 'none',
    }),
  ),
);

describe('an export', () => {
  it('is read by two other programs as the same dates', () => {
    let [read, readByBoth] = [0, 0];
    fc.assert(
      fc.property(anyExport, (recurrence) => {
        fc.pre(longestClosure(recurrence.closed?.seasons ?? []) < 360);
        const found = exported(recurrence);
        fc.pre(found !== null);
        const { worked, text, to } = found as NonNullable<typeof found>;
        const lines = linesOf(text);
        const from = isoOfDay(dayOfIso(recurrence.start) - 400);
        expect(byRRule(lines, from, to), text).toEqual(worked);
        read++;
        if (!isReadByIcal(lines)) return;
        expect(byIcal(text, from, to), text).toEqual(worked);
        readByBoth++;
      }),
      { numRuns: EXPORTS },
    );
    expect(read).toBeGreaterThan(EXPORTS * 0.9);
    expect(readByBoth).toBeGreaterThan(EXPORTS * 0.3);
  }, 600_000);
});
