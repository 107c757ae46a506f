import type { Leave, Member } from '../../../../contract/index.ts';
import { type CivilDay, minutesFor, readDuration, type Shift, shiftsOn, workerOf } from '../../../../core/index.ts';
import { sayTimeSpan } from '../../../kit/ways.ts';

/** A shift of which nothing is said yet. */
export const AT_FIRST: Shift = { from: '09:00', to: '17:00', breakMinutes: 0, role: null };

/** Somebody's shifts on a day; null where they do not work then. */
export function shiftsOf(
  member: Member,
  leave: readonly Leave[],
  day: CivilDay,
  isHoliday: boolean,
): readonly Shift[] | null {
  const given = leave.filter(({ state }) => state === 'given');
  const worker = workerOf({ ...member, leave: given });
  return minutesFor(worker, day, { isHoliday }) === 0 ? null : shiftsOn(worker, day, { isHoliday });
}

/** Minutes of a break as they are typed; nothing is none. */
export function readBreak(text: string): number | undefined {
  if (/^(no(ne| break)?)?$/i.test(text.trim())) return 0;
  return readDuration(text) ?? undefined;
}

/** "07:00–11:00 and 12:00–16:00 as fuel dock" */
export function sayShifts(shifts: readonly Shift[]): string {
  return shifts
    .map(({ from, to, role }) => `${sayTimeSpan(from, to)}${role === null ? '' : ` as ${role}`}`)
    .join(' and ');
}
