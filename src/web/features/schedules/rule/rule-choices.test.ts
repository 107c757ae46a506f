import { describe, expect, it } from 'vitest';
import { dayOfIso, type MonthPoint, writePhrase } from '../../../../core/index.ts';
import { freshDraft } from '../bench/bench-draft.ts';
import { FREQUENCIES, frequencyOf, groupsWith, POINT_GROUPS, pointKey, pointWords, ruleOf } from './rule-choices.ts';

const tuesday = dayOfIso('2026-11-24');
const phrase = (rule: ReturnType<typeof ruleOf>) =>
  writePhrase({ start: '2026-11-24', rules: [rule], end: { kind: 'never' }, dayOff: 'none' }, { start: 'unsaid' });

const BLANK = { templateId: '', template: undefined, like: null, task: null, clientId: null, assetId: null };

describe('how often', () => {
  it.each([
    ['days', 'every day'],
    ['weekdays', 'every weekday'],
    ['weeks', 'every week on Tue'],
    ['fortnight', 'every 2 weeks on Tue'],
    ['fourWeeks', 'every 4 weeks on Tue'],
    ['months', '24th of each month'],
    ['twiceAMonth', '1st and 15th of each month'],
    ['twoMonths', 'every 2 months on the 24th'],
    ['quarter', 'every 3 months on the 24th'],
    ['halfYear', 'every 6 months on the 24th'],
    ['years', 'yearly on 24 November'],
  ] as const)('%s begins with %s', (frequency, words) => {
    expect(phrase(ruleOf(frequency, tuesday))).toBe(words);
  });

  it('is known again from the rule it began', () => {
    for (const [frequency] of FREQUENCIES) expect(frequencyOf(ruleOf(frequency, tuesday))).toBe(frequency);
  });

  it('tells monthly from every four weeks in its words', () => {
    const words = new Map(FREQUENCIES);
    expect(words.get('months')).toContain('12 a year');
    expect(words.get('fourWeeks')).toContain('13 a year');
  });
});

describe('the days of a month', () => {
  it('are each offered once, in words', () => {
    const points = POINT_GROUPS.flatMap((group) => group.points);
    expect(new Set(points.map(pointKey)).size).toBe(points.length);
    expect(new Set(points.map(pointWords)).size).toBe(points.length);
  });

  it.each<[MonthPoint, string]>([
    [{ kind: 'date', day: 31 }, '31st'],
    [{ kind: 'date', day: -1 }, 'last day'],
    [{ kind: 'date', day: -2 }, 'last but one day'],
    [{ kind: 'date', day: -9 }, '9th last day'],
    [{ kind: 'weekday', nth: -1, weekday: 5 }, 'last Friday'],
    [{ kind: 'workingDay', nth: 1 }, 'first working day'],
    [{ kind: 'workingDay', nth: -3 }, 'third last working day'],
  ])('%j reads %s', (point, words) => {
    expect(pointWords(point)).toBe(words);
  });

  it('keep a day that the form does not offer among those it does', () => {
    const odd: MonthPoint = { kind: 'workingDay', nth: 17 };
    expect(groupsWith(odd).at(-1)).toEqual({ heading: 'as it is', points: [odd] });
    expect(groupsWith({ kind: 'date', day: 1 })).toBe(POINT_GROUPS);
  });
});

describe('a schedule to begin with', () => {
  it('is weekly on the weekday of today', () => {
    expect(writePhrase(freshDraft(tuesday, BLANK).recurrence, { start: 'unsaid' })).toBe('every week on Tue');
  });

  it.each([
    ['weekdays', 'every weekday, not on days off'],
    ['friday', 'every week on Fri, or the working day before'],
    ['payroll', '15th and the last working day of each month, or the working day before'],
    ['halfYear', 'every 6 months on the 18th, or the working day before'],
    ['nonsense', 'every week on Tue'],
  ])('like %s is %s', (like, words) => {
    expect(writePhrase(freshDraft(tuesday, { ...BLANK, like }).recurrence, { start: 'unsaid' })).toBe(words);
  });
});
