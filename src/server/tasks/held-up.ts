import { type HoldInput, MOST_NUDGED, type Nudged } from '../../contract/index.ts';
import { groupBy, plural, sayDate } from '../../core/index.ts';
import { ring } from '../bell/index.ts';
import { columnsOf } from '../platform/db/columns.ts';
import { invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { isToDoNow, wasNudgedLately } from './permission.ts';
import { LOOK_FIELDS, type LookRow, NOT_HELD, refuseFarDays, TaskRecord } from './stored/index.ts';
import { changeTask, refuseFinished, type SavedTask } from './work.ts';

/** Says what a task can't go on for, and until when: on that day it is back by itself. */
export function holdUpTask(scope: Scope, id: string, { reason, until }: HoldInput): Promise<SavedTask> {
  return changeTask(scope, id, 'held up', (task, tx) => {
    refuseFinished(task, 'held up');
    if (until <= tx.today)
      throw invalid([
        {
          path: 'until',
          message: `It is held up until a day after today, ${sayDate(tx.now.day)}: on that day it is back.`,
        },
      ]);
    refuseFarDays(tx, { until });
    return { heldUntil: until, heldReason: reason, heldAt: tx.instant, heldBy: tx.person?.id ?? null };
  });
}

/** It can go on before the day that was said. */
export function goOnWithTask(scope: Scope, id: string): Promise<SavedTask> {
  return changeTask(scope, id, 'goes on', (task) => {
    if (task.heldUntil === null) throw notNow('Nothing holds this task up.');
    return NOT_HELD;
  });
}

type Reminded = LookRow & Pick<TaskRecord, 'id' | 'assigneeId' | 'title' | 'nudgedAt'>;
const REMINDED = [
  ...LOOK_FIELDS,
  'id',
  'assigneeId',
  'title',
  'nudgedAt',
] as const satisfies readonly (keyof TaskRecord)[];

/**
 * Reminds those who have some tasks of them: one line on the bell of each. Nobody is reminded of a task twice within the
 * hour, by whomever.
 */
export function nudge(
  scope: Scope,
  { tasks: ids, text }: { readonly tasks: readonly string[]; readonly text: string },
) {
  return scope.transaction(async (tx): Promise<Nudged> => {
    const rows = await tx.sql<Reminded>(
      `select ${columnsOf(TaskRecord, 'task', REMINDED)} from task where workspace_id = $1 and id = any($2::uuid[])
       order by id limit ${MOST_NUDGED} for no key update`,
      [ids],
    );
    const told = { nudged: 0, people: 0, own: 0, nobodys: 0, over: ids.length - rows.length, again: 0 };
    const reached = rows.filter((row) => {
      if (!isToDoNow(tx, row)) told.over++;
      else if (row.assigneeId === null) told.nobodys++;
      else if (row.assigneeId === tx.person?.id) told.own++;
      else if (wasNudgedLately(tx, row)) told.again++;
      else return true;
      return false;
    });
    // Not another version of it: whoever is writing on it writes on.
    await tx.sql('update task set nudged_at = $3, nudged_by = $4 where workspace_id = $1 and id = any($2::uuid[])', [
      reached.map(({ id }) => id),
      tx.instant,
      tx.person?.id ?? null,
    ]);
    const byPerson = groupBy(
      reached.sort((a, b) => a.dueOn.localeCompare(b.dueOn) || (a.id < b.id ? -1 : 1)),
      ({ assigneeId }) => assigneeId ?? '',
    );
    await ring(
      tx,
      [...byPerson].flatMap(([personId, [first, ...more]]) =>
        first
          ? [
              {
                ...{ personId, taskId: first.id, more: more.length },
                title:
                  more.length === 0 ? first.title : `${first.title} and ${plural(more.length, 'more task')} of yours`,
                text: `${tx.person?.name} nudges you${text === '' ? '' : `: ${text}`}`,
              },
            ]
          : [],
      ),
    );
    await tx.recordEach(reached.map(({ id }) => ({ subject: 'task', subjectId: id, action: 'nudged', fields: {} })));
    if (reached.length > 0) await tx.tell('tasks');
    return { ...told, nudged: reached.length, people: byPerson.size };
  });
}
