import type { DefaultRule, UnnamedGroup } from '../assignment/default-rule.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';
import type { DatedOccurrence } from '../planning/plan.ts';
import { type Offset, ON_THE_DAY, offsetDay, reachInDays } from '../planning/timing.ts';
import type { CheckLine, Demand } from './proof.ts';

/** Who signs finished work off: any manager, a person, or anyone of a role. Never whoever did it. */
export type SignOff =
  | { readonly by: 'manager' }
  | { readonly by: 'person'; readonly personId: string }
  | { readonly by: 'role'; readonly role: string };

/**
 * Who does a task of the set: whoever the set is given to, somebody else, any one of some, whoever of some has the least to do,
 * the client's usual person, the client themselves, or nobody yet.
 */
export type StepAssignee =
  | { readonly by: 'set' }
  | { readonly by: 'person'; readonly personId: string }
  | { readonly by: 'anyOf'; readonly group: UnnamedGroup }
  | { readonly by: 'leastToDo'; readonly group: UnnamedGroup }
  | { readonly by: 'usualPerson' }
  | { readonly by: 'client' }
  | { readonly by: 'nobody' };

/** A line that is ticked inside its task. */
export interface CheckStep extends CheckLine {
  readonly kind: 'check';
}

/** A task of its own in the set, on a day told from the set's date. */
export interface TaskStep {
  readonly kind: 'task';
  readonly key: string;
  /** Filled in like the title of the template. */
  readonly titlePattern: string;
  readonly note: string;
  readonly offset: Offset;
  readonly startTime: IsoTime | null;
  readonly dueTime: IsoTime | null;
  readonly assignee: StepAssignee;
  /** In minutes, 1 and up. */
  readonly estimateMinutes: number;
  readonly demands: readonly Demand[];
  readonly signOff: SignOff | null;
  /** Qualifications that whoever does it has to hold; left out for none. */
  readonly tickets?: readonly string[] | undefined;
}

/** In the order in which they are shown. A check line belongs to the last task before it, the first ones to the main task. */
export type Step = CheckStep | TaskStep;

/** What the tasks of a set are told from. */
export interface SetTemplate {
  readonly titlePattern: string;
  readonly estimateMinutes: number;
  readonly demands: readonly Demand[];
  readonly signOff: SignOff | null;
  /** Qualifications that whoever does the main task has to hold. */
  readonly tickets: readonly string[];
  readonly steps: readonly Step[];
}

/** One task of a set: the main one, worked on the set's date itself, or one of the steps. */
export interface SetPart extends Omit<TaskStep, 'kind' | 'tickets'> {
  /** Key of its step; empty for the main task. */
  readonly key: string;
  readonly tickets: readonly string[];
  readonly checkLines: readonly CheckLine[];
}

/** The key of the main task of a set. */
export const MAIN_PART = '';

/** The tasks that a template makes for one occurrence: the main one first, then its steps in their order. */
export function setParts(template: SetTemplate): SetPart[] {
  const { titlePattern, estimateMinutes, demands, signOff, tickets } = template;
  const parts: (SetPart & { checkLines: CheckLine[] })[] = [
    {
      key: MAIN_PART,
      titlePattern,
      note: '',
      offset: ON_THE_DAY,
      startTime: null,
      dueTime: null,
      assignee: { by: 'set' },
      estimateMinutes,
      demands,
      signOff,
      tickets,
      checkLines: [],
    },
  ];
  for (const step of template.steps) {
    if (step.kind === 'check') {
      const { key, text, note, demands: asked } = step;
      parts.at(-1)?.checkLines.push({ key, text, note, demands: asked });
    } else {
      const { kind: _, tickets: asked = [], ...part } = step;
      parts.push({ ...part, tickets: asked, checkLines: [] });
    }
  }
  return parts;
}

