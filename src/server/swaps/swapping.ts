import { In, MoreThanOrEqual } from 'typeorm';
import type { Swap as SwapAnswer, SwapDeed } from '../../contract/index.ts';
import { dayOfIso, type Swap, type TurnSpan } from '../../core/index.ts';
import { followShown } from '../availability/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { changedMeanwhile, forbidden, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  ownWrite,
  Schedule,
  type ScheduleRow,
  sayTurn,
  scheduleRows,
  TurnSwap,
  turnsOfSchedule,
  turnWith,
  UNSEEN_ONLY,
} from '../schedules/index.ts';
import { TaskRecord } from '../tasks/stored/index.ts';

interface SavedSwap {
  readonly swap: SwapAnswer;
  readonly changeId: string | null;
}

/** What was decided stays in sight for so long. */
const DECIDED_SHOWN_MS = 3 * 86_400_000;
const WAITING: TurnSwap['state'][] = ['asked', 'agreed'];

export async function listSwaps(scope: Scope): Promise<SwapAnswer[]> {
  const { person } = scope;
  if (person === null) return [];
  const since = new Date(scope.instant.getTime() - DECIDED_SHOWN_MS);
  const own = [{ askedBy: person.id }, { askedOf: person.id }];
  const found = await scope.find(
    TurnSwap,
    ...(own.flatMap((of) => [
      { ...of, state: In(WAITING) },
      { ...of, decidedAt: MoreThanOrEqual(since) },
    ]) as [object, ...object[]]),
    ...(scope.mayAll('swap') ? [{ state: 'agreed' as const }] : []),
  );
  return described(
    scope,
    found.sort((a, b) => a.gives.localeCompare(b.gives) || (a.id < b.id ? -1 : 1)),
  );
}

/** Asks whoever has another turn to swap it for that of a task. */
export function askSwap(
  scope: Scope,
  taskId: string,
  { takes, note }: { readonly takes: string; readonly note: string },
): Promise<SavedSwap> {
  return scope.transaction(async (tx) => {
    const { scheduleId, nominalDate } = await tx.one(TaskRecord, taskId, 'task');
    const me = tx.person?.id;
    if (scheduleId === null || nominalDate === null || me === undefined) throw notNow('That is nobody’s turn.');
    await tx.locked(Schedule, scheduleId, 'schedule');
    const { gives: mine, takes: theirs } = await bothTurns(tx, scheduleId, nominalDate, takes);
    if (mine.personId !== me) throw forbidden('Only whoever has the turn can ask to swap it.');
    if (theirs.personId === me) throw invalid([{ path: 'takes', message: 'That turn is yours already.' }]);
    const row = await tx.insert(TurnSwap, {
      ...{ id: tx.newId(), version: 1, scheduleId, gives: sayTurn(mine).first, takes: sayTurn(theirs).first, note },
      ...{ askedBy: me, askedOf: theirs.personId, state: 'asked', askedAt: tx.instant },
      ...{ decidedBy: null, decidedAt: null },
    });
    await refuseTwice(tx, row);
    return told(tx, row, null);
  });
}

export function decideSwap(
  scope: Scope,
  id: string,
  { version, deed }: { readonly version: number; readonly deed: SwapDeed },
): Promise<SavedSwap> {
  return scope.transaction(async (tx) => {
    const { scheduleId } = await tx.one(TurnSwap, id, 'swap');
    await tx.locked(Schedule, scheduleId, 'schedule');
    const swap = await tx.locked(TurnSwap, id, 'swap');
    if (swap.version !== version) throw changedMeanwhile('It has changed since you saw it. What it is now is shown.');
    if (!mayDo(tx, swap).includes(deed))
      throw WAITING.includes(swap.state)
        ? forbidden('That is for others to decide.')
        : notNow('That is decided already.');
    const isHeld = deed === 'give' || (deed === 'agree' && !(tx.workspace.swapsNeedNod && !tx.mayAll('swap')));
    const changeId = isHeld ? await hold(tx, swap) : null;
    const state = isHeld ? 'done' : STATE_AFTER[deed];
    const decided = WAITING.includes(state) ? {} : { decidedBy: tx.person?.id ?? null, decidedAt: tx.instant };
    const set = { version: version + 1, state, ...decided };
    await tx.save(TurnSwap, id, set);
    return told(tx, { ...swap, ...set }, changeId);
  });
}

const STATE_AFTER: Readonly<Record<SwapDeed, TurnSwap['state']>> = {
  agree: 'agreed',
  give: 'done',
  refuse: 'refused',
  withdraw: 'withdrawn',
};

