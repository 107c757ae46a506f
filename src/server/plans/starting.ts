import type { PlanStart, StartedForClient } from '../../contract/index.ts';
import { dayOfIso, fillTitle, isoOfDay, startedSet } from '../../core/index.ts';
import type { Client } from '../clients/index.ts';
import { invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { startTemplate } from '../tasks/index.ts';
import { Template } from '../templates/stored/index.ts';
import type { AssetOfClient } from './stored/index.ts';

/** A client for whom a set is started, with what is theirs: where that is one thing, the set is about it. */
export interface Starting {
  readonly client: Pick<Client, 'id' | 'name' | 'usualPersonId'>;
  readonly assets: readonly AssetOfClient[];
}

/** The set of a template as it is started by hand for each client: whoever looks after the client has it. */
async function setOf(scope: Scope, { templateId, on, without }: PlanStart) {
  const template = await scope.one(Template, templateId, 'template');
  if (template.archivedAt !== null) throw notNow('This template is archived: bring it back before starting it.');
  const calendar = await scope.calendar();
  const parts = (assigneeId: string | null) =>
    startedSet(template, dayOfIso(on), calendar, assigneeId).filter(({ part }) => !without.includes(part.key));
  if (parts(null).length === 0)
    throw invalid([{ path: 'start.without', message: 'Leave at least one task in the set.' }]);
  return { template, parts };
}

/** Starts it for all of them; gives the changes by which each is undone. */
export async function startFor(
  scope: Scope,
  start: PlanStart | null,
  clients: readonly Starting[],
): Promise<{ changeIds: string[]; tasks: number }> {
  if (start === null) return { changeIds: [], tasks: 0 };
  const { parts } = await setOf(scope, start);
  const changeIds: string[] = [];
  let tasks = 0;
  for (const { client, assets } of clients) {
    const made = await startTemplate(scope, start.templateId, {
      ...{ on: start.on, clientId: client.id, assetId: onlyOf(assets)?.id ?? null, special: '' },
      assigneeId: client.usualPersonId,
      parts: parts(client.usualPersonId).map(({ part, on, assigneeId }) => ({
        ...{ step: part.key, on: isoOfDay(on), startTime: part.startTime, dueTime: part.dueTime, assigneeId },
      })),
    });
    changeIds.push(made.changeId);
    tasks += made.tasks.length;
    await scope.did(1);
  }
  return { changeIds, tasks };
}

const onlyOf = (assets: readonly AssetOfClient[]): AssetOfClient | undefined =>
  assets.length === 1 ? assets[0] : undefined;

/** What would be started for one client or another, before anything is made. */
export async function setStarted(
  scope: Scope,
  start: PlanStart | null,
): Promise<(starting: Starting) => (StartedForClient & { readonly assigneeId: string | null })[]> {
  if (start === null) return () => [];
  const { template, parts } = await setOf(scope, start);
  const names = await scope.peopleNames();
  const nameOf = (id: string | null) => (id === null ? null : (names.get(id) ?? null));
  return ({ client, assets }) =>
    parts(client.usualPersonId)
      .map(({ part, on, assigneeId }) => ({
        ...{ step: part.key, on: isoOfDay(on), minutes: part.estimateMinutes, assigneeId, who: nameOf(assigneeId) },
        title:
          fillTitle(part.titlePattern, {
            ...{ on: dayOfIso(start.on), client: client.name, asset: onlyOf(assets)?.name ?? null },
            ...{ person: nameOf(assigneeId), number: null, type: template.workType },
          }) || template.name,
      }))
      .sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
}
