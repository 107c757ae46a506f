import type { OwnOfClient } from '../../contract/index.ts';
import { type CivilDay, type PlanItem, scheduleOfItem, untilDay } from '../../core/index.ts';
import type { NewSchedule, Schedule } from '../schedules/index.ts';
import type { AssetOfClient, Member } from './stored/index.ts';
import { storedParts } from './stored.ts';

/** The part of a client's work that one schedule holds: an item, of one of the assets where it is about those. */
export interface Place {
  readonly item: PlanItem;
  readonly asset: AssetOfClient | null;
}

/** The schedules that an item comes to for a client: one, or one for each of the assets. */
export function placesOf(items: readonly PlanItem[], assets: readonly AssetOfClient[]): Place[] {
  return items.flatMap((item): Place[] =>
    item.each === 'client' ? [{ item, asset: null }] : assets.map((asset) => ({ item, asset })),
  );
}

/** What of an item is different for a client: of the asset itself, or else of all of it. */
export function ownOf(own: readonly OwnOfClient[], { item, asset }: Place): OwnOfClient | null {
  const ofItem = own.filter((one) => one.item === item.key);
  return (
    ofItem.find(({ assetId = null }) => asset !== null && assetId === asset.id) ??
    ofItem.find(({ assetId = null }) => assetId === null) ??
    null
  );
}

/** An item as a client has it. */
export function itemWith(item: PlanItem, own: OwnOfClient | null): PlanItem {
  return {
    ...item,
    ...(own?.recurrence ? { recurrence: { ...own.recurrence, start: item.recurrence.start } } : {}),
    ...(own?.assignment ? { assignment: own.assignment } : {}),
    ...(own?.estimateMinutes === undefined ? {} : { estimateMinutes: own.estimateMinutes }),
    ...(own?.stepMinutes === undefined ? {} : { stepMinutes: { ...item.stepMinutes, ...own.stepMinutes } }),
  };
}

/** The schedule of one place for a client who is on the plan from a day. */
export function newSchedule(
  { id, clientId, untilOn }: Pick<Member, 'id' | 'clientId' | 'untilOn'>,
  { item, asset }: Place,
  joins: CivilDay,
): NewSchedule {
  return {
    ...{ templateId: item.templateId, clientId, assetId: asset?.id ?? null, onPlanId: id, planItem: item.key },
    ...{ assignment: item.assignment, overlap: item.overlap, pauses: [], exceptions: [] },
    ...storedParts(untilDay(scheduleOfItem(item, joins), untilOn)),
  };
}

/** The schedules of items for a client, but for those that are left out. */
export function newSchedules(
  member: Pick<Member, 'id' | 'clientId' | 'untilOn' | 'leftOut'>,
  items: readonly PlanItem[],
  assets: readonly AssetOfClient[],
  joins: CivilDay,
  own: readonly OwnOfClient[] = [],
): NewSchedule[] {
  return placesOf(items, assets)
    .filter(({ item, asset }) => !isLeftOut(member.leftOut, item.key, asset?.id ?? null))
    .map((place) => newSchedule(member, { ...place, item: itemWith(place.item, ownOf(own, place)) }, joins));
}

/** Places without a schedule that nobody has left out: of an asset that came later, or whose schedule was deleted. */
export function lackingPlaces(
  items: readonly PlanItem[],
  assets: readonly AssetOfClient[],
  leftOut: Member['leftOut'],
  schedules: readonly Pick<Schedule, 'planItem' | 'assetId'>[],
): Place[] {
  return placesOf(items, assets).filter(
    ({ item, asset }) =>
      !isLeftOut(leftOut, item.key, asset?.id ?? null) &&
      !schedules.some(({ planItem, assetId }) => planItem === item.key && assetId === (asset?.id ?? null)),
  );
}

export function isLeftOut(
  leftOut: readonly { readonly item: string; readonly assetId: string | null }[],
  key: string,
  assetId: string | null,
): boolean {
  return leftOut.some((one) => one.item === key && (one.assetId === null || one.assetId === assetId));
}
