import type { LinkedLine, LinkedTask, Task as TaskAnswer } from '../../contract/index.ts';
import { type Demand, firstName, ownOf, sayAnswer } from '../../core/index.ts';
import { Asset } from '../clients/index.ts';
import { filesByLink } from '../files/stored/index.ts';
import { notFound, notNow } from '../platform/refusal.ts';
import type { ByLink, Scope } from '../platform/scope.ts';
import { post } from '../post/index.ts';
import { changeTask, oneTask } from '../tasks/index.ts';
import { lockedTask } from '../tasks/stored/index.ts';
import type { ClientLink } from './entity.ts';
import { copyOf } from './letter.ts';

type Row = Omit<LinkedLine, 'about'> & { readonly assetName: string | null; readonly place: string | null };

/** So many tasks of one client are shown at once. */
const MOST_SHOWN = 100;

/** What is a client's to do and seen by now, or was sent by a link. */
const THEIRS = `t.workspace_id = $1 and t.client_id = $2 and t.offered_to->>'of' = 'client' and t.assignee_id is null
  and ((t.state in ('open', 'underWay') and t.appears_on <= $3) or (t.state in ('toCheck', 'done') and t.done_by_contact is not null))`;

/** What a link opens: what is to be done first, by the day it is due, then what was sent since the link was made. */
export async function linkedLines(
  scope: Scope,
  { clientId, taskId }: ByLink,
  { madeAt }: Pick<ClientLink, 'madeAt'>,
): Promise<LinkedLine[]> {
  const rows = await scope.sql<Row>(
    `select t.id, t.title, t.due_on as "dueOn", t.due_time as "dueTime", t.state, a.name as "assetName", a.place
     from task t left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
     where ${THEIRS} and case when $4::uuid is null then t.done_at is null or t.done_at >= $5 else t.id = $4 end
     order by t.state in ('toCheck', 'done'), t.due_on, t.id limit ${MOST_SHOWN}`,
    [clientId, scope.today, taskId, madeAt],
  );
  return rows.map(({ assetName, place, ...row }) => ({ ...row, about: aboutOf(assetName, place) }));
}

const aboutOf = (name: string | null, place: string | null): string => [name, place].filter(Boolean).join(', ');

/** Who came by a link. */
export function contactOf({ contact }: Scope): ByLink {
  if (contact === null) throw new Error('Only somebody who came by a link is asked what it opens.');
  return contact;
}

/** @throws Refusal for a task that the link does not open, as for one that is not there */
export async function mustOpen(scope: Scope, taskId: string): Promise<void> {
  const contact = contactOf(scope);
  if (contact.taskId !== null && contact.taskId !== taskId) throw notFound('task');
  const [found] = await scope.sql(`select 1 from task t where ${THEIRS} and t.id = $4`, [
    contact.clientId,
    scope.today,
    taskId,
  ]);
  if (!found) throw notFound('task');
}

/** A task as its client sees it: of those who work here no more than a first name. */
export async function linkedTask(scope: Scope, taskId: string): Promise<LinkedTask> {
  await mustOpen(scope, taskId);
  return seen(scope, await oneTask(scope, taskId));
}

async function seen(scope: Scope, task: TaskAnswer): Promise<LinkedTask> {
  const asset = task.asset === null ? null : await scope.one(Asset, task.asset.id, 'asset');
  const { id, title, dueOn, dueTime, estimateMinutes, instructions, brief, links, demands, note, doneAt } = task;
  const { keys, changes } = await filesByLink(scope, id);
  const nameless = <T extends { readonly by: string | null }>(one: T): T => ({ ...one, by: null });
  return {
    ...{ id, title, dueOn, dueTime, estimateMinutes, instructions, brief, links, demands, note, doneAt },
    version: task.version + changes,
    about: aboutOf(asset?.name ?? null, asset?.place ?? null),
    state: stateOf(task.state),
    templateFiles: task.templateFiles.map(nameless),
    files: task.files.map((file) => ({ ...nameless(file), key: keys.get(file.id) ?? null })),
    steps: task.steps.map(({ tickedAt, tickedBy: _, ...line }) => ({ ...line, isTicked: tickedAt !== null })),
    answers: Object.fromEntries(Object.entries(task.answers).map(([key, answer]) => [key, nameless(answer)])),
    sentBack: task.sentBack && { at: task.sentBack.at, reason: task.sentBack.reason },
    looksAtIt: await looksAtIt(scope, task),
    nextOn: task.series.next?.on ?? null,
  };
}

function stateOf(state: TaskAnswer['state']): LinkedTask['state'] {
  if (state === 'underWay' || state === 'toCheck' || state === 'done') return state;
  return 'open';
}

