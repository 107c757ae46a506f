import { dayOfIso, sayDate, weekdayOf, weekdayShort } from '../../core/index.ts';

/** "Tue 24 Nov 2026" */
export function sayOn(date: string): string {
  const day = dayOfIso(date);
  return `${weekdayShort(weekdayOf(day))} ${sayDate(day)}`;
}

/** "Tue 24 Nov 2026 10:40"; the time alone on a day that is said already. @param moment "2026-11-24T10:40" */
export function sayMoment(moment: string, onDay: string | null = null): string {
  const [date = '', time = ''] = moment.split('T');
  return date === onDay ? time : `${sayOn(date)} ${time}`;
}

/** A name for a file: without what systems of files have a meaning for. */
export const plainName = (words: string): string => words.replace(/[\\/:*?"<>|]+/g, ' ').trim();
