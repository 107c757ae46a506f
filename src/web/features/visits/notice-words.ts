import type { VisitLine, VisitWeek } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isToSend, type NoticeState, plural } from '../../../core/index.ts';
import { sayDayOfMonth, sayNear, sayShortDay, sayTime, sayTimeSpan } from '../../kit/ways.ts';

/** How far the notice of a visit is, in a few words. */
export function sayNotice(
  { standing, notice, taskId }: Pick<VisitLine, 'standing' | 'notice' | 'taskId'>,
  today: CivilDay,
): string {
  const late = standing.sendBy === null ? 0 : today - dayOfIso(standing.sendBy);
  const sent = notice?.sentOn ? `sent ${sayDayOfMonth(dayOfIso(notice.sentOn))}` : '';
  const remindOn = standing.remindOn === null ? today : dayOfIso(standing.remindOn);
  const remind = remindOn > today ? `, reminded ${sayNear(remindOn, today)}` : '';
  switch (standing.state) {
    case 'tooLate':
      return `${notice ? 'written, ' : ''}${plural(late, 'day')} too late`;
    case 'refused':
      return 'the mail did not arrive';
    case 'elsewhere':
      return `${sent || 'written'} for ${notice ? sayShortDay(dayOfIso(notice.visitOn)) : 'another day'}`;
    case 'notWritten':
      return `${taskId === null ? 'not made yet' : 'not written'}${remind}`;
    case 'written':
      return `written, ${notice?.way ?? ''}${remind}`;
    case 'onItsWay':
      return `${sent}, ${notice?.way ?? ''}, on its way`;
    case 'received':
      return `${sent}, ${notice?.way ?? ''}${standing.inTime === false ? ', late' : ''}`;
    case 'notNeeded':
      return notice?.reason ? `none needed: ${notice.reason}` : 'none needed';
  }
}

/** How many of a time are still to be announced, and for how many of them it is too late. */
export function sumOfStates(weeks: readonly VisitWeek[]): { visits: number; toSend: number; tooLate: number } {
  const sum = { visits: 0, toSend: 0, tooLate: 0 };
  for (const { made, foreseen, states } of weeks) {
    sum.visits += made + foreseen;
    for (const [state, count] of Object.entries(states) as [NoticeState, number][]) {
      if (isToSend(state)) sum.toSend += count;
      if (state === 'tooLate') sum.tooLate += count;
    }
  }
  return sum;
}

/** "40 visits, 6 notices to send, 1 of them too late" */
export function saySum({ visits, toSend, tooLate }: ReturnType<typeof sumOfStates>): string {
  return [
    plural(visits, 'visit'),
    ...(toSend > 0 ? [`${plural(toSend, 'notice')} to send`] : visits > 0 ? ['no notice to send'] : []),
    ...(tooLate > 0 ? [`${tooLate} of them too late`] : []),
  ].join(', ');
}

/** "11:00–12:00", "from 11:00", "until 12:00"; empty where no hours are said. */
export function sayHours(from: string | null, until: string | null): string {
  if (from !== null && until !== null) return sayTimeSpan(from, until);
  if (from !== null) return `from ${sayTime(from)}`;
  return until === null ? '' : `until ${sayTime(until)}`;
}