async function looksAtIt(scope: Scope, { signOff }: Pick<TaskAnswer, 'signOff'>): Promise<string | null> {
  if (signOff === null) return null;
  if (signOff.by !== 'person') return 'Somebody';
  const name = (await scope.peopleNames()).get(signOff.personId);
  return name === undefined ? 'Somebody' : firstName(name);
}

/** Does something by a link; where it is finished by that, the contact has a copy by mail. */
export async function doByLink(
  scope: Scope,
  taskId: string,
  work: (tx: Scope) => Promise<unknown>,
): Promise<LinkedTask> {
  await mustOpen(scope, taskId);
  return scope.transaction(async (tx) => {
    const before = await lockedTask(tx, taskId);
    await work(tx);
    const task = await oneTask(tx, taskId);
    if (before.doneAt === null && task.doneAt !== null) await postCopy(tx, task);
    return seen(tx, task);
  });
}

/** @throws Refusal for what was sent already: its proof stays as it is while somebody looks at it */
export async function mustTakeMore(scope: Scope, taskId: string): Promise<void> {
  const { state } = await linkedTask(scope, taskId);
  if (state === 'toCheck' || state === 'done') throw notNow('It was sent already. Choose “Change something” first.');
}

/** A file that came may have been the last thing that was missing, where that finishes it. */
export async function afterUpload(scope: Scope, taskId: string): Promise<LinkedTask> {
  const task = await oneTask(scope, taskId);
  if (task.doneAt !== null) await scope.transaction((tx) => postCopy(tx, task));
  return seen(scope, task);
}

async function postCopy(scope: Scope, task: TaskAnswer): Promise<void> {
  const { workspace } = scope;
  const contact = contactOf(scope);
  await post(scope, {
    reason: `copy ${task.id} ${task.version}`,
    kind: 'task',
    to: { name: contact.name, email: contact.email },
    isPrivate: false,
    about: { clientId: contact.clientId, taskId: task.id },
    letter: copyOf({
      ...{ from: workspace.name, contact: contact.name, title: task.title },
      ...{ sent: sentIn(task), today: scope.now.day, ways: workspace.ways },
    }),
  });
}

/** Each thing that was asked, with what stands there. */
function sentIn(task: TaskAnswer): [string, string][] {
  const ofDemand = (demand: Demand, name: string): [string, string][] => {
    const asked = demand.label || name;
    if (demand.kind === 'note') return [[asked, task.note]];
    if (demand.kind === 'file')
      return [
        [
          asked,
          task.files
            .filter((file) => file.demand === demand.key)
            .map((file) => file.name)
            .join(', '),
        ],
      ];
    const answer = ownOf(task.answers, demand.key);
    return answer === undefined
      ? []
      : [[asked, [sayAnswer(demand, answer.value), answer.remark].filter(Boolean).join(', ')]];
  };
  const hasNote = task.demands.some(({ kind }) => kind === 'note');
  return [
    ...task.steps.flatMap((line): [string, string][] =>
      line.demands.length === 0
        ? [[line.text, line.tickedAt === null ? 'no' : 'done']]
        : line.demands.flatMap((one) => ofDemand(one, line.text)),
    ),
    ...task.demands.flatMap((demand) => ofDemand(demand, task.title)),
    ...(task.note.trim() === '' || hasNote ? [] : ([['note', task.note]] as [string, string][])),
  ].filter(([, said]) => said.trim() !== '');
}

/** Takes back what was sent, to change something: possible until somebody here has looked at it. */
export const takeBack = (scope: Scope, taskId: string): Promise<LinkedTask> =>
  doByLink(scope, taskId, (tx) =>
    changeTask(tx, taskId, 'taken back', ({ state }) => {
      if (state !== 'toCheck') throw notNow('Somebody has looked at it by now, so it stays as it was sent.');
      return { state: 'underWay', doneAt: null, doneBy: null, doneByContact: null };
    }),
  );

/** The task of a file that a link may see: its own, or one of the template that it was made from. */
export async function mustSeeFile(scope: Scope, fileId: string): Promise<void> {
  const contact = contactOf(scope);
  const [row] = await scope.sql(
    `select 1 from task t join file f on f.workspace_id = t.workspace_id and f.id = $4 and f.removed_at is null
       and (f.task_id = t.id or f.template_id = t.template_id)
     where ${THEIRS} and ($5::uuid is null or t.id = $5) limit 1`,
    [contact.clientId, scope.today, fileId, contact.taskId],
  );
  if (!row) throw notFound('file');
}

/** Of which task a file is that came by a link; who came by a link takes out what one brought, nothing else. */
export async function ownFileOf(scope: Scope, fileId: string): Promise<string> {
  const [row] = await scope.sql<{ taskId: string }>(
    `select task_id as "taskId" from file where workspace_id = $1 and id = $2 and task_id is not null and by_contact is not null
       and removed_at is null`,
    [fileId],
  );
  if (!row) throw notFound('file');
  await mustOpen(scope, row.taskId);
  return row.taskId;
}
