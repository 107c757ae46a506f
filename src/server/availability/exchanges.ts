import type { LeaveExchange } from '../../contract/index.ts';
import {
  type AssignmentRule,
  askedOn,
  dayOfIso,
  type Exchange,
  exchangesOf,
  isoOfDay,
  type Swap,
  ticketsOfHolder,
  type WorkedTurn,
} from '../../core/index.ts';
import type { HeldExchange, Leave } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';
import { partsOf, rewriteSchedules, sayTurn, scheduleRows, turnsOfSchedule, turnWith } from '../schedules/index.ts';
import { everybody, type Span } from './following.ts';

/** Turns that a leave has given to others for later ones of theirs. */
export interface Exchanged {
  readonly held: readonly HeldExchange[];
  readonly entries: Awaited<ReturnType<typeof rewriteSchedules>>;
  /** The days of all turns that have changed hands. */
  readonly days: readonly Span[];
  /** As they are told before anything is saved. */
  readonly told: LeaveExchange[];
  /** Exchanges that stay although the leave is gone. */
  readonly kept: number;
}

export const NOT_EXCHANGED: Exchanged = { held: [], entries: [], days: [], told: [], kept: 0 };

/**
 * Writes into the turns what somebody who is away gives and takes for it, where that was chosen for the leave; what is made and
 * shows follows with the leave itself. The leave stands already.
 */
export async function exchangeTurns(
  scope: Scope,
  { personId, fromOn, toOn, cover }: Pick<Leave, 'personId' | 'fromOn' | 'toOn' | 'cover'>,
): Promise<Exchanged> {
  if (cover?.turns !== 'exchange') return NOT_EXCHANGED;
  const [from, to] = [dayOfIso(fromOn), dayOfIso(toOn)];
  const [people, calendar, names] = [await everybody(scope), await scope.calendar(), await scope.peopleNames()];
  const found = new Map<string, readonly Exchange[]>();
  const told: LeaveExchange[] = [];
  for (const row of await scheduleRows(scope, { ids: await inTurnWith(scope, personId) })) {
    const turns = await turnsOfSchedule(scope, row, to);
    if (turns === null) continue;
    const tickets = ticketsOfHolder(partsOf(row));
    const { exchanges, without } = exchangesOf(turns.spans, personId, {
      ...{ today: scope.now.day, from, to, people },
      askedOf: (day) => askedOn(day, calendar, tickets),
    });
    if (exchanges.length > 0) found.set(row.id, exchanges);
    const say = (missed: WorkedTurn, taken: WorkedTurn | null): LeaveExchange => ({
      ...{ scheduleId: row.id, work: row.templateName, about: row.assetName ?? row.clientName },
      missed: sayTurn(missed),
      taken: taken && { ...sayTurn(taken), person: { id: taken.personId, name: names.get(taken.personId) ?? '' } },
    });
    told.push(
      ...exchanges.map(({ missed, taken }) => say(missed, taken)),
      ...without.map((missed) => say(missed, null)),
    );
  }
  const swapsOf = (id: string) =>
    (found.get(id) ?? []).map(
      ({ missed, taken }): Swap => ({ one: isoOfDay(missed.first), other: isoOfDay(taken.first) }),
    );
  const entries = await rewriteSchedules(scope, [...found.keys()], 'turns swapped', ({ id, assignment }) => ({
    assignment: withSwaps(assignment, (swaps) => [...swaps, ...swapsOf(id)]),
  }));
  return {
    held: [...found.keys()].flatMap((scheduleId) => swapsOf(scheduleId).map((swap) => ({ scheduleId, ...swap }))),
    entries,
    days: [...found.values()].flat().flatMap(({ missed, taken }) => [spanOfTurn(missed), spanOfTurn(taken)]),
    kept: 0,
    told: told.sort((a, b) => a.missed.first.localeCompare(b.missed.first)),
  };
}

/**
 * Takes such exchanges out of the turns again, once the leave is gone. What has begun by now stays exchanged, and so does what
 * others have swapped since.
 */
export async function giveBackTurns(scope: Scope, held: readonly HeldExchange[]): Promise<Exchanged> {
  const { day: today } = scope.now;
  const back = new Map<string, HeldExchange[]>();
  const days: Span[] = [];
  for (const row of await scheduleRows(scope, { ids: [...new Set(held.map(({ scheduleId }) => scheduleId))] })) {
    const ofRow = held.filter(({ scheduleId }) => scheduleId === row.id);
    const last = Math.max(...ofRow.map(({ other }) => dayOfIso(other)));
    const turns = await turnsOfSchedule(scope, row, last);
    if (turns === null) continue;
    for (const one of ofRow) {
      const both = [one.one, one.other].flatMap((date) => turnWith(turns.spans, dayOfIso(date)) ?? []);
      const spans = both.map(spanOfTurn);
      const isTouched = (date: string) =>
        both.some(({ first, last }) => first <= dayOfIso(date) && dayOfIso(date) <= last);
      const at = turns.turns.swaps.findIndex((swap) => isSameSwap(swap, one));
      const isSwappedSince = turns.turns.swaps
        .slice(at + 1)
        .some(({ one, other }) => isTouched(one) || isTouched(other));
      if (at < 0 || both.length < 2 || isSwappedSince || spans.some(({ from }) => from < today)) continue;
      back.set(row.id, [...(back.get(row.id) ?? []), one]);
      days.push(...spans);
    }
  }
  const entries = await rewriteSchedules(scope, [...back.keys()], 'turns swapped', ({ id, assignment }) => ({
    assignment: withSwaps(assignment, (swaps) =>
      swaps.filter((swap) => !(back.get(id) ?? []).some((one) => isSameSwap(swap, one))),
    ),
  }));
  const given = [...back.values()].reduce((sum, ofRow) => sum + ofRow.length, 0);
  return { ...NOT_EXCHANGED, entries, days, kept: held.length - given };
}

const isSameSwap = (swap: Swap, held: Swap): boolean => swap.one === held.one && swap.other === held.other;

function withSwaps(rule: AssignmentRule, change: (swaps: readonly Swap[]) => readonly Swap[]): AssignmentRule {
  if (rule.kind !== 'inTurn') return rule;
  return { ...rule, turns: { ...rule.turns, swaps: change(rule.turns.swaps) } };
}

/** From the first to the last day on which any of it is worked, or was said to be. */
const spanOfTurn = ({ first, last, days }: WorkedTurn): Span => ({
  from: Math.min(first, ...days),
  to: Math.max(last, ...days),
});

/** Schedules whose turns somebody has a place in. */
async function inTurnWith(scope: Scope, personId: string): Promise<readonly string[]> {
  const rows = await scope.sql<{ id: string }>(
    `select id from schedule where workspace_id = $1 and deleted_at is null and assignment->>'kind' = 'inTurn'
       and jsonb_path_exists(assignment, '$.turns.rosters[*].people[*] ? (@ == $id)', jsonb_build_object('id', $2::text))
     order by id`,
    [personId],
  );
  return rows.map(({ id }) => id);
}
