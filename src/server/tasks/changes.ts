import type { Change } from '../platform/changes/entity.ts';
import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import { removeHandMade } from './hand-made.ts';
import { bringBackTasks } from './remove.ts';
import { type Task, TaskRecord } from './stored/index.ts';
import { undoTaskChanges } from './work.ts';

const isDeletion = ({ action }: Pick<Change, 'action'>) => action === 'deleted';
/** Taken out with the file that brought it. */
const isBroughtIn = ({ action }: Pick<Change, 'action'>) => action === 'brought in';
const isMadeByHand = ({ action }: Pick<Change, 'action'>) => action === 'made by hand';
/** The tasks that were made by hand in one go; the change stands with the first of them. */
const madeBy = ({ fields }: Pick<Change, 'fields'>) => (fields['tasks']?.to ?? []) as string[];

/** The schedule of a deleted task. */
function deletedFrom({ fields }: Change): string | null {
  const row = fields['row']?.from as { schedule_id?: string | null } | undefined;
  return row?.schedule_id ?? null;
}

export const taskChanges: SubjectOfChanges<Task> = {
  entity: TaskRecord,
  telling: {
    title: 'told',
    workOn: 'told',
    dueOn: 'told',
    startTime: 'told',
    dueTime: 'told',
    zone: 'told',
    assigneeId: 'told',
    offeredTo: 'told',
    why: 'silent',
    clientId: 'told',
    assetId: 'told',
    templateId: 'told',
    estimateMinutes: 'told',
    priority: 'told',
    instructions: 'told',
    brief: 'told',
    links: 'told',
    workType: 'told',
    signOff: 'told',
    finishWithLast: 'told',
    numbered: 'told',
    checkLines: 'told',
    demands: 'told',
    note: 'told',
    state: 'silent',
    answers: 'silent',
    ticks: 'silent',
    notePinned: 'silent',
    startsOn: 'silent',
    appearsOn: 'silent',
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
  } satisfies Telling<Task>,
  mayUndoOwn: (change) => !isDeletion(change),
  reached: (changes) => ({
    taskIds: changes.flatMap((change) => [change.subjectId, ...madeBy(change)]),
    scheduleIds: changes.flatMap((change) => deletedFrom(change) ?? []),
  }),
  fieldsTaken: (change) => (isDeletion(change) ? [] : fieldsOf(change)),
  async undo(scope, changes, rest) {
    await rest();
    const said: string[] = [];
    const deleted = changes.filter(isDeletion);
    if (deleted.length > 0)
      said.push(
        await bringBackTasks(
          scope,
          deleted.map(({ fields }) => fields),
        ),
      );
    const edited = changes.filter((change) => ![isDeletion, isMadeByHand, isBroughtIn].some((is) => is(change)));
    if (edited.length > 0)
      said.push(
        await undoTaskChanges(
          scope,
          edited.map(({ subjectId: id, fields }) => ({ id, fields })),
        ),
      );
    for (const made of changes.filter(isMadeByHand)) said.push(await removeHandMade(scope, madeBy(made)));
    return { said: said.join(' '), kept: [] };
  },
};
