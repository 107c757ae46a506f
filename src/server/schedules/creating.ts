import { In } from 'typeorm';
import type { Impact, ScheduleInput } from '../../contract/index.ts';
import { Asset, Client } from '../clients/index.ts';
import type { FieldChanges } from '../platform/changes/entity.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { watched } from '../tasks/stored/index.ts';
import { Template } from '../templates/stored/index.ts';
import {
  checkInput,
  mustBeInUse,
  rulesOf,
  type SavedSchedule,
  type SavedSchedules,
  stored,
  syncSchedules,
} from './changing.ts';
import { impactOf } from './impact.ts';
import { peopleById, problemsOfPeople } from './people-of-input.ts';
import { scheduleRows } from './schedule-row.ts';
import { oneSchedule } from './service.ts';
import { UNSEEN_ONLY } from './sync.ts';
import { insertSchedules } from './together.ts';

const OF_NO_PLAN = { onPlanId: null, planItem: null };

export function createSchedule(scope: Scope, input: ScheduleInput): Promise<SavedSchedule> {
  return scope.transaction(async (tx) => {
    await checkInput(tx, input, null);
    const set = stored(input);
    const [id = ''] = await insertSchedules(tx, [{ ...set, ...OF_NO_PLAN }]);
    const tasks = await syncSchedules(tx, [id], UNSEEN_ONLY);
    await tx.record('schedule', id, 'created', fieldChanges({}, set));
    await tx.tell('schedules', 'tasks', 'templates');
    return { schedule: await oneSchedule(tx, id), tasks, changeId: null };
  });
}

/** Many new ones that differ in whom and what they are for, written without their tasks; gives their ids. */
async function insertAlike(scope: Scope, inputs: readonly ScheduleInput[]): Promise<string[]> {
  const [first] = inputs;
  if (!first) return [];
  await scope.one(Template, first.templateId, 'template');
  const idsOf = (field: 'clientId' | 'assetId') => [...new Set(inputs.flatMap((input) => input[field] ?? []))];
  const clients = new Map((await scope.find(Client, { id: In(idsOf('clientId')) })).map((one) => [one.id, one]));
  const assets = new Map((await scope.find(Asset, { id: In(idsOf('assetId')) })).map((one) => [one.id, one]));
  for (const { clientId, assetId } of inputs) {
    const [client, asset] = [clients.get(clientId ?? ''), assets.get(assetId ?? '')];
    if (clientId !== null && !client) throw notFound('client');
    if (assetId !== null && (!asset || asset.clientId !== clientId)) throw notFound('asset');
    if (client) mustBeInUse(client, 'keys');
    if (asset) mustBeInUse(asset, 'keys');
  }
  const people = await peopleById(scope);
  const problems = [
    ...inputs.flatMap((input) => problemsOfPeople(scope, input, people, null)),
    ...rulesOf(first, await scope.calendar(), scope.now.day),
  ];
  if (problems.length > 0) throw invalid(problems.slice(0, 1));
  return insertSchedules(
    scope,
    inputs.map((input) => ({ ...stored(input), ...OF_NO_PLAN })),
  );
}

/**
 * Makes several schedules in one go, of one template and rule, which one undo takes out again.
 * @param inputs alike but for their client, their asset and who does it
 */
export function createSchedules(
  scope: Scope,
  inputs: (scope: Scope) => Promise<readonly ScheduleInput[]>,
): Promise<SavedSchedules> {
  return scope.transaction(async (tx) => {
    const ids = await insertAlike(tx, await inputs(tx));
    const { value: tasks, watchId } = await watched(tx, () => syncSchedules(tx, ids, UNSEEN_ONLY));
    // Undone, each is deleted as of now; brought back, it stands as any other.
    const fields: FieldChanges = { deletedAt: { from: tx.instant.toISOString(), to: null } };
    const changeId = await tx.recordTogether(
      ids.map((id) => ({ subject: 'schedule', subjectId: id, action: 'created', fields, watchId })),
    );
    await tx.tell('schedules', 'tasks', 'templates');
    return { tasks, changeId };
  });
}

export function impactOfCreating(
  scope: Scope,
  inputs: (scope: Scope) => Promise<readonly ScheduleInput[]>,
): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    const ids = await insertAlike(tx, await inputs(tx));
    return impactOf(tx, await scheduleRows(tx, { ids }), new Map(), UNSEEN_ONLY);
  });
}
