import type { z } from 'zod';
import type { callEndpoints, ListedCall } from '../../contract/index.ts';
import { type CallBack, type CallStanding, dayOfIso, type Outcome, sayDate, standingAfter } from '../../core/index.ts';
import type { Change } from '../platform/changes/entity.ts';
import { fieldsBefore, isSame } from '../platform/changes/entity.ts';
import { changedMeanwhile, forbidden, invalid, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { toldCall } from './day.ts';
import { Call, CallList, keepStanding, lockedStanding, nextPlace } from './stored/index.ts';

type Input = z.output<(typeof callEndpoints)['rung']['body']>;
type Saved = Promise<{ call: ListedCall; changeId: string }>;

/** A call of one's own list, or of anybody's for whoever may do all work; held until the transaction ends. */
export async function lockedCall(
  scope: Scope,
  id: string,
  version: number,
): Promise<{ readonly call: Call; readonly list: CallList }> {
  const call = await scope.locked(Call, id, 'call');
  const list = await scope.one(CallList, call.listId, 'call list');
  if (list.personId !== scope.person?.id && !scope.mayAll('work'))
    throw forbidden('Only whoever the list is for says how its calls went.');
  if (call.version !== version)
    throw changedMeanwhile('Somebody else has said how this call went meanwhile: look at it once more.');
  if (call.state === 'off') throw notNow('It was taken off the list.');
  if (call.state === 'carried' || call.state === 'dropped')
    throw notNow(`This list is over: it was of ${sayDate(dayOfIso(call.listOn))}.`);
  return { call, list };
}

/** Says how a call ended. What follows from it is done at once; said once more, it takes the place of what was said before. */
export function saidOfCall(scope: Scope, id: string, { version, outcome: key, note, callBack }: Input): Saved {
  return scope.transaction(async (tx) => {
    const { call, list } = await lockedCall(tx, id, version);
    const outcome = tx.workspace.outcomes.find((one) => one.key === key);
    if (!outcome)
      throw invalid([{ path: 'outcome', message: 'There is no such outcome here any more: choose another.' }]);
    const promise = await promiseOf(tx, outcome, callBack, list.quotaId);
    const now = await lockedStanding(tx, call.contactId);
    const calendar = await tx.calendar();
    // Of a list that was left over from yesterday it counts when it was rung.
    const on = dayOfIso(tx.moment(call.rungAt ?? tx.doneAt).slice(0, 10));
    const of = (before: CallStanding, how: Outcome, back: CallBack | null) =>
      standingAfter(before, { on, outcome: how, callBack: back, number: call.number }, calendar);
    const before = call.state === 'rung' && call.standingBefore !== null ? call.standingBefore : now;
    if (call.outcome !== null && !isSame(of(before, call.outcome, call.callBack), now))
      throw changedMeanwhile('They were rung again since: say it of that call.');
    const after = of(before, outcome, promise);
    await keepStanding(tx, call.contactId, after);
    const set = {
      ...{ state: 'rung' as const, outcome, note, callBack: promise, standingBefore: before },
      rungAt: call.rungAt ?? tx.doneAt,
      rungBy: tx.person?.id ?? null,
    };
    await tx.save(Call, id, { ...set, version: call.version + 1 });
    const changeId = await tx.record('call', id, call.state === 'rung' ? 'said again' : 'rung', {
      ...fieldChanges(call, set),
      standing: { from: now, to: after },
    });
    await tx.tell('calls');
    return { call: await toldCall(tx, id), changeId };
  });
}

async function promiseOf(
  scope: Scope,
  outcome: Outcome,
  callBack: Input['callBack'],
  quotaId: string,
): Promise<CallBack | null> {
  if (outcome.follows.kind !== 'callBack') return null;
  if (callBack === null) throw invalid([{ path: 'callBack', message: 'Say on which day they are rung back.' }]);
  const on = dayOfIso(callBack.on);
  if (on < scope.now.day) throw invalid([{ path: 'callBack.on', message: 'Today, or a later day.' }]);
  if (on > scope.now.day + 366) throw invalid([{ path: 'callBack.on', message: 'Within a year.' }]);
  if (!(await scope.peopleNames()).has(callBack.personId))
    throw invalid([{ path: 'callBack.personId', message: 'There is nobody like that here.' }]);
  return { on, at: callBack.at, personId: callBack.personId, quotaId };
}

/** Puts a call to the end of its list. */
export function putOffCall(scope: Scope, id: string, version: number): Saved {
  return scope.transaction(async (tx) => {
    const { call } = await lockedCall(tx, id, version);
    if (call.state !== 'open') throw notNow('It is made already.');
    const set = { place: await nextPlace(tx, call.listId) };
    await tx.save(Call, id, { ...set, version: call.version + 1 });
    const changeId = await tx.record('call', id, 'put off', fieldChanges(call, set));
    await tx.tell('calls');
    return { call: await toldCall(tx, id), changeId };
  });
}

/** Takes back what was said of a call, with what followed from it. */
export async function undoCall(scope: Scope, { subjectId, fields }: Change): Promise<string> {
  const call = await scope.locked(Call, subjectId, 'call');
  const { standing, ...own } = fields;
  // What was made meanwhile is of whoever made it.
  if (own['listId'] !== undefined && call.state === 'rung')
    throw changedMeanwhile('Some of these calls were made meanwhile: give the others back by sharing out again.');
  if (standing !== undefined) {
    const now = await lockedStanding(scope, call.contactId);
    if (!isSame(now, standing.to))
      throw changedMeanwhile('They were rung again since, so this can no longer be undone.');
    await keepStanding(scope, call.contactId, standing.from as CallStanding);
  }
  const before = fieldsBefore(call, own) as Partial<Call>;
  await scope.save(Call, subjectId, { ...before, version: call.version + 1 });
  await scope.record('call', subjectId, 'undone', fieldChanges(call, before));
  await scope.tell('calls');
  return 'The call is as it was before.';
}
