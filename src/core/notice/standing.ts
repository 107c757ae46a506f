import { shiftWorkingDays, type WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { latestSending, receivedOn } from './notice.ts';
import { latestDays, type termsOf, USUAL_REMIND } from './visit-terms.ts';

/** A notice as it was written, or the word that none is needed. */
export interface WrittenNotice {
  /** The name of the way it goes by; null for the word that none is needed. */
  readonly way: string | null;
  /** The day of the visit that it tells of. */
  readonly visitOn: CivilDay;
  /** The day on which it went; null while it has not. */
  readonly sentOn: CivilDay | null;
  /** Whether it is a mail that no server would take. */
  readonly isRefused: boolean;
}

/**
 * How far the notice of a visit is. `elsewhere`: one went, or was written, for another day than the visit has by now.
 * `refused`: it is a mail that did not arrive.
 */
export const NOTICE_STATES = [
  ...(['tooLate', 'refused', 'elsewhere', 'notWritten', 'written'] as const),
  ...(['onItsWay', 'received', 'notNeeded'] as const),
] as const;
export type NoticeState = (typeof NOTICE_STATES)[number];

export interface NoticeStanding {
  readonly state: NoticeState;
  /** The latest day to send it, by the way it is to go by, or by the one that leaves most time; null where none is needed. */
  readonly sendBy: CivilDay | null;
  /** The day on which those who plan are reminded of it, a working day; null where nothing is to be sent. */
  readonly remindOn: CivilDay | null;
  /** Whether what went went in time; null where nothing has. */
  readonly inTime: boolean | null;
}

/** States in which something is to be sent still. */
export const isToSend = (state: NoticeState): boolean =>
  state === 'tooLate' || state === 'refused' || state === 'elsewhere' || state === 'notWritten' || state === 'written';

/**
 * How far the notice of a visit is on a day.
 * @param written the newest that was written for it; null for none
 */
export function noticeStanding(
  visitOn: CivilDay,
  rules: NonNullable<ReturnType<typeof termsOf>>,
  written: WrittenNotice | null,
  today: CivilDay,
  calendar: WorkingCalendar,
): NoticeStanding {
  const none = { state: 'notNeeded', sendBy: null, remindOn: null, inTime: null } as const;
  if (written?.way === null) return none;
  const way = written && rules.ways.find(({ name }) => name === written.way);
  const sendBy = way
    ? latestSending(visitOn, rules.terms.period, way, calendar)
    : (latestDays(visitOn, rules, calendar)[0]?.on ?? null);
  // Of a type that no letter may go for by any way nothing can be sent.
  if (sendBy === null) return none;
  const isLate = sendBy < today;
  const toSend = (state: NoticeState): NoticeStanding => {
    const remindOn = shiftWorkingDays(sendBy, -(rules.terms.remind ?? USUAL_REMIND), calendar);
    return { state, sendBy, remindOn, inTime: null };
  };
  if (written === null) return toSend(isLate ? 'tooLate' : 'notWritten');
  if (written.isRefused) return toSend('refused');
  if (written.visitOn !== visitOn) return toSend('elsewhere');
  if (written.sentOn === null) return toSend(isLate ? 'tooLate' : 'written');
  const isThere = way === null || way === undefined || receivedOn(written.sentOn, way, calendar) <= today;
  return { state: isThere ? 'received' : 'onItsWay', sendBy, remindOn: null, inTime: written.sentOn <= sendBy };
}
