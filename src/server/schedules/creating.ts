import { In } from 'typeorm';
import type { Impact, ScheduleInput } from '../../contract/index.ts';
import { Asset, Client } from '../clients/index.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
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
import { peopleById, problemsOfPeople } from './people-of-input.ts';
import { oneSchedule } from './service.ts';
import { UNSEEN_ONLY } from './sync.ts';
import { impactOfTogether, insertSchedules, type NewSchedule, saveTogether, type Together } from './together.ts';

const OF_NO_PLAN = { onPlanId: null, planItem: null };

export function createSchedule(scope: Scope, input: ScheduleInput): Promise<SavedSchedule> {
  return scope.transaction(async (tx) => {
    await checkInput(tx, input, null);
    const set = stored(input);
    const [id = ''] = await insertSchedules(tx, [newSchedule(input)]);
    const tasks = await syncSchedules(tx, [id], UNSEEN_ONLY);
    await tx.record('schedule', id, 'created', fieldChanges({}, set));
    await tx.tell('schedules', 'tasks', 'templates');
    return { schedule: await oneSchedule(tx, id), tasks, changeId: null };
  });
}

/** A new schedule as it is written. */
export const newSchedule = (input: ScheduleInput): NewSchedule => ({ ...stored(input), ...OF_NO_PLAN });

/** Many new ones that differ in whom and what they are for, checked. */
async function alike(scope: Scope, inputs: readonly ScheduleInput[]): Promise<Together> {
  const [first] = inputs;
  if (!first) return { writes: [], added: [] };
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
  return { writes: [], added: inputs.map(newSchedule) };
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
    const { tasks, entries } = await saveTogether(tx, await alike(tx, await inputs(tx)), UNSEEN_ONLY);
    const changeId = await tx.recordTogether(entries);
    await tx.tell('schedules', 'tasks', 'templates');
    return { tasks, changeId };
  });
}

export function impactOfCreating(
  scope: Scope,
  inputs: (scope: Scope) => Promise<readonly ScheduleInput[]>,
): Promise<Impact> {
  return scope.rehearse(async (tx) => impactOfTogether(tx, await alike(tx, await inputs(tx)), UNSEEN_ONLY));
}
