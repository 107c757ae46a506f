import { MoreThanOrEqual } from 'typeorm';
import type { Leave as LeaveAnswer, LeaveInput } from '../../contract/index.ts';
import {
  dayOfIso,
  isoOfDay,
  type LeaveCover,
  type People,
  sayDay,
  type WorkingCalendar,
  workedDays,
} from '../../core/index.ts';
import { Leave } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { changedMeanwhile, forbidden, invalid, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { watched } from '../tasks/stored/index.ts';
import { type Exchanged, exchangeTurns, giveBackTurns, NOT_EXCHANGED } from './exchanges.ts';
import { everybody, followPeople, type Span } from './following.ts';

export interface SavedLeave {
  readonly leave: LeaveAnswer | null;
  readonly changeId: string;
  readonly exchangesKept: number;
}

/** Leave that ended longer ago is told only where it is asked for by its days. */
const TOLD_DAYS_BEFORE = 366;

export async function listLeave(
  scope: Scope,
  { person, from }: { readonly person?: string | undefined; readonly from?: string | undefined },
): Promise<LeaveAnswer[]> {
  const since = from ?? isoOfDay(scope.now.day - TOLD_DAYS_BEFORE);
  const found = await scope.find(Leave, {
    toOn: MoreThanOrEqual(since),
    ...(person === undefined ? {} : { personId: person }),
  });
  return described(
    scope,
    found.sort((a, b) => a.fromOn.localeCompare(b.fromOn) || (a.id < b.id ? -1 : 1)),
  );
}

async function described(scope: Scope, all: readonly Leave[]): Promise<LeaveAnswer[]> {
  const here = await everybody(scope);
  const names = await scope.peopleNames();
  const calendar = await scope.calendar();
  return eachInTurn(all, (leave) => {
    const { id, version, personId, fromOn, toOn, half, cover, state, note, askedAt, decidedBy } = leave;
    const { days } = daysOfLeave(leave, here, calendar);
    return {
      ...{ id, version, personId, half, cover, state, note, days },
      from: fromOn,
      to: toOn,
      askedAt: scope.moment(askedAt),
      decidedBy: decidedBy === null ? null : (names.get(decidedBy) ?? null),
      mayTakeBack: mayTakeBack(scope, leave),
    };
  });
}

export const spanOf = ({ fromOn, toOn }: Pick<Leave, 'fromOn' | 'toOn'>): Span => ({
  from: dayOfIso(fromOn),
  to: dayOfIso(toOn),
});

/** Days of it that would have been worked, and holidays among them. */
export function daysOfLeave(leave: Leave, here: People, calendar: WorkingCalendar) {
  const half = leave.half === null ? {} : { half: leave.half };
  return workedDays(
    here.one(leave.personId),
    { ...spanOf(leave), ...half },
    (day) => calendar.holidayName(day) !== undefined,
  );
}

/** Whoever decides may take anything back; others what they have asked for and nobody has given yet. */
function mayTakeBack(scope: Scope, { personId, state }: Leave): boolean {
  return scope.mayAll('leave') || (personId === scope.person?.id && state === 'asked');
}

/** Enters leave of anybody, or asks for one's own. */
export function enterLeave(scope: Scope, personId: string, input: LeaveInput): Promise<SavedLeave> {
  return scope.transaction(async (tx) => {
    const { leave, watchId, exchanged } = await writeNew(tx, personId, input);
    const action = leave.state === 'given' ? 'entered' : 'asked';
    const entry = { subject: 'leave', subjectId: leave.id, action, fields: fieldChanges({}, leave), watchId } as const;
    return told(tx, leave, await tx.recordTogether([entry, ...exchanged.entries]));
  });
}

/** The same within another change: the row, and what follows from it. */
export async function writeNew(
  scope: Scope,
  personId: string,
  { from, to, half, note, cover }: LeaveInput,
): Promise<{ readonly leave: Leave } & Followed> {
  const person = await scope.locked(Person, personId, 'person');
  const isDecided = scope.mayAll('leave');
  if (!isDecided && personId !== scope.person?.id) throw forbidden('Only a manager can enter leave of others.');
  if (!isDecided && cover !== null) throw forbidden('Whoever gives the leave chooses who takes over.');
  await checkCover(scope, personId, cover);
  await refuseTwice(scope, person, { fromOn: from, toOn: to });
  const before = await everybody(scope);
  const leave = await scope.insert(Leave, {
    id: scope.newId(),
    version: 1,
    personId,
    fromOn: from,
    toOn: to,
    half,
    cover,
    exchanges: null,
    state: isDecided ? 'given' : 'asked',
    note,
    askedAt: scope.instant,
    decidedBy: isDecided ? (scope.person?.id ?? null) : null,
    decidedAt: isDecided ? scope.instant : null,
  });
  if (!isDecided) return { leave, watchId: null, exchanged: NOT_EXCHANGED };
  return { leave, ...(await holdLeave(scope, leave, before)) };
}

/** What follows from leave that holds, or holds no more. */
interface Followed {
  readonly watchId: string | null;
  readonly exchanged: Exchanged;
}

/** Leave that has just begun to hold: turns change hands where that was chosen, and work goes to whoever has it now. */
export async function holdLeave(scope: Scope, leave: Leave, before: People): Promise<Followed> {
  const exchanged = await exchangeTurns(scope, leave);
  if (exchanged.held.length > 0) {
    await scope.save(Leave, leave.id, { exchanges: exchanged.held });
    leave.exchanges = exchanged.held;
  }
  return { exchanged, watchId: await follow(scope, leave, before, exchanged) };
}

/** Whoever is to take over is somebody else of this workspace. */
export async function checkCover(scope: Scope, personId: string, cover: LeaveCover | null): Promise<void> {
  const people = await scope.peopleNames();
  const wrong = Object.entries(cover ?? {}).flatMap(([kind, choice]) => {
    if (choice === null || typeof choice === 'string') return [];
    const isSomebody = people.has(choice.personId) && choice.personId !== personId;
    return isSomebody ? [] : [{ path: `cover.${kind}`, message: 'Choose somebody else who works here.' }];
  });
  if (wrong.length > 0) throw invalid(wrong);
}

/** Nobody is away twice on a day: which of the two would hold could not be told. */
export async function refuseTwice(
  scope: Scope,
  { id, name }: Person,
  { fromOn: from, toOn: to }: Pick<Leave, 'fromOn' | 'toOn'>,
): Promise<void> {
  const others = await scope.find(Leave, { personId: id });
  const other = others.find(({ state, fromOn, toOn }) => state !== 'refused' && fromOn <= to && toOn >= from);
  if (!other) return;
  const day = (date: string) => sayDay(dayOfIso(date), scope.now.day);
  const days =
    other.fromOn === other.toOn ? `on ${day(other.fromOn)}` : `from ${day(other.fromOn)} to ${day(other.toOn)}`;
  throw invalid([
    {
      path: 'from',
      message: `${name} ${other.state === 'asked' ? 'has asked for leave' : 'is away'} ${days} already: change or take back that one.`,
    },
  ]);
}

/** Gives or refuses what somebody has asked for. */
export function decideLeave(
  scope: Scope,
  id: string,
  {
    version,
    state,
    cover,
  }: { readonly version: number; readonly state: 'given' | 'refused'; readonly cover: LeaveCover | null },
): Promise<SavedLeave> {
  return scope.transaction(async (tx) => {
    const before = await seenLeave(tx, id, version);
    if (before.state !== 'asked') throw notNow('That is decided already.');
    const people = await everybody(tx);
    await checkCover(tx, before.personId, cover);
    const set = { state, cover, decidedBy: tx.person?.id ?? null, decidedAt: tx.instant };
    await tx.save(Leave, id, { ...set, version: version + 1 });
    const after = { ...before, ...set };
    const { watchId, exchanged } =
      state === 'given' ? await holdLeave(tx, after, people) : { watchId: null, exchanged: NOT_EXCHANGED };
    const fields = fieldChanges(before, { ...set, exchanges: after.exchanges });
    const entry = { subject: 'leave', subjectId: id, action: state, fields, watchId } as const;
    const changeId = await tx.recordTogether([entry, ...exchanged.entries]);
    return told(tx, await tx.one(Leave, id, 'leave'), changeId);
  });
}

/** Nobody is away by it any more; work that went to others comes back where they have not begun it. */
export function takeBackLeave(scope: Scope, id: string, version: number): Promise<SavedLeave> {
  return scope.transaction(async (tx) => {
    const before = await seenLeave(tx, id, version);
    if (!mayTakeBack(tx, before))
      throw forbidden(
        before.personId === tx.person?.id
          ? 'It is given already: ask a manager to take it back.'
          : 'Only a manager can take back leave of others.',
      );
    const people = await everybody(tx);
    await tx.sql('delete from leave where workspace_id = $1 and id = $2', [id]);
    const given = await giveBackTurns(tx, before.exchanges ?? []);
    const watchId = before.state === 'given' ? await follow(tx, before, people, given) : null;
    const row = { row: { from: before, to: null } };
    const entry = { subject: 'leave', subjectId: id, action: 'taken back', fields: row, watchId } as const;
    const changeId = await tx.recordTogether([entry, ...given.entries]);
    await tellLeave(tx);
    return { leave: null, changeId, exchangesKept: given.kept };
  });
}

async function seenLeave(scope: Scope, id: string, version: number): Promise<Leave> {
  const leave = await scope.locked(Leave, id, 'leave');
  if (leave.version !== version)
    throw changedMeanwhile('Someone else has changed this leave since you saw it. What it is now is shown.');
  return leave;
}

async function follow(scope: Scope, leave: Leave, before: People, { days }: Exchanged): Promise<string> {
  const { watchId } = await watched(scope, () =>
    followPeople(scope, [leave.personId], before, [spanOf(leave), ...days]),
  );
  return watchId;
}

async function told(scope: Scope, leave: Leave, changeId: string): Promise<SavedLeave> {
  await tellLeave(scope);
  const [answer] = await described(scope, [leave]);
  return { leave: answer ?? null, changeId, exchangesKept: 0 };
}

export const tellLeave = (scope: Scope) => scope.tell('workspace', 'tasks', 'schedules');
