import { In } from 'typeorm';
import { FIELD_WORDS, type Impact, type ImpactItem } from '../../contract/index.ts';
import { UNFINISHED_STATES } from '../../core/index.ts';
import { isSame } from '../platform/changes/entity.ts';
import type { Scope } from '../platform/scope.ts';
import { countedItems, type Fields, impactWords } from '../schedules/index.ts';
import { findTasks, type Task, tasksByIds } from './stored/index.ts';

/** What becomes of one task. */
export type TaskFate =
  | { readonly kind: 'changed'; readonly task: Task; readonly changes: Partial<Task> }
  | { readonly kind: 'added' | 'removed'; readonly task: Task }
  | { readonly kind: 'kept'; readonly task: Task; readonly because: NonNullable<ImpactItem['because']> };

/**
 * How a change of each field is told: by its value before and after, as a whole that is another now, or not at all since it
 * follows from others or is nothing that anybody sees.
 */
const TELLING = {
  title: 'value',
  workOn: 'value',
  dueOn: 'value',
  appearsOn: 'value',
  startTime: 'value',
  dueTime: 'value',
  zone: 'value',
  assigneeId: 'value',
  offeredTo: 'value',
  why: 'silent',
  clientId: 'value',
  assetId: 'value',
  templateId: 'value',
  estimateMinutes: 'value',
  priority: 'value',
  instructions: 'value',
  state: 'state',
  brief: 'whole',
  links: 'whole',
  workType: 'whole',
  signOff: 'whole',
  finishWithLast: 'whole',
  numbered: 'whole',
  checkLines: 'whole',
  demands: 'whole',
  answers: 'whole',
  ticks: 'whole',
  note: 'whole',
  notePinned: 'silent',
  startsOn: 'silent',
  version: 'silent',
  templateVersion: 'silent',
  setId: 'silent',
  setOn: 'silent',
  setIndex: 'silent',
  scheduleId: 'silent',
  nominalDate: 'silent',
  stepKey: 'silent',
  head: 'silent',
  startedAt: 'silent',
  doneAt: 'silent',
  onTime: 'silent',
  doneBy: 'silent',
  doneByContact: 'silent',
  signedAt: 'silent',
  signedBy: 'silent',
  sentBack: 'silent',
  heldUntil: 'silent',
  heldReason: 'silent',
  heldAt: 'silent',
  heldBy: 'silent',
  nudgedAt: 'silent',
  nudgedBy: 'silent',
  edited: 'silent',
  runId: 'silent',
  madeAt: 'silent',
  contentId: 'silent',
} as const satisfies Record<Exclude<keyof Task, 'workspaceId' | 'id'>, 'value' | 'whole' | 'state' | 'silent'>;

type Told = keyof typeof TELLING;
const toldAs = (how: (typeof TELLING)[Told]) =>
  (Object.keys(TELLING) as Told[]).filter((field) => TELLING[field] === how);
const VALUES = toldAs('value') as (Told & keyof Fields)[];
const WHOLES = toldAs('whole');
const SHOWN = [...VALUES, ...WHOLES, 'state'] as const;

/**
 * Looks at tasks, so that after some work it can be told what became of them: those named, and all open ones of schedules.
 * Between the two nothing but that work may happen, as within a rehearsal.
 */