/** Writes the swap into the turns: what nobody has seen follows, and what shows of the two as far as it is not begun. */
async function hold(scope: Scope, swap: TurnSwap): Promise<string> {
  const { scheduleId } = swap;
  const { gives, takes } = await bothTurns(scope, scheduleId, swap.gives, swap.takes);
  if (gives.personId !== swap.askedBy || takes.personId !== swap.askedOf)
    throw notNow('The turns are others’ by now: ask for a new swap.');
  const before = await scope.one(Schedule, scheduleId, 'schedule');
  const { assignment } = before;
  if (assignment.kind !== 'inTurn') throw notNow('It is no longer done in turn.');
  const added: Swap = { one: swap.gives, other: swap.takes };
  const turns = { ...assignment.turns, swaps: [...assignment.turns.swaps, added] };
  const days = [gives, takes].map(({ first, last }) => ({ from: first, to: last }));
  const entry = await ownWrite(scope, before, { assignment: { ...assignment, turns } }, UNSEEN_ONLY, {
    action: 'turns swapped',
    also: () => followShown(scope, scheduleId, [swap.askedBy, swap.askedOf], days),
  });
  const changeId = await scope.recordTogether([entry]);
  await scope.tell('schedules', 'tasks', 'templates');
  return changeId;
}

/** The two turns as they are now, which must both be to come. */
async function bothTurns(
  scope: Scope,
  scheduleId: string,
  gives: string,
  takes: string,
): Promise<{ readonly gives: TurnSpan; readonly takes: TurnSpan }> {
  const [row] = await scheduleRows(scope, { ids: [scheduleId] });
  const found = row && (await turnsOfSchedule(scope, row));
  if (!found) throw notNow('It is not done in turn, or can’t be told any more: there is nothing to swap.');
  const [one, other] = [gives, takes].map((date) => turnWith(found.spans, dayOfIso(date)));
  if (!one || !other) throw notNow('One of the two turns is not there any more.');
  if (Math.min(one.first, other.first) < scope.now.day) throw notNow('One of the two turns has begun.');
  return { gives: one, takes: other };
}

/** A turn is asked for by one at a time. */
async function refuseTwice(scope: Scope, swap: TurnSwap): Promise<void> {
  const others = await scope.find(TurnSwap, { scheduleId: swap.scheduleId, state: In(WAITING) });
  const isTaken = others.some(
    ({ id, gives, takes }) =>
      id !== swap.id && [gives, takes].some((date) => date === swap.gives || date === swap.takes),
  );
  if (isTaken) throw notNow('For one of the two turns a swap is asked for already: that must be decided first.');
}

/** What whoever looks may do with it. */
function mayDo(scope: Scope, { state, askedBy, askedOf }: TurnSwap): SwapDeed[] {
  const me = scope.person?.id;
  if (!WAITING.includes(state)) return [];
  const nods = scope.mayAll('swap');
  return [
    ...(state === 'asked' && askedOf === me ? (['agree'] as const) : []),
    ...(state === 'agreed' && nods ? (['give'] as const) : []),
    ...(askedOf === me || (state === 'agreed' && nods) ? (['refuse'] as const) : []),
    ...(askedBy === me ? (['withdraw'] as const) : []),
  ];
}

async function told(scope: Scope, row: TurnSwap, changeId: string | null): Promise<SavedSwap> {
  await scope.tell('people');
  const [swap] = await described(scope, [row]);
  if (!swap) throw new Error(`The swap ${row.id} can't be told.`);
  return { swap, changeId };
}

async function described(scope: Scope, swaps: readonly TurnSwap[]): Promise<SwapAnswer[]> {
  const names = await scope.peopleNames();
  const rows = await scheduleRows(scope, { ids: [...new Set(swaps.map(({ scheduleId }) => scheduleId))] });
  const turnsBy = new Map<string, Awaited<ReturnType<typeof turnsOfSchedule>>>();
  for (const row of rows) turnsBy.set(row.id, await turnsOfSchedule(scope, row));
  const rowBy = new Map(rows.map((row) => [row.id, row]));
  const person = (id: string) => ({ id, name: names.get(id) ?? '' });
  const told = await eachInTurn(swaps, (swap): SwapAnswer[] => {
    const row = rowBy.get(swap.scheduleId);
    const turns = turnsBy.get(swap.scheduleId);
    if (!row || (swap.state === 'done' && !holds(row, swap))) return [];
    const turn = (date: string) => {
      const found = turns && turnWith(turns.spans, dayOfIso(date));
      return found ? sayTurn(found) : { first: date, last: date, dates: 1 };
    };
    const { id, version, note, state, askedAt, decidedBy } = swap;
    return [
      {
        ...{ id, version, note, state, about: row.assetName ?? row.clientName },
        schedule: { id: row.id, name: row.templateName },
        ...{ asker: person(swap.askedBy), other: person(swap.askedOf) },
        ...{ gives: turn(swap.gives), takes: turn(swap.takes) },
        askedAt: scope.moment(askedAt),
        decidedBy: decidedBy === null ? null : (names.get(decidedBy) ?? null),
        may: mayDo(scope, swap),
      },
    ];
  });
  return told.flat();
}

/** Whether a swap that was given is still there: it may have been taken back since. */
function holds({ assignment }: ScheduleRow, { gives, takes }: TurnSwap): boolean {
  return (
    assignment.kind === 'inTurn' && assignment.turns.swaps.some(({ one, other }) => one === gives && other === takes)
  );
}
