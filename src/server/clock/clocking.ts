import { IsNull } from 'typeorm';
import type { Clocking as ClockingAnswer } from '../../contract/index.ts';
import { dayOfIso, hasLeftBy, type IsoTime, instantOf, sayDay } from '../../core/index.ts';
import { Clocking } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import { changedMeanwhile, forbidden, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';

/** Of one person, the last so many are told. */
const TOLD = 30;

/** Everybody who is on now, whoever came first at the top. */
export async function onNow(scope: Scope): Promise<ClockingAnswer[]> {
  const found = await scope.find(Clocking, { offAt: IsNull() });
  return described(
    scope,
    found.sort((a, b) => a.onAt.getTime() - b.onAt.getTime()),
  );
}

export async function clockedLately(scope: Scope, personId: string): Promise<ClockingAnswer[]> {
  mustClock(scope, personId);
  await scope.one(Person, personId, 'person');
  return described(scope, await latestOf(scope, personId, TOLD));
}

/** @param at an earlier time of today, which only a manager may say */
export function clockOn(scope: Scope, personId: string, at: IsoTime | undefined): Promise<ClockingAnswer> {
  return scope.transaction(async (tx) => {
    mustClock(tx, personId);
    const person = await tx.locked(Person, personId, 'person');
    if (hasLeftBy(person, tx.now.day)) throw notNow(`${person.name} has left.`);
    const [last] = await latestOf(tx, personId, 1);
    if (last?.offAt === null) throw notNow(`${person.name} is on already, since ${sayAt(tx, last.onAt)}.`);
    const onAt = instantFor(tx, at);
    if (last?.offAt && last.offAt > onAt)
      throw tooEarly(`${person.name} was on until ${sayAt(tx, last.offAt)}: say a later time.`);
    const by = writer(tx);
    const row = await tx.insert(Clocking, { id: tx.newId(), personId, onAt, offAt: null, onBy: by, offBy: null });
    return told(tx, row);
  });
}

export function clockOff(scope: Scope, personId: string, at: IsoTime | undefined): Promise<ClockingAnswer> {
  return scope.transaction(async (tx) => {
    mustClock(tx, personId);
    const person = await tx.locked(Person, personId, 'person');
    const [last] = await latestOf(tx, personId, 1);
    if (!last || last.offAt !== null) throw notNow(`${person.name} is not on.`);
    const offAt = instantFor(tx, at);
    if (offAt < last.onAt) throw tooEarly(`${person.name} came on at ${sayAt(tx, last.onAt)}: say a later time.`);
    const set = { offAt, offBy: writer(tx) };
    await tx.save(Clocking, last.id, set);
    return told(tx, { ...last, ...set });
  });
}

/** Off again after on, on again after off. @param id the one that is meant, which must still be the last */
export function takeBack(scope: Scope, personId: string, id: string): Promise<ClockingAnswer | null> {
  return scope.transaction(async (tx) => {
    mustClock(tx, personId);
    await tx.locked(Person, personId, 'person');
    const [last] = await latestOf(tx, personId, 1);
    if (last?.id !== id) throw changedMeanwhile('It has been clocked again since.');
    const by = last.offBy ?? last.onBy;
    if (!tx.mayAll('clock') && by !== tx.person?.id) throw forbidden('A manager has entered that: ask one of them.');
    if (last.offAt === null) {
      await tx.sql('delete from clocking where workspace_id = $1 and id = $2', [id]);
      await tx.tell('people');
      return null;
    }
    const set = { offAt: null, offBy: null };
    await tx.save(Clocking, id, set);
    return told(tx, { ...last, ...set });
  });
}

function mustClock(scope: Scope, personId: string): void {
  if (!scope.mayAll('clock') && scope.person?.id !== personId)
    throw forbidden('Everybody clocks on and off for themselves; a manager may do it for others.');
}

function latestOf(scope: Scope, personId: string, most: number): Promise<Clocking[]> {
  return scope.sql<Clocking>(
    `select id, person_id as "personId", on_at as "onAt", off_at as "offAt", on_by as "onBy", off_by as "offBy"
     from clocking where workspace_id = $1 and person_id = $2 order by on_at desc, id desc limit $3`,
    [personId, most],
  );
}

/** Now, or a time of today that a manager says. */
function instantFor(scope: Scope, at: IsoTime | undefined): Date {
  if (at === undefined) return scope.instant;
  if (!scope.mayAll('clock')) throw forbidden('Only a manager can say another time than now.');
  const instant = new Date(instantOf(scope.today, at, scope.workspace.zone));
  if (instant > scope.instant) throw tooEarly(`${at} has not come yet: say an earlier time.`);
  return instant;
}

const tooEarly = (message: string) => invalid([{ path: 'at', message }]);

function writer(scope: Scope): string {
  if (scope.person === null) throw forbidden('Nobody is signed in.');
  return scope.person.id;
}

/** "06:52", with its day where that is not today. */
function sayAt(scope: Scope, at: Date): string {
  const moment = scope.moment(at);
  const time = moment.slice(11, 16);
  const date = moment.slice(0, 10);
  return date === scope.today ? time : `${time} on ${sayDay(dayOfIso(date), scope.now.day)}`;
}

async function told(scope: Scope, row: Clocking): Promise<ClockingAnswer> {
  await scope.tell('people');
  const [answer] = await described(scope, [row]);
  return answer as ClockingAnswer;
}

async function described(scope: Scope, rows: readonly Clocking[]): Promise<ClockingAnswer[]> {
  const names = await scope.peopleNames();
  return rows.map(({ id, personId, onAt, offAt, onBy, offBy }) => {
    const by = offBy ?? onBy;
    return {
      ...{ id, personId, on: scope.moment(onAt), off: scope.moment(offAt) },
      by: by === personId ? null : (names.get(by) ?? null),
    };
  });
}
