import type { AskingSchedule, Overview, OverviewWeek, TaskLine } from '../../../contract/index.ts';
import { callNames, dayOfIso, plural, sayDuration } from '../../../core/index.ts';
import { sayDay, sayDayOfMonth, timeOf } from '../../kit/ways.ts';
import { hoursOf } from '../workload/workload-words.ts';

/** Minutes between two civil moments of one zone, whole. */
export function minutesBetween(from: string, to: string): number {
  const at = (moment: string) =>
    dayOfIso(moment.slice(0, 10)) * 1440 + Number(moment.slice(11, 13)) * 60 + Number(moment.slice(14, 16));
  return Math.max(0, at(to) - at(from));
}

/** "65 of 45 min", "1 h 45 of 2 h": how long it has gone on, of how long it should. */
export function sayElapsed(minutes: number, estimate: number): string {
  if (minutes < 90 && estimate < 90) return `${minutes} of ${estimate} min`;
  return `${sayDuration(minutes)} of ${sayDuration(estimate)}`;
}

/** "08:55", or its date where that was not today. */
export function sayShort(moment: string, today: number): string {
  const day = dayOfIso(moment.slice(0, 10));
  return day === today ? timeOf(moment) : sayDayOfMonth(day);
}

/** "since 08:55" */
export function saySince({ startedAt }: Pick<TaskLine, 'startedAt'>, today: number): string {
  return startedAt === null ? '' : `since ${sayShort(startedAt, today)}`;
}

/** "under way since 08:55", "under way for 3 days" */
export function sayUnderWay({ startedAt }: Pick<TaskLine, 'startedAt'>, today: number): string {
  if (startedAt === null) return 'under way';
  const days = today - dayOfIso(startedAt.slice(0, 10));
  return days === 0 ? `under way since ${timeOf(startedAt)}` : `under way for ${plural(days, 'day')}`;
}

/** Minutes of what was late before today: what is late of today stands among today's. */
export const lateBefore = ({ today, late }: Pick<Overview, 'today' | 'late'>): number =>
  Math.max(0, late.minutes - today.lateMinutes);

/** Tasks and calls together: "33 of 98 h finished, 21 h late on top, 99 h at hand" */
export function sayToday({ today, late }: Pick<Overview, 'today' | 'late'>): string {
  const before = lateBefore({ today, late });
  return [
    `${sayDuration(today.finishedMinutes + today.calls.finishedMinutes)} of ${sayDuration(today.dueMinutes + today.calls.minutes)} finished`,
    before > 0 ? `${sayDuration(before)} late on top` : '',
    `${sayDuration(today.capacity)} at hand`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** What there is to say of a schedule that asks for somebody. */
export function sayAsking({ because, said, on, days }: AskingSchedule, today: number): string {
  switch (because) {
    case 'problem':
      return said ?? 'can’t be planned';
    case 'waits':
      return days === null ? 'waits for its last one' : `has waited ${plural(days, 'day')} for its last one`;
    case 'ended':
      return on === null ? 'ended' : `ended ${sayDay(dayOfIso(on), today)}`;
  }
}

/** Who has too much in a week, by first names where that is enough: "Nadia 43.5 of 37.5"; else who is away. */
export function sayWeek(
  { over, overCount, away, awayCount }: OverviewWeek,
  people: readonly { readonly id: string; readonly name: string }[],
): { readonly words: string; readonly isOver: boolean } {
  const called = callNames(people);
  const name = (one: { readonly id: string; readonly name: string }) => called.get(one.id) ?? one.name;
  const more = (count: number, shown: number) => (count > shown ? ` and ${count - shown} more` : '');
  const [first] = over;
  if (first)
    return {
      words: `${name(first)} ${hoursOf(first.minutes)} of ${hoursOf(first.capacity)}${more(overCount, 1)}`,
      isOver: true,
    };
  if (away.length > 0)
    return { words: `${away.map(name).join(', ')}${more(awayCount, away.length)} on leave`, isOver: false };
  return { words: '', isOver: false };
}
