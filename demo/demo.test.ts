import { describe, expect, it } from 'vitest';
import {
  noticeEndpoints,
  planEndpoints,
  scheduleInputSchema,
  taskListEndpoints,
  templateInputSchema,
  visitRulesSchema,
} from '../src/contract/index.ts';
import { faultOfPattern, makeCalendar, recurrenceProblems, weeksOfShifts } from '../src/core/index.ts';
import { englandAndWales } from '../src/server/settings/public-holidays.ts';
import { berthHolders } from './berth-holders.ts';
import { LETTERS } from './notices.ts';
import { PEOPLE } from './people.ts';
import { PLANS, planInput } from './plans.ts';
import { SeededRandom } from './random.ts';
import { DEFAULT_TIMING, SCHEDULES } from './schedules.ts';
import { shiftsOf } from './shifts.ts';
import { templateContent } from './template-content.ts';
import { TEMPLATES, VISITS, WORK_TYPES } from './templates.ts';
import { VIEWS } from './views.ts';

describe('the demo', () => {
  it('is a marina of the size promised', () => {
    expect({
      people: PEOPLE.length,
      holders: berthHolders().length,
      templates: TEMPLATES.length,
      schedules: SCHEDULES.length,
    }).toEqual({
      people: 14,
      holders: 60,
      templates: 32,
      schedules: 80,
    });
    const unique = (values: readonly string[]) => new Set(values).size;
    expect(unique(berthHolders().map(({ vessel }) => vessel))).toBe(60);
    expect(unique(berthHolders().map(({ berth }) => berth))).toBe(60);
    expect(unique(berthHolders().map(({ name }) => name))).toBe(60);
  });

  it('holds only what a manager could save', () => {
    for (const { of: _, isShared = false, ...view } of VIEWS)
      taskListEndpoints.keepView.body.parse({ ...view, order: 'due', columns: null, isShared });
    visitRulesSchema.parse(VISITS);
    for (const letter of LETTERS) noticeEndpoints.addLetter.body.parse(letter);
    expect(VISITS.terms.every(({ type }) => WORK_TYPES.some((one) => one === type))).toBe(true);
    for (const plan of PLANS)
      planEndpoints.create.body.parse(planInput(plan, () => '00000000-0000-4000-8000-000000000000'));
    const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: englandAndWales(2025, 2030) });
    for (const template of TEMPLATES) {
      templateInputSchema.parse(templateContent(template, () => '00000000-0000-4000-8000-000000000000'));
    }
    const templateId = '00000000-0000-4000-8000-000000000000';
    for (const schedule of SCHEDULES) {
      const { recurrence } = scheduleInputSchema.parse({
        templateId,
        clientId: null,
        assetId: null,
        assignment: { v: 1, kind: 'nobody' },
        recurrence: {
          start: schedule.start ?? '2025-02-03',
          rules: schedule.rules,
          end: schedule.end ?? { kind: 'never' },
          dayOff: schedule.dayOff ?? 'none',
        },
        timing: { ...DEFAULT_TIMING, ...schedule.timing },
      });
      expect(recurrenceProblems(recurrence, calendar)).toEqual([]);
    }
  });

  it('has the bank holidays of England and Wales', () => {
    expect(englandAndWales(2027, 2027).map(({ date }) => date)).toEqual([
      '2027-01-01',
      '2027-03-26',
      '2027-03-29',
      '2027-05-03',
      '2027-05-31',
      '2027-08-30',
      '2027-12-25',
      '2027-12-26',
      '2027-12-27',
      '2027-12-28',
    ]);
  });

  it('has shifts that come to the hours of each, which can be', () => {
    for (const person of PEOPLE) {
      const shifts = shiftsOf(person);
      if (shifts.length === 0) continue;
      expect(faultOfPattern(shifts, person.weeks.length)).toBeNull();
      expect([person.key, weeksOfShifts(shifts, person.weeks.length)]).toEqual([person.key, person.weeks]);
    }
  });

  it('draws the same numbers for the same word', () => {
    const draw = (seed: string) =>
      Array.from(
        { length: 5 },
        (
          (random) => () =>
            random.whole(0, 1e6)
        )(new SeededRandom(seed)),
      );
    expect(draw('a')).toEqual(draw('a'));
    expect(draw('a')).not.toEqual(draw('b'));
  });
});
