import type { EntityManager } from 'typeorm';
import { instantOf, isoOfDay } from '../src/core/index.ts';
import { Clocking, Leave } from '../src/server/people/index.ts';
import { Account, Person } from '../src/server/platform/identity/person.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { sayTurn, scheduleRows, TurnSwap, turnsOfSchedule } from '../src/server/schedules/index.ts';
import { DEPUTIES, LEAVE } from './leave.ts';
import { type DemoPerson, PEOPLE } from './people.ts';
import { SeededRandom } from './random.ts';
import { shiftOn, shiftsOf } from './shifts.ts';

export function daysBefore(scope: Scope, days: number): Date {
  return new Date(scope.clock.now() - days * 86_400_000);
}

/** So many days back it is told who was on when. */
const CLOCKED_DAYS = 13;

/** People with their accounts; their ids by their keys. */
export async function addPeople(
  scope: Scope,
  manager: EntityManager,
  people: readonly DemoPerson[],
  passwordHash: string,
): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  for (const person of people) {
    const accountId = scope.newId();
    const id = scope.newId();
    const email = `${person.key}@${scope.workspace.name.toLowerCase().replace(' ', '')}.example`;
    const hasAccount = person.signsIn === undefined;
    if (hasAccount) await manager.insert(Account, { id: accountId, email, passwordHash });
    await scope.insert(Person, {
      id,
      accountId: hasAccount ? accountId : null,
      name: person.name,
      access: person.access,
      roles: [...person.roles],
      team: person.team,
      deputyId: null,
      tickets: Object.entries(person.tickets ?? {}).map(([name, days]) => ({
        name,
        until: days === null ? null : isoOfDay(scope.now.day + days),
      })),
      email,
      telephone: `01632 960 ${person.ext}`,
      weeks: [...person.weeks],
      weeksFrom: isoOfDay(scope.now.day),
      shifts: shiftsOf(person),
      shiftChanges: [],
      worksFrom: person.came === undefined ? null : isoOfDay(scope.now.day - person.came),
      worksUntil: person.left === undefined ? null : isoOfDay(scope.now.day - person.left),
      ways: {},
      version: 1,
    });
    ids.set(person.key, id);
  }
  return ids;
}

/** Kit asks Nadia for her next turn of the life rings, and Wilf and Tamsin have agreed on theirs, which waits for a nod. */
export async function addSwaps(scope: Scope, people: ReadonlyMap<string, string>): Promise<void> {
  const idOf = (key: string) => people.get(key) as string;
  const [row] = (await scheduleRows(scope, {})).filter(({ assignment }) => {
    const order = assignment.kind === 'inTurn' ? (assignment.turns.rosters[0]?.people ?? []) : [];
    return ['kit', 'nadia', 'wilf', 'tamsin'].every((key) => order.includes(idOf(key)));
  });
  const found = row && (await turnsOfSchedule(scope, row));
  if (!found) throw new Error('The demo has no turns to swap.');
  const turnOf = (key: string) => {
    const span = found.spans.find(({ personId, first }) => personId === idOf(key) && first > scope.now.day);
    if (!span) throw new Error(`${key} has no turn to come.`);
    return sayTurn(span).first;
  };
  for (const [by, of, state, note] of [
    ['kit', 'nadia', 'asked', 'My sister’s wedding is in that week.'],
    ['wilf', 'tamsin', 'agreed', ''],
  ] as const)
    await scope.insert(TurnSwap, {
      ...{ id: scope.newId(), version: 1, scheduleId: row.id, gives: turnOf(by), takes: turnOf(of), note, state },
      ...{ askedBy: idOf(by), askedOf: idOf(of), askedAt: daysBefore(scope, 1), decidedBy: null, decidedAt: null },
    });
}

/** Whoever has shifts comes a little early and goes a little late; who is at work now is on. */
export async function addClockings(scope: Scope, people: ReadonlyMap<string, string>): Promise<void> {
  const { day: today } = scope.now;
  const random = new SeededRandom('clock');
  const away = new Set(
    LEAVE.filter(({ state, half }) => state === 'given' && half === undefined).flatMap(({ who, days: [from, to] }) =>
      Array.from({ length: to - from + 1 }, (_, i) => `${who} ${today + from + i}`),
    ),
  );
  for (const person of PEOPLE) {
    const personId = people.get(person.key) as string;
    for (let day = today - CLOCKED_DAYS; day <= today; day++) {
      const shift = shiftOn(person, isoOfDay(today), day);
      const [early, late] = [random.whole(1, 9), random.whole(0, 12)];
      if (shift === null || away.has(`${person.key} ${day}`)) continue;
      const at = (time: string, minutes: number) =>
        new Date(instantOf(isoOfDay(day), time, scope.workspace.zone) + minutes * 60_000);
      const [onAt, offAt] = [at(shift.from, -early), at(shift.to, late)];
      if (onAt > scope.instant) continue;
      const isOn = offAt > scope.instant;
      const by = { onBy: personId, offBy: isOn ? null : personId };
      await scope.insert(Clocking, { id: scope.newId(), personId, onAt, offAt: isOn ? null : offAt, ...by });
    }
  }
}

/** Who covers for whom, and when people are away. */
export async function addLeave(scope: Scope, people: ReadonlyMap<string, string>): Promise<void> {
  const idOf = (key: string) => people.get(key) as string;
  for (const [key, deputy] of DEPUTIES) await scope.save(Person, idOf(key), { deputyId: idOf(deputy) });
  for (const { who, days, half = null, state, note = '' } of LEAVE) {
    const isDecided = state !== 'asked';
    await scope.insert(Leave, {
      id: scope.newId(),
      version: 1,
      personId: idOf(who),
      fromOn: isoOfDay(scope.now.day + days[0]),
      toOn: isoOfDay(scope.now.day + days[1]),
      ...{ half, state, note, cover: null, exchanges: null },
      askedAt: daysBefore(scope, Math.max(2, 20 - days[0])),
      decidedBy: isDecided ? idOf('ines') : null,
      decidedAt: isDecided ? daysBefore(scope, Math.max(1, 18 - days[0])) : null,
    });
  }
}
