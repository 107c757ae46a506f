import type { Settings } from '../../../contract/index.ts';
import {
  type AskingRules,
  type CivilDay,
  dayOfIso,
  HABIT_WORDS,
  joinAnd,
  makeCalendar,
  monthIndexOf,
  monthName,
  monthStart,
  PHRASE_HABITS,
  type PhraseHabit,
  plural,
  sayEscalation,
  sayHearing,
  type WorkingCalendar,
  weekdayName,
  writeSeasons,
  zoneCity,
} from '../../../core/index.ts';
import { sayDay, sayTime } from '../../kit/ways.ts';
import { sayWays } from '../../kit/ways-words.ts';

export const calendarOf = ({ workingWeekdays, holidays }: Settings): WorkingCalendar =>
  makeCalendar({ workingWeekdays, holidays });

/** The twelve months from the present one on. */
export function yearFrom(today: CivilDay): { readonly from: CivilDay; readonly to: CivilDay } {
  const first = monthIndexOf(today);
  return { from: monthStart(first), to: monthStart(first + 12) - 1 };
}

/** Working days within a span, both ends included. */
export function workingDays(calendar: WorkingCalendar, from: CivilDay, to: CivilDay): number {
  return calendar.numberOf(to) - calendar.numberOf(from - 1);
}

/** Days off that are called otherwise than before, or are new, and those that are none any more. */
export function holidaysChanged(before: Settings, after: Settings) {
  const names = (settings: Settings) => new Map(settings.holidays.map(({ date, name }) => [date, name]));
  const [then, now] = [names(before), names(after)];
  return {
    added: after.holidays.filter(({ date }) => !then.has(date)),
    removed: before.holidays.filter(({ date }) => !now.has(date)),
    renamed: after.holidays.filter(({ date, name }) => then.has(date) && then.get(date) !== name),
  };
}

/** What a word means here from now on. */
export function sayHabit(habit: PhraseHabit, meant: number | undefined): string {
  const { said, means } = HABIT_WORDS[habit];
  return meant === undefined ? `“${said}” is asked each time` : `“${said}” is ${means[meant]}`;
}

/** Seasons that are named, are others, or have no name any more. */
function seasonsChanged(before: Settings['seasons'], after: Settings['seasons']): string[] {
  const said = ({ name, spans }: Settings['seasons'][number]) => `“${name}” is ${writeSeasons(spans)}`;
  const there = new Set(before.map(said));
  const names = new Set(after.map(({ name }) => name));
  return [
    ...after.map(said).filter((one) => !there.has(one)),
    ...before.filter(({ name }) => !names.has(name)).map(({ name }) => `“${name}” is no season any more`),
  ];
}

/** Hours of days that are worked both before and after. */
const sameHours = (before: Settings, after: Settings): boolean =>
  after.workingWeekdays
    .filter((weekday) => before.workingWeekdays.includes(weekday))
    .every((weekday) => before.weekMinutes[weekday - 1] === after.weekMinutes[weekday - 1]);

/** Days named before the rest are counted. */
const NAMED = 2;

