import type { Leave, LeaveImpact } from '../../../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  type LeaveCover,
  monthIndexOf,
  plural,
  type TurnCoverChoice,
  weekdayOf,
  weekdayShort,
  yearMonthDay,
} from '../../../../core/index.ts';
import { sayDay, waysShown } from '../../../kit/ways.ts';

/** "Thu 26 to Fri 27 Nov", "the morning of Tue 1 Dec". */
export function sayLeaveDays({ from, to, half }: Pick<Leave, 'from' | 'to' | 'half'>, today: CivilDay): string {
  const day = (date: string) => sayDay(dayOfIso(date), today);
  if (half !== null) return `the ${half} of ${day(from)}`;
  return from === to ? day(from) : sayDays(dayOfIso(from), dayOfIso(to), today);
}

/** "Nadia Orme is away from Tue 15 to Sat 19 Dec", "… is away the morning of Tue 1 Dec" */
export function sayAway(name: string, days: Pick<Leave, 'from' | 'to' | 'half'>, today: CivilDay): string {
  return `${name} is away ${days.half === null && days.from !== days.to ? 'from ' : ''}${sayLeaveDays(days, today)}`;
}

/** "7 working days and 3 holidays" */
export function sayLeaveSpan({ days, holidays }: Pick<LeaveImpact, 'days' | 'holidays'>): string {
  const worked = days === 0.5 ? 'Half a working day' : plural(days, 'working day');
  return `${worked}${holidays > 0 ? ` and ${plural(holidays, 'holiday')}` : ''}`;
}

/** Days in a row; of one month its name stands once: "Tue 15 to Sat 19 Dec". */
export function sayDays(from: CivilDay, to: CivilDay, today: CivilDay): string {
  const isShort = monthIndexOf(from) === monthIndexOf(to) && waysShown().dateOrder === 'day first';
  const first = isShort ? `${weekdayShort(weekdayOf(from))} ${yearMonthDay(from).day}` : sayDay(from, today);
  return `${first} to ${sayDay(to, today)}`;
}

/** Some days, those in a row together: "Tue 15, Thu 17 to Sat 19 Dec". */
export function sayDayList(days: readonly CivilDay[], today: CivilDay): string {
  const runs: { from: CivilDay; to: CivilDay }[] = [];
  for (const day of [...new Set(days)].sort((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last && last.to + 1 === day) last.to = day;
    else runs.push({ from: day, to: day });
  }
  return runs.map(({ from, to }) => (from === to ? sayDay(from, today) : sayDays(from, to, today))).join(', ');
}

const CHOICE_WORDS = {
  next: 'the next',
  exchange: 'the next in exchange',
  deputy: 'whoever takes over',
  nobody: 'nobody',
} as const;

/** "turns to the next, by name to Kit"; nothing where it is as the work itself says. */
export function sayLeaveCover(cover: LeaveCover | null, nameOf: (id: string) => string): string {
  const say = (choice: TurnCoverChoice) =>
    typeof choice === 'string' ? CHOICE_WORDS[choice] : nameOf(choice.personId);
  return [cover?.turns && `turns to ${say(cover.turns)}`, cover?.name && `by name to ${say(cover.name)}`]
    .filter(Boolean)
    .join(', ');
}

/** "5 days", "half a day" */
export function sayCount(days: number): string {
  return days === 0.5 ? 'half a day' : plural(days, 'day');
}

/** What stays of exchanges although the leave is taken back; nothing where all are given back. */
export function sayKeptExchanges(kept: number): string {
  if (kept === 0) return '';
  return kept === 1
    ? ' One exchange of turns stays: it has begun, or was swapped on.'
    : ` ${kept} exchanges of turns stay: they have begun, or were swapped on.`;
}
