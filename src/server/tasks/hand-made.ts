import type { CaptureInput, StartInput, TaskLine } from '../../contract/index.ts';
import {
  dayOfIso,
  fillTitle,
  isoOfDay,
  MAIN_PART,
  type Offer,
  partOffered,
  plural,
  setParts,
} from '../../core/index.ts';
import { Asset, Client } from '../clients/index.ts';
import { mustReceive } from '../platform/identity/receiver.ts';
import { changedMeanwhile, forbidden, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { Template } from '../templates/stored/index.ts';
import {
  IS_TOUCHED,
  insertTasks,
  type NewTask,
  NOT_HELD,
  refuseFarDays,
  removeTasks,
  taskLines,
} from './stored/index.ts';

interface Made {
  readonly tasks: TaskLine[];
  readonly changeId: string;
}

/** A task of a template without a schedule is seen from a week before its day. */
export const SEEN_BEFORE_DAYS = 7;

/** What is the same for every task that is made by hand. */
function handMade(scope: Scope, on: string, dueOn: string) {
  return {
    version: 1,
    scheduleId: null,
    nominalDate: null,
    head: '',
    ticks: {},
    answers: {},
    note: '',
    notePinned: false,
    state: 'open' as const,
    workOn: on,
    startsOn: on,
    dueOn,
    appearsOn: isoOfDay(Math.min(dayOfIso(on), Math.max(scope.now.day, dayOfIso(on) - SEEN_BEFORE_DAYS))),
    zone: null,
    offeredTo: null,
    why: null,
    startedAt: null,
    doneAt: null,
    doneBy: null,
    doneByContact: null,
    signedAt: null,
    signedBy: null,
    sentBack: [],
    ...NOT_HELD,
    nudgedAt: null,
    nudgedBy: null,
    onTime: null,
    edited: [],
    runId: null,
    madeAt: scope.instant,
  };
}

/** The set of a template, made once by hand. */
export function startTemplate(scope: Scope, templateId: string, input: StartInput): Promise<Made> {
  return scope.transaction(async (tx) => {
    const template = await tx.one(Template, templateId, 'template');
    if (template.archivedAt !== null) throw notNow('This template is archived: bring it back before starting it.');
    const { client, asset } = await subjectOf(tx, input);
    const people = await tx.peopleNames();
    const parts = new Map(setParts(template).map((part, index) => [part.key, { ...part, index }]));
    const setId = tx.newId();
    const ids: string[] = [];
    const number = await countStarted(tx, template.id, client?.id ?? null, asset?.id ?? null);
    for (const [i, chosen] of input.parts.entries()) {
      const part = parts.get(chosen.step);
      if (!part)
        throw invalid([{ path: `parts.${i}.step`, message: 'The template has no such step any more. Look again.' }]);
      const { assigneeId } = chosen;
      if (assigneeId !== null && !people.has(assigneeId))
        throw invalid([{ path: `parts.${i}.assigneeId`, message: 'There is no such person here.' }]);
      await mustReceive(tx, assigneeId, { path: `parts.${i}.assigneeId` });
      const id = tx.newId();
      await insertTasks(tx, [
        {
          ...handMade(tx, chosen.on, chosen.on),
          id,
          templateId: template.id,
          templateVersion: template.version,
          setId,
          setOn: input.on,
          setIndex: part.index,
          stepKey: part.key,
          title:
            fillTitle(part.titlePattern, {
              on: dayOfIso(input.on),
              client: client?.name ?? null,
              asset: asset?.name ?? null,
              person: assigneeId === null ? null : (people.get(assigneeId) ?? null),
              number,
              type: template.workType,
            }) || template.name,
          instructions: template.instructions,
          brief: [part.note, input.special].filter((text) => text.trim() !== '').join('\n'),
          links: template.links,
          priority: template.priority,
          workType: template.workType,
          signOff: part.signOff,
          finishWithLast: template.finishWithLast,
          numbered: template.numbered,
          checkLines: part.checkLines,
          demands: part.demands,
          estimateMinutes: part.estimateMinutes,
          clientId: client?.id ?? null,
          assetId: asset?.id ?? null,
          assigneeId,
          // What somebody is named for is theirs; else it is offered as its step says.
          offeredTo: assigneeId === null ? offerFor(partOffered(part, template.assignment), client?.id ?? null) : null,
          startTime: chosen.startTime,
          dueTime: chosen.dueTime,
        },
      ]);
      ids.push(id);
    }
    return made(tx, ids);
  });
}

/** What is for a client where there is none is nobody's. */
const offerFor = (offer: Offer | null, clientId: string | null): Offer | null =>
  offer?.of === 'client' && clientId === null ? null : offer;

/** Which one of its kind it is: those started by hand for the same client and asset, counted on. */
async function countStarted(scope: Scope, templateId: string, clientId: string | null, assetId: string | null) {
  const [before] = await scope.sql<{ count: number }>(
    `select count(*) as count from task where workspace_id = $1 and template_id = $2 and schedule_id is null and step_key = ''
       and client_id is not distinct from $3 and asset_id is not distinct from $4`,
    [templateId, clientId, assetId],
  );
  return (before?.count ?? 0) + 1;
}

/** A task of no template, which says nothing but what it is, when and whose. */
export function plainTask(
  scope: Scope,
  { on, dueOn, ...said }: Omit<CaptureInput, 'clientId' | 'assetId'> & Pick<NewTask, 'clientId' | 'assetId'>,
): NewTask {
  return {
    ...handMade(scope, on, dueOn),
    id: scope.newId(),
    templateId: null,
    templateVersion: null,
    setId: scope.newId(),
    setOn: on,
    setIndex: 0,
    stepKey: MAIN_PART,
    instructions: '',
    brief: '',
    links: [],
    priority: 'normal',
    workType: null,
    signOff: null,
    finishWithLast: false,
    numbered: false,
    checkLines: [],
    demands: [],
    ...said,
  };
}

/** A task from one line. */
export function captureTask(scope: Scope, input: CaptureInput): Promise<Made> {
  return scope.transaction(async (tx) => {
    const { client, asset } = await subjectOf(tx, input);
    refuseFarDays(tx, { on: input.on, dueOn: input.dueOn });
    if (input.dueOn < input.on) throw invalid([{ path: 'dueOn', message: 'It is due before its day.' }]);
    await mustReceive(tx, input.assigneeId);
    const task = plainTask(tx, { ...input, clientId: client?.id ?? null, assetId: asset?.id ?? null });
    await insertTasks(tx, [task]);
    return made(tx, [task.id]);
  });
}

async function made(scope: Scope, ids: readonly string[]): Promise<Made> {
  const [first] = ids;
  if (first === undefined) throw new Error('A set made by hand has at least one task.');
  const changeId = await scope.record('task', first, 'made by hand', { tasks: { from: null, to: ids } });
  await scope.tell('tasks', 'templates');
  return { tasks: await taskLines(scope, ids), changeId };
}

async function subjectOf(scope: Scope, { clientId, assetId }: Pick<StartInput, 'clientId' | 'assetId'>) {
  const asset = assetId === null ? null : await scope.one(Asset, assetId, 'asset');
  if (asset && clientId !== null && asset.clientId !== clientId)
    throw invalid([{ path: 'assetId', message: `${asset.name} does not belong to that client.` }]);
  const ofClient = clientId ?? asset?.clientId ?? null;
  return { asset, client: ofClient === null ? null : await scope.one(Client, ofClient, 'client') };
}

/** Takes a set made by hand back, but for what somebody has worked on since. */
export async function removeHandMade(scope: Scope, ids: readonly string[]): Promise<string> {
  const there = await scope.sql<{ id: string; title: string; assigneeId: string | null; isTouched: boolean }>(
    `select id, title, assignee_id as "assigneeId", (state <> 'open' or ${IS_TOUCHED}) as "isTouched"
     from task where workspace_id = $1 and id = any($2::uuid[]) for no key update`,
    [ids],
  );
  const going = there.filter(({ isTouched }) => !isTouched);
  if (there.length === 0) throw changedMeanwhile('Those tasks are gone already.');
  if (going.length === 0) throw notNow('Somebody has worked on it already, so it stays.');
  if (scope.person === null) throw forbidden('Sign in to undo that.');
  await removeTasks(
    scope,
    going.map(({ id }) => id),
  );
  await scope.tell('tasks', 'templates');
  const stays = there.length - going.length;
  const gone =
    going.length === 1 ? `“${going[0]?.title}” is gone again.` : `${plural(going.length, 'task')} gone again.`;
  return stays === 0 ? gone : `${gone} ${plural(stays, 'task')} stay: somebody has worked on them.`;
}