export async function watchTasks(
  scope: Scope,
  { taskIds, scheduleIds }: { readonly taskIds: readonly string[]; readonly scheduleIds: readonly string[] },
): Promise<() => Promise<TaskFate[]>> {
  const seen = async (ids: readonly string[]) => {
    const ofSchedules =
      scheduleIds.length === 0
        ? []
        : await findTasks(scope, { scheduleId: In([...scheduleIds]), state: In([...UNFINISHED_STATES]) });
    const tasks = [...(await tasksByIds(scope, ids)), ...ofSchedules];
    return new Map(
      tasks.sort((a, b) => a.workOn.localeCompare(b.workOn) || (a.id < b.id ? -1 : 1)).map((task) => [task.id, task]),
    );
  };
  const before = await seen(taskIds);
  return async () => {
    const after = await seen([...taskIds, ...before.keys()]);
    const added = [...after.values()].filter(({ id }) => !before.has(id));
    return [
      ...[...before.values()].flatMap((task): TaskFate[] => {
        const now = after.get(task.id);
        if (!now) return [{ kind: 'removed', task }];
        const isSameStill = SHOWN.every((field) => isSame(task[field], now[field]));
        return isSameStill ? [] : [{ kind: 'changed', task, changes: now }];
      }),
      ...added.map((task): TaskFate => ({ kind: 'added', task })),
    ];
  };
}

const STATE_WORDS: Readonly<Record<Task['state'], string>> = {
  open: 'open',
  underWay: 'under way',
  toCheck: 'to check',
  done: 'done',
  skipped: 'skipped',
  lapsed: 'lapsed',
};

/**
 * The impact of changes of single tasks, which no plan is behind. What nothing changes about is not told.
 * @param written what longer texts become, in words
 */
export async function impactOfFates(
  scope: Scope,
  all: readonly TaskFate[],
  written = 'as written here',
): Promise<Impact> {
  const fates = all.filter((fate) => fate.kind !== 'changed' || SHOWN.some((field) => isAnother(fate, field)));
  const told = fates.flatMap((fate) => [fate.task, ...(fate.kind === 'changed' ? [fate.changes] : [])]);
  const say = await impactWords(scope, told as readonly Partial<Fields>[], written);
  const about = await namesOf(
    scope,
    fates.map(({ task }) => task),
  );
  const items = fates.map((fate): ImpactItem => {
    const { task } = fate;
    const after = fate.kind === 'changed' ? { ...task, ...fate.changes } : task;
    const differs = (field: Told) => !isSame(task[field], after[field]);
    const isSkipped = after.state === 'skipped' && task.state !== 'skipped';
    return {
      kind: isSkipped ? 'removed' : fate.kind,
      because: fate.kind === 'kept' ? fate.because : null,
      // One that would be made has no address yet.
      taskId: fate.kind === 'added' ? null : task.id,
      scheduleId: task.scheduleId,
      title: task.title,
      about: about(task),
      who: say.person(task.assigneeId),
      on: task.workOn,
      state: task.state === 'open' && task.appearsOn > scope.today ? 'coming' : task.state,
      fields: [
        ...(after.state === task.state || isSkipped
          ? []
          : [{ name: 'state', from: STATE_WORDS[task.state], to: STATE_WORDS[after.state] }]),
        ...say.fields(VALUES.filter(differs), task as unknown as Fields, after as unknown as Fields),
        ...WHOLES.filter((field) => differs(field) && !isSkipped).map((field) => ({
          name: FIELD_WORDS[field] ?? field,
          from: 'as it is',
          to: written,
        })),
      ],
    };
  });
  return { ...countedItems(items), years: [], datesBefore: 0, datesAfter: 0 };
}

function isAnother(fate: TaskFate & { readonly kind: 'changed' }, field: Told): boolean {
  return field in fate.changes && !isSame(fate.task[field], fate.changes[field]);
}

/** What a task is for, by name. */
async function namesOf(scope: Scope, tasks: readonly Task[]): Promise<(task: Task) => string | null> {
  const rows = await scope.sql<{ id: string; name: string }>(
    `select id, name from client where workspace_id = $1 and id = any($2::uuid[])
     union all select id, name from asset where workspace_id = $1 and id = any($2::uuid[])`,
    [tasks.flatMap(({ clientId, assetId }) => [clientId, assetId].filter((id) => id !== null))],
  );
  const names = new Map(rows.map(({ id, name }) => [id, name]));
  return ({ clientId, assetId }) => names.get(assetId ?? clientId ?? '') ?? null;
}