/** Minutes of the whole set. */
export function setMinutes(template: Pick<SetTemplate, 'estimateMinutes' | 'steps'>): number {
  return template.steps.reduce(
    (sum, step) => sum + (step.kind === 'task' ? step.estimateMinutes : 0),
    template.estimateMinutes,
  );
}

/** The days of one task of a set. */
export interface PartDays {
  /** The day it is worked. */
  readonly on: CivilDay;
  readonly appears: CivilDay;
  readonly starts: CivilDay;
  readonly due: CivilDay;
  readonly startTime: IsoTime | null;
  readonly dueTime: IsoTime | null;
}

/**
 * The days of a part of a set. The main task has those of the occurrence; any other is worked on its own day,
 * and is seen as long before that as the main one before its own.
 */
export function partDays(
  occurrence: Pick<DatedOccurrence, 'on' | 'appears' | 'starts' | 'due' | 'timing'>,
  part: Pick<SetPart, 'key' | 'offset' | 'startTime' | 'dueTime'>,
  calendar: WorkingCalendar,
): PartDays {
  if (part.key === MAIN_PART) {
    const { on, appears, starts, due, timing } = occurrence;
    return { on, appears, starts, due, startTime: timing.startTime, dueTime: timing.dueTime };
  }
  const on = offsetDay(occurrence.on, part.offset, calendar);
  const appears = Math.min(offsetDay(on, occurrence.timing.appears, calendar), on);
  return { on, appears, starts: on, due: on, startTime: part.startTime, dueTime: part.dueTime };
}

/** How many days before or after the set's date its tasks reach at the most, in calendar days. */
export function setReach(parts: readonly Pick<SetPart, 'offset'>[]): number {
  return Math.max(0, ...parts.map(({ offset }) => (offset.amount === 0 ? 0 : reachInDays(offset))));
}

/** "on the day", "7 days before", "2 working days after" */
export function sayOffset({ amount, unit }: Offset): string {
  if (amount === 0) return 'on the day';
  const count = Math.abs(amount);
  const words = `${unit === 'day' ? 'day' : 'working day'}${count === 1 ? '' : 's'}`;
  return `${count} ${words} ${amount < 0 ? 'before' : 'after'}`;
}

/** One task of a set that is started by hand. */
export interface StartedPart {
  readonly part: SetPart;
  readonly on: CivilDay;
  readonly assigneeId: string | null;
}

/** The tasks of a set started by hand on a day, in the order of their parts. */
export function startedSet(
  template: SetTemplate,
  on: CivilDay,
  calendar: WorkingCalendar,
  assigneeId: string | null,
): StartedPart[] {
  return setParts(template).map((part) => ({
    part,
    on: offsetDay(on, part.offset, calendar),
    assigneeId: partAssignee(part, assigneeId),
  }));
}

/**
 * Any one of whom a task of a set started by hand is offered to while nobody is named; null where it is not.
 * @param byDefault who has the set where nobody is named for it
 */
export function partOffered(
  { assignee }: Pick<SetPart, 'assignee'>,
  byDefault: DefaultRule,
): UnnamedGroup | { readonly of: 'client' } | null {
  if (assignee.by === 'anyOf') return assignee.group;
  if (assignee.by === 'client' || (assignee.by === 'set' && byDefault.kind === 'client')) return { of: 'client' };
  return assignee.by === 'set' && byDefault.kind === 'anyOf' ? byDefault.group : null;
}

/**
 * Who does a task of a set that is started by hand and given to somebody; null also where any one of some may. What a schedule
 * finds out by the load, or by the client, is left to whoever starts it: it begins with whoever has the set.
 */
export function partAssignee({ assignee }: Pick<SetPart, 'assignee'>, setAssignee: string | null): string | null {
  switch (assignee.by) {
    case 'set':
    case 'leastToDo':
    case 'usualPerson':
      return setAssignee;
    case 'person':
      return assignee.personId;
    case 'anyOf':
    case 'client':
    case 'nobody':
      return null;
  }
}
