import { In } from 'typeorm';
import type { Impact, ScheduleInput, WallAddition } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { Asset } from '../clients/index.ts';
import type { Scope } from '../platform/scope.ts';
import { createSchedules, impactOfCreating } from '../schedules/index.ts';
import { Template } from '../templates/stored/index.ts';

/** The same schedule for each of some rows, which one undo takes out again. */
export async function addToRows(
  scope: Scope,
  input: WallAddition,
): Promise<{ schedules: number; made: number; changeId: string }> {
  const { tasks, changeId } = await createSchedules(scope, (tx) => inputsOf(tx, input));
  return { schedules: input.keys.length, made: tasks.made, changeId };
}

export const impactOfAdding = (scope: Scope, input: WallAddition): Promise<Impact> =>
  impactOfCreating(scope, (tx) => inputsOf(tx, input));

/** Who does it is as the template says, unless rows are people. */
async function inputsOf(
  scope: Scope,
  { rows, keys, templateId, recurrence, timing }: WallAddition,
): Promise<ScheduleInput[]> {
  const { assignment } = await scope.one(Template, templateId, 'template');
  const clientOf = new Map(
    rows === 'asset' ? (await scope.find(Asset, { id: In([...keys]) })).map(({ id, clientId }) => [id, clientId]) : [],
  );
  return keys.map((key) => ({
    templateId,
    clientId: rows === 'client' ? key : (clientOf.get(key) ?? null),
    assetId: rows === 'asset' ? key : null,
    assignment: rows === 'person' ? givenTo(key) : assignment,
    recurrence,
    timing,
    overlap: { kind: 'add' },
    ...{ pauses: [], exceptions: [], revisions: [] },
  }));
}
