import type { ScheduleInput } from '../../contract/index.ts';
import {
  type AssignmentRule,
  eachNeedsDates,
  type Group,
  hasLeftBy,
  namedFrom,
  namedIn,
  type Recurrence,
} from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import type { Schedule } from './entity.ts';

export interface InputProblem {
  readonly path: string;
  readonly message: string;
}

/** Everybody of the workspace, by id: who is looked for in what somebody has written. */
export async function peopleById(scope: Scope): Promise<ReadonlyMap<string, Person>> {
  return new Map((await scope.find(Person)).map((person) => [person.id, person]));
}

type Named = Partial<Pick<ScheduleInput, 'assignment' | 'clientId' | 'recurrence' | 'exceptions' | 'revisions'>>;
type Before = Pick<Schedule, 'assignment' | 'revisions'> &
  Partial<Pick<Schedule, 'clientId'>> & { readonly recurrence: Recurrence };

/**
 * What is wrong with the people that a schedule names: all of them are of this workspace, and whoever is named anew for what is
 * to come is here, since work would lie with somebody who has left and be seen by nobody. What they have already may stay.
 */
export function problemsOfPeople(
  scope: Scope,
  input: Named,
  people: ReadonlyMap<string, Person>,
  before: Before | null,
): InputProblem[] {
  const { assignment, exceptions = [], revisions = [] } = input;
  const byHand = [
    ...exceptions.map((exception, i) => ({
      path: `exceptions.${i}.change.assigneeId`,
      id: exception.kind === 'change' ? exception.change.assigneeId : null,
    })),
    ...revisions.flatMap(({ own = {} }, i) =>
      Object.entries(own).map(([step, fields]) => ({
        path: `revisions.${i}.own.${step}.assigneeId`,
        id: fields.assigneeId,
      })),
    ),
  ];
  return [
    ...byHand.flatMap(({ path, id }) =>
      id && !people.has(id) ? [{ path, message: 'There is no such person here.' }] : [],
    ),
    ...(assignment === undefined ? [] : problemsOfRule(scope, assignment, people, before)),
    ...problemsOfEach(input, before),
    ...problemsOfClient(input, before),
  ];
}

/** What is for a client to do is for one; where it is not said for whom, as of an item of a plan, it is for each of many. */
function problemsOfClient(input: Named, before: Before | null): InputProblem[] {
  const { assignment, clientId } = { ...before, ...input };
  if (assignment?.kind !== 'client' || clientId !== null) return [];
  return [{ path: 'assignment', message: 'Choose a client: it is theirs to do.' }];
}

/** What is done once a head has its dates from the calendar: the last one would be another for each. */
function problemsOfEach(input: Named, before: Before | null): InputProblem[] {
  const now = { ...before, ...input };
  const rules = [now.recurrence, ...(now.revisions ?? []).map(({ recurrence }) => recurrence)];
  const message =
    now.assignment &&
    eachNeedsDates(
      now.assignment,
      rules.flatMap((rule) => rule ?? []),
    );
  return message ? [{ path: 'assignment', message }] : [];
}

/** Whether a group is one of this workspace: its role, or its team, stands in the lists. */
export function isGroupHere({ workspace: { roles, teams } }: Scope, group: Group): boolean {
  return (group.of !== 'role' || roles.includes(group.role)) && (group.of !== 'team' || teams.includes(group.team));
}

function problemsOfRule(
  scope: Scope,
  rule: AssignmentRule,
  people: ReadonlyMap<string, Person>,
  before: Before | null,
): InputProblem[] {
  const { day: today } = scope.now;
  const there = before === null ? new Set<string>() : namedFrom(before.assignment, today);
  const fromNow = namedFrom(rule, today);
  const ofNobody = 'group' in rule && !isGroupHere(scope, rule.group);
  return [
    ...[...namedIn(rule)].flatMap((id): InputProblem[] => {
      const person = people.get(id);
      if (!person) return [{ path: 'assignment', message: 'There is no such person here.' }];
      return fromNow.has(id) && !there.has(id) && hasLeftBy(person, today)
        ? [{ path: 'assignment', message: `${person.name} has left: give it to somebody else.` }]
        : [];
    }),
    ...(ofNobody ? [{ path: 'assignment', message: 'There is no such role or team here.' }] : []),
  ];
}