/** What is to be different, a sentence each, the calendar first. */
export function sayChanges(before: Settings, after: Settings, today: CivilDay): string[] {
  const { added, removed, renamed } = holidaysChanged(before, after);
  const days = (list: Settings['holidays'], one: string, many: string, noun = 'day') => {
    if (list.length === 0) return [];
    if (list.length > NAMED) return [`${plural(list.length, noun)} ${many}`];
    return [
      `${joinAnd(list.map(({ date, name }) => `${name} on ${sayDay(dayOfIso(date), today)}`))} ${list.length === 1 ? one : many}`,
    ];
  };
  const week = (from: Settings, to: Settings) =>
    to.workingWeekdays.filter((day) => !from.workingWeekdays.includes(day));
  const weekdays = (list: Settings['workingWeekdays'], one: string, many: string) =>
    list.length === 0
      ? []
      : [`${joinAnd(list.map((day) => `${weekdayName(day)}s`))} ${list.length === 1 ? one : many}`];
  return [
    ...weekdays(week(before, after), 'become working days', 'become working days'),
    ...weekdays(week(after, before), 'are off', 'are off'),
    ...(sameHours(before, after) ? [] : ['The hours of the week are others, for people who are added from now on']),
    ...days(added, 'is a day off', 'are days off', 'more day'),
    ...days(removed, 'is no day off any more', 'are no days off any more'),
    ...days(renamed, 'has another name', 'have other names'),
    ...(before.name === after.name ? [] : [`The workspace is called ${after.name}`]),
    ...(before.zone === after.zone ? [] : [`Its clock is that of ${zoneCity(after.zone)}`]),
    ...(before.yearStarts === after.yearStarts ? [] : [`The financial year begins in ${monthName(after.yearStarts)}`]),
    ...PHRASE_HABITS.filter((habit) => before.phraseHabits[habit] !== after.phraseHabits[habit]).map((habit) =>
      sayHabit(habit, after.phraseHabits[habit]),
    ),
    ...(before.horizonDays === after.horizonDays ? [] : [`Tasks are made ${plural(after.horizonDays, 'day')} ahead`]),
    ...(sayWays(before.ways) === sayWays(after.ways) ? [] : [sayWays(after.ways)]),
    ...(before.doneStaysDays === after.doneStaysDays
      ? []
      : [`Finished work stays on the day sheet for ${plural(after.doneStaysDays, 'day')}`]),
    ...(before.swapsNeedNod === after.swapsNeedNod
      ? []
      : [
          after.swapsNeedNod
            ? 'A swap of turns waits for whoever plans to nod'
            : 'A swap of turns holds once two agree on it',
        ]),
    ...(JSON.stringify(before.visits) === JSON.stringify(after.visits) ? [] : [sayVisits(before, after)]),
    ...(JSON.stringify(before.asking) === JSON.stringify(after.asking) ? [] : sayAsking(before.asking, after.asking)),
    ...sayHearing(before.hearing, after.hearing),
    ...(sayEscalation(before.escalation) === sayEscalation(after.escalation) ? [] : [sayEscalation(after.escalation)]),
    ...(before.keepYears === after.keepYears
      ? []
      : [`Finished work is kept ${after.keepYears === null ? 'for good' : `for ${plural(after.keepYears, 'year')}`}`]),
    ...seasonsChanged(before.seasons, after.seasons),
    ...(before.makeTime === after.makeTime ? [] : [`The daily run is at ${sayTime(after.makeTime)}`]),
  ];
}

/** What is otherwise of how clients are asked; whom they ring, and when, in one. */
function sayAsking(before: AskingRules, after: AskingRules): string[] {
  const reminder = (field: 'remindBefore' | 'remindAfter', words: string) =>
    before[field] === after[field]
      ? []
      : [
          after[field] === null
            ? `Clients are not reminded ${words} a task is due`
            : `Clients are reminded ${plural(after[field], 'day')} ${words} a task is due`,
        ];
  return [
    ...(before.sendFrom === after.sendFrom ? [] : [`Mails to clients leave from ${sayTime(after.sendFrom)} on`]),
    ...(before.opens === after.opens
      ? []
      : [`A client’s link opens ${after.opens === 'one' ? 'the one task' : 'all that they are asked for'}`]),
    ...(before.needsCode === after.needsCode
      ? []
      : [`A client’s link ${after.needsCode ? 'asks for a code' : 'asks for no code'}`]),
    ...(before.worksAfter === after.worksAfter
      ? []
      : [`A client’s link works until ${plural(after.worksAfter, 'day')} after the day it is due`]),
    ...reminder('remindBefore', 'before'),
    ...reminder('remindAfter', 'after'),
    ...(before.telephone === after.telephone && before.answered === after.answered
      ? []
      : [
          after.telephone === ''
            ? 'Clients are told no number to ring'
            : `Clients who are not sure ring ${after.telephone}`,
        ]),
  ];
}

/** Which types of work are announced otherwise; or that letters go otherwise. */
function sayVisits({ visits: before }: Settings, { visits: after }: Settings): string {
  const types = [...new Set([...before.terms, ...after.terms].map(({ type }) => type))].filter((type) => {
    const of = ({ terms }: Settings['visits']) => JSON.stringify(terms.find((one) => one.type === type));
    return of(before) !== of(after);
  });
  if (types.length === 0) return 'Letters go otherwise';
  return `Visits of the ${types.length === 1 ? 'type' : 'types'} ${joinAnd(types)} are announced otherwise`;
}
