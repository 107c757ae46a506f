import rrule from 'rrule';
import {
  dayOfIso,
  isoOfDay,
  makeCalendar,
  type OccurrenceSeries,
  occurrenceSeries,
  occurrencesBetween,
  outlook,
  type PlannedSchedule,
  planDays,
  type Recurrence,
  type Weekday,
} from '../src/core/index.ts';
import { best, line } from './measure.ts';

const { RRule } = rrule;

/** 2,000 monthly and weekly schedules over a year, beside the `rrule` package on the same rules, in the same run. */

const SCHEDULES = 2000;
const FROM = dayOfIso('2026-11-24');
const TO = FROM + 364;
const WEEKDAYS = [RRule.MO, RRule.TU, RRule.WE, RRule.TH, RRule.FR, RRule.SA, RRule.SU];
const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: ['2026-12-25', '2026-12-28', '2027-01-01', '2027-03-26', '2027-03-29'],
});

interface Pair {
  readonly ours: Recurrence;
  readonly theirs: InstanceType<typeof RRule>;
}

/** Without its cache: each run is the first time it is asked. */
const asked = (options: ConstructorParameters<typeof RRule>[0]) => new RRule(options, true);

/** Half weekly, a quarter by month date, a quarter by weekday of the month; starts spread over two years. */
function pairs(): Pair[] {
  return Array.from({ length: SCHEDULES }, (_, i) => {
    const start = dayOfIso('2025-01-01') + ((i * 37) % 700);
    const weekday = ((i % 7) + 1) as Weekday;
    const common = { dtstart: new Date(start * 86_400_000), interval: 1 + (i % 3) };
    const recurrence = (rule: Recurrence['rules'][number]): Recurrence => ({
      start: isoOfDay(start),
      rules: [rule],
      end: { kind: 'never' },
      dayOff: 'none',
    });
    const every = common.interval;
    const byweekday = WEEKDAYS[weekday - 1] ?? RRule.MO;
    if (i % 2 === 0) {
      return {
        ours: recurrence({ kind: 'weeks', every, on: [weekday] }),
        theirs: asked({ ...common, freq: RRule.WEEKLY, byweekday: [byweekday], wkst: RRule.MO }),
      };
    }
    if (i % 4 === 1) {
      const day = 1 + (i % 28);
      return {
        ours: recurrence({ kind: 'months', every, months: [], on: [{ kind: 'date', day }], missing: 'omit' }),
        theirs: asked({ ...common, freq: RRule.MONTHLY, bymonthday: [day] }),
      };
    }
    const nth = (i % 4) + 1;
    return {
      ours: recurrence({ kind: 'months', every, months: [], on: [{ kind: 'weekday', nth, weekday }], missing: 'omit' }),
      theirs: asked({ ...common, freq: RRule.MONTHLY, byweekday: [byweekday.nth(nth)] }),
    };
  });
}

const both = pairs();
const series: OccurrenceSeries[] = both.map(({ ours }) => occurrenceSeries(ours, calendar));
const count = (run: (pair: Pair, i: number) => number) => both.reduce((sum, pair, i) => sum + run(pair, i), 0);

const ours = best(9, () => count((_, i) => series[i]?.between(FROM, TO).length ?? 0));
const iso = best(9, () =>
  count(({ ours: rule }) => occurrencesBetween(rule, isoOfDay(FROM), isoOfDay(TO), calendar).length),
);
const theirs = best(3, () =>
  count(({ theirs: rule }) => rule.between(new Date(FROM * 86_400_000), new Date(TO * 86_400_000), true).length),
);
if (ours.result !== theirs.result || iso.result !== ours.result) {
  throw new Error(`The two do not agree: ours ${ours.result}, iso ${iso.result}, rrule ${theirs.result} occurrences.`);
}

const planned: PlannedSchedule[] = both.map(({ ours: recurrence }) => ({
  recurrence: { ...recurrence, dayOff: 'preceding' },
  timing: {
    appears: { amount: -3, unit: 'workingDay' },
    starts: { amount: -1, unit: 'day' },
    due: { amount: 1, unit: 'workingDay' },
    startTime: null,
    dueTime: null,
    reminders: [],
    zone: null,
  },
  pauses: [],
}));
const plan = best(9, () => planned.reduce((sum, schedule) => sum + planDays(schedule, calendar, FROM, TO).length, 0));
const one = planned[1] as PlannedSchedule;
const keystroke = best(200, () => outlook(one, calendar, FROM, 30).timesAYear);

const each = (milliseconds: number) => `${Math.round((milliseconds * 1e6) / ours.result)} ns each`;
console.log(
  `recurrence: ${SCHEDULES.toLocaleString('en-GB')} schedules over a year, ${ours.result.toLocaleString('en-GB')} occurrences`,
);
line(
  'core, civil days',
  ours.milliseconds,
  `${each(ours.milliseconds)}, ${(theirs.milliseconds / ours.milliseconds).toFixed(1)}x`,
);
line(
  'core, ISO strings, prepared anew',
  iso.milliseconds,
  `${each(iso.milliseconds)}, ${(theirs.milliseconds / iso.milliseconds).toFixed(1)}x`,
);
line('rrule package', theirs.milliseconds, `${each(theirs.milliseconds)}, 1.0x`);
line('core, whole plan (moves, offsets)', plan.milliseconds, each(plan.milliseconds));
line('outlook of one schedule (a keystroke on the bench)', keystroke.milliseconds, '');
