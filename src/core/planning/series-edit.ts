import { dayOfIso, type IsoDate, type IsoTime, isoOfDay } from '../civil-date/iso-date.ts';
import { fillTitle, patternOfTitle, type TitleContext } from '../wording/title.ts';
import type { OwnFields } from './schedule-plan.ts';
import type { Timing } from './timing.ts';

/** What can be changed by hand of a task, and of others of its series with it. */
export interface EditableTask {
  readonly title: string;
  readonly instructions: string;
  readonly workOn: IsoDate;
  readonly dueOn: IsoDate;
  readonly startTime: IsoTime | null;
  readonly dueTime: IsoTime | null;
  readonly assigneeId: string | null;
  readonly estimateMinutes: number;
  readonly priority: 'low' | 'normal' | 'high' | 'urgent';
}

const FIELDS = [
  'title',
  'instructions',
  'workOn',
  'dueOn',
  'startTime',
  'dueTime',
  'assigneeId',
  'estimateMinutes',
  'priority',
] as const satisfies readonly (keyof EditableTask)[];

/** An edit of one task that is to go further. */
export interface SeriesEdit {
  readonly before: EditableTask;
  readonly after: EditableTask;
  /** Of the edited task, to tell what in a new title is its own: its date, its client. */
  readonly titleContext: TitleContext;
}

/** The fields that an edit changes. */
export function editedFields({ before, after }: Pick<SeriesEdit, 'before' | 'after'>): (keyof EditableTask)[] {
  return FIELDS.filter((field) => before[field] !== after[field]);
}

/**
 * What the same edit changes of another task of the series: days move by as much, what stands in the title of the one
 * only (its date) becomes the other's, the rest is taken over.
 */
export function editOfOther(edit: SeriesEdit, other: EditableTask, titleContext: TitleContext): Partial<EditableTask> {
  const fields = new Set(editedFields(edit));
  const { before, after } = edit;
  const shift = dayOfIso(after.workOn) - dayOfIso(before.workOn);
  const workOn = dayOfIso(other.workOn) + shift;
  const span = dayOfIso(after.dueOn) - dayOfIso(after.workOn);
  const plain = FIELDS.filter((field) => fields.has(field) && !['title', 'workOn', 'dueOn'].includes(field));
  return {
    ...Object.fromEntries(plain.map((field) => [field, after[field]])),
    ...(fields.has('title') && { title: fillTitle(patternOfTitle(after.title, edit.titleContext), titleContext) }),
    ...(fields.has('workOn') && { workOn: isoOfDay(workOn) }),
    ...((fields.has('workOn') || fields.has('dueOn')) && { dueOn: isoOfDay(workOn + span) }),
  };
}

/**
 * What of an edit a schedule can say for all later ones of the same step. Its day can't be: that is the rule's.
 * @param step '' for the main task, whose times are the schedule's
 */
export function revisionOfEdit(
  edit: SeriesEdit,
  step: string,
): { readonly own: OwnFields; readonly timing: Partial<Timing>; readonly said: ReadonlySet<keyof EditableTask> } {
  const { after } = edit;
  const isMain = step === '';
  const fields = editedFields(edit);
  const times = Object.fromEntries(
    (['startTime', 'dueTime'] as const).filter((field) => fields.includes(field)).map((field) => [field, after[field]]),
  );
  const due =
    isMain && fields.includes('dueOn') && !fields.includes('workOn')
      ? { due: { amount: dayOfIso(after.dueOn) - dayOfIso(after.workOn), unit: 'day' as const } }
      : {};
  const taken = (['instructions', 'estimateMinutes', 'priority', 'assigneeId'] as const).filter((field) =>
    fields.includes(field),
  );
  const own: OwnFields = {
    ...(fields.includes('title') && { titlePattern: patternOfTitle(after.title, edit.titleContext) }),
    ...Object.fromEntries(taken.map((field) => [field, after[field]])),
    ...(isMain ? {} : times),
  };
  const unsaid = new Set<keyof EditableTask>(['workOn', ...('due' in due ? [] : ['dueOn' as const])]);
  return {
    own,
    timing: isMain ? { ...times, ...due } : {},
    said: new Set(fields.filter((field) => !unsaid.has(field))),
  };
}
