import type { Schedule, SchedulePatch } from '../../../../contract/index.ts';
import {
  type AssignmentRule,
  type ByHand,
  type CivilDay,
  endBefore,
  givenTo,
  moveWithin,
  type Offset,
  onlyPersonOf,
  pauseFrom,
  plural,
  resumeFrom,
  skipWithin,
  type WorkingCalendar,
} from '../../../../core/index.ts';
import { sayDate, sayNear } from '../../../kit/ways.ts';
import type { AskedChange } from '../looked-at.tsx';

/** What can be done with chosen schedules in one go. */
export type Deed =
  | { readonly kind: 'give'; readonly personId: string | null; readonly name: string }
  | { readonly kind: 'pause'; readonly from: CivilDay; readonly until: CivilDay | null }
  | { readonly kind: 'resume'; readonly on: CivilDay }
  | { readonly kind: 'end'; readonly lastOn: CivilDay }
  | { readonly kind: 'skip'; readonly from: CivilDay; readonly to: CivilDay }
  | { readonly kind: 'move'; readonly from: CivilDay; readonly to: CivilDay; readonly by: Offset }
  | { readonly kind: 'delete' }
  | { readonly kind: 'bringBack' };

/** The changes that a deed makes to some schedules; of those that it leaves as they are, none. */
export function changesOf(
  schedules: readonly Schedule[],
  deed: Deed,
  calendar: WorkingCalendar,
  today: CivilDay,
): AskedChange {
  const changes = schedules.flatMap((schedule): SchedulePatch[] => {
    const set = setOf(schedule, deed, calendar);
    return Object.keys(set).length === 0 ? [] : [{ id: schedule.id, version: schedule.version, set }];
  });
  const [only] = schedules;
  const which =
    schedules.length === 1 && only
      ? [only.template.name, only.asset?.name ?? only.client?.name].filter(Boolean).join(', ')
      : plural(changes.length, 'schedule');
  const { doing, done } = wordsOf(deed, today);
  return { changes, what: `${which}: ${doing}`, said: `${which}: ${done}.` };
}

function setOf(schedule: Schedule, deed: Deed, calendar: WorkingCalendar): SchedulePatch['set'] {
  switch (deed.kind) {
    case 'give':
      return isGivenTo(schedule.assignment, deed.personId) ? {} : { assignment: givenTo(deed.personId) };
    case 'pause':
      return differing(schedule, pauseFrom(schedule, deed.from, deed.until ?? undefined));
    case 'resume':
      return differing(schedule, resumeFrom(schedule, deed.on));
    case 'end':
      return differing(schedule, endBefore(schedule, deed.lastOn + 1));
    case 'skip':
      return differing(schedule, skipWithin(schedule, calendar, deed.from, deed.to));
    case 'move':
      return differing(schedule, moveWithin(schedule, calendar, deed, deed.by));
    case 'delete':
      return { isDeleted: true };
    case 'bringBack':
      return { isDeleted: false };
  }
}

function differing(before: ByHand, after: ByHand): SchedulePatch['set'] {
  const fields = ['recurrence', 'pauses', 'exceptions', 'revisions'] as const;
  return Object.fromEntries(
    fields
      .filter((field) => JSON.stringify(before[field]) !== JSON.stringify(after[field]))
      .map((field) => [field, after[field]]),
  );
}

function wordsOf(deed: Deed, today: CivilDay): { readonly doing: string; readonly done: string } {
  const day = (on: CivilDay) => (Math.abs(on - today) < 300 ? sayNear(on, today) : sayDate(on));
  const same = (words: string) => ({ doing: words, done: words });
  switch (deed.kind) {
    case 'give':
      return same(`given to ${deed.name}`);
    case 'pause':
      return same(`paused from ${day(deed.from)}${deed.until === null ? '' : ` until ${day(deed.until)}`}`);
    case 'resume':
      return same('running again');
    case 'end':
      return same(`ended with ${day(deed.lastOn)}`);
    case 'skip':
      return same(`the dates ${sayFromTo(deed, day)} skipped`);
    case 'move':
      return same(`the dates ${sayFromTo(deed, day)} moved by ${sayShift(deed.by)}`);
    case 'delete':
      return same('deleted');
    case 'bringBack':
      return same('brought back');
  }
}

function sayFromTo({ from, to }: { from: CivilDay; to: CivilDay }, day: (on: CivilDay) => string): string {
  return from === to ? `on ${day(from)}` : `from ${day(from)} to ${day(to)}`;
}

function sayShift({ amount, unit }: Offset): string {
  const n = Math.abs(amount);
  const days = plural(n, unit === 'workingDay' ? 'working day' : 'day');
  return amount < 0 ? `${days} earlier` : days;
}

/** Whether all of its dates are one person's already, or nobody's. */
function isGivenTo(rule: AssignmentRule, personId: string | null): boolean {
  return personId === null ? rule.kind === 'nobody' : onlyPersonOf(rule) === personId;
}
