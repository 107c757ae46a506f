import type { INTO_TEMPLATE, TaskEdit } from '../../contract/index.ts';
import { isToDo } from '../../core/index.ts';
import { filesOfTemplate, setTemplateFiles } from '../files/stored/index.ts';
import { mustReceive } from '../platform/identity/receiver.ts';
import { changedMeanwhile, notFound, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { saveTemplate } from '../templates/index.ts';
import { picturesIn, sanitiseInstructions, Template, withPictures } from '../templates/stored/index.ts';
import { mustMay } from './permission.ts';
import { oneWhole, refuseFarDays, seenFrom, type Task } from './stored/index.ts';
import { type SavedTask, workableTask, writeTask } from './work.ts';

/** Changes one task; its template, its schedule and the later ones stay as they are. */
export function editTask(scope: Scope, id: string, edit: TaskEdit & { version: number }): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await editableTask(tx, id, edit);
    return writeTask(tx, task, 'edited', editChanges(task, edit));
  });
}

/** A task that may be edited, by this person and in the version that was seen. */
export async function editableTask(scope: Scope, id: string, edit: TaskEdit & { version: number }): Promise<Task> {
  const task = await workableTask(scope, id);
  if (task.version !== edit.version)
    throw changedMeanwhile(
      'Someone else changed this task since you opened it. Yours is still on the screen, not saved.',
    );
  if (!isToDo(task.state)) throw notNow('This task is finished: undo that before changing it.');
  if (edit.workOn !== task.workOn || edit.dueOn !== task.dueOn) {
    mustMay(scope, 'move', task);
    refuseFarDays(scope, { workOn: edit.workOn, dueOn: edit.dueOn });
  }
  if (edit.assigneeId !== task.assigneeId) mustMay(scope, 'give', task);
  if (edit.priority !== task.priority) mustMay(scope, 'prioritise', task);
  await mustReceive(scope, edit.assigneeId, { before: task.assigneeId });
  return task;
}

/** What an edit makes of a task, and which of its fields were changed by hand by then. */
export function editChanges(task: Task, edit: TaskEdit) {
  const { title, workOn, dueOn, startTime, dueTime, assigneeId, estimateMinutes, priority } = edit;
  const changes = {
    ...{ title, workOn, dueOn, startTime, dueTime, assigneeId, estimateMinutes, priority },
    instructions: sanitiseInstructions(edit.instructions),
    startsOn: workOn === task.workOn ? task.startsOn : workOn,
    appearsOn: seenFrom(task, workOn),
  };
  const touched = Object.entries(changes)
    .filter(([field, to]) => task[field as keyof Task] !== to)
    .map(([field]) => field);
  return { ...changes, edited: [...new Set([...task.edited, ...touched])] };
}

/** Gives fields of a task to its template, for the later ones. */
export function putIntoTemplate(
  scope: Scope,
  id: string,
  fields: readonly (typeof INTO_TEMPLATE)[number][],
): Promise<{ templateId: string; changeId: string | null }> {
  return scope.transaction(async (tx) => {
    const task = await oneWhole(tx, id);
    if (task.templateId === null) throw notFound('template');
    const template = await tx.locked(Template, task.templateId, 'template');
    // Of a step that is a task of its own, the estimate is the step's.
    const isStep = task.stepKey !== '';
    const changes: Partial<Template> = {};
    for (const field of fields) {
      if (field === 'estimateMinutes' && isStep)
        changes.steps = template.steps.map((step) =>
          step.key === task.stepKey && step.kind === 'task' ? { ...step, estimateMinutes: task.estimateMinutes } : step,
        );
      else Object.assign(changes, { [field]: task[field] });
    }
    if (changes.instructions !== undefined) {
      // Its pictures go along, as files of the template's own.
      const listed = (await filesOfTemplate(tx, template.id)).map((file) => file.id);
      const copies = await setTemplateFiles(
        tx,
        template.id,
        { listed, inText: picturesIn(changes.instructions) },
        { taskId: id },
      );
      changes.instructions = withPictures(changes.instructions, copies);
    }
    const { changeId } = await saveTemplate(tx, template, changes, 'changed');
    return { templateId: template.id, changeId };
  });
}
