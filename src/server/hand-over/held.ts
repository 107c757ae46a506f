import type { Held } from '../../contract/index.ts';
import { type AssignmentRule, namedFrom, type Step } from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import { UNFINISHED } from '../tasks/stored/index.ts';

/** Of each kind so many are told by name; the counts are of all. */
const TOLD = 12;

/** Templates that name somebody who signs: at the top, or in a step. `$2` is the person. */
const SIGNED_BY = `(sign_off->>'personId' = $2::text
  or exists (select from jsonb_array_elements(steps) step where step->'signOff'->>'personId' = $2::text))`;
const GIVEN_TO = `($2::text in (assignment->>'personId', assignment->>'otherwiseId')
  or exists (select from jsonb_array_elements(steps) step where step->'assignee'->>'personId' = $2::text))`;
interface HeldSchedule {
  readonly id: string;
  readonly name: string;
  readonly assignment: AssignmentRule;
  /** Whether single dates, or what holds from some day on, name them. */
  readonly isByHand: boolean;
}

/** Schedules that name somebody for what is to come, in the order of their names: earlier orders of turns are not theirs to give. */
async function schedulesNaming(scope: Scope, personId: string): Promise<HeldSchedule[]> {
  const named = await scope.sql<HeldSchedule>(
    `select s.id, t.name, s.assignment, (s.exceptions::text || s.revisions::text) like '%' || $2::text || '%' as "isByHand"
     from schedule s join template t on t.workspace_id = s.workspace_id and t.id = s.template_id
     where s.workspace_id = $1 and s.deleted_at is null
       and (s.assignment::text || s.exceptions::text || s.revisions::text) like '%' || $2::text || '%'
     order by t.name, s.id`,
    [personId],
  );
  return named.filter(({ isByHand, assignment }) => isByHand || namedFrom(assignment, scope.now.day).has(personId));
}

/** Everything that somebody holds. */
export async function heldBy(scope: Scope, personId: string): Promise<Held> {
  await scope.one(Person, personId, 'person');
  const [tasks, named, templates, signOffs, [counts]] = await scope.atOnce(
    () =>
      scope.sql<Held['tasks'][number]>(
        `select t.id, t.title, t.work_on as "on", coalesce(a.name, c.name) as about from task t
         left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
         left join client c on c.workspace_id = t.workspace_id and c.id = t.client_id
         where t.workspace_id = $1 and t.assignee_id = $2 and t.head = '' and t.state in ${UNFINISHED} order by t.due_on, t.id limit ${TOLD}`,
        [personId],
      ),
    () => schedulesNaming(scope, personId),
    () =>
      scope.sql<Held['templates'][number]>(
        `select id, name from template where workspace_id = $1 and ${GIVEN_TO} order by name, id limit ${TOLD}`,
        [personId],
      ),
    () =>
      scope.sql<Held['signOffs'][number]>(
        `select id, name from template where workspace_id = $1 and ${SIGNED_BY} order by name, id limit ${TOLD}`,
        [personId],
      ),
    () =>
      scope.sql<Omit<Held['counts'], 'schedules'>>(
        `select
           (select count(*)::int from task where workspace_id = $1 and assignee_id = $2 and head = '' and state in ${UNFINISHED}) as tasks,
           (select count(*)::int from task where workspace_id = $1 and assignee_id = $2 and head = '' and state = 'underWay') as "underWay",
           (select count(*)::int from template where workspace_id = $1 and ${GIVEN_TO}) as templates,
           (select count(*)::int from template where workspace_id = $1 and ${SIGNED_BY}) as "signOffs"`,
        [personId],
      ),
  );
  const schedules = await withSubjects(scope, named.slice(0, TOLD));
  return {
    ...{ tasks, schedules, templates, signOffs },
    counts: { ...(counts as Omit<Held['counts'], 'schedules'>), schedules: named.length },
  };
}

/** With what each is about. */
function withSubjects(scope: Scope, named: readonly HeldSchedule[]): Promise<Held['schedules']> {
  return scope.sql(
    `select s.id, t.name, coalesce(a.name, c.name) as about from schedule s
     join template t on t.workspace_id = s.workspace_id and t.id = s.template_id
     left join asset a on a.workspace_id = s.workspace_id and a.id = s.asset_id
     left join client c on c.workspace_id = s.workspace_id and c.id = s.client_id
     where s.workspace_id = $1 and s.id = any($2::uuid[]) order by t.name, s.id`,
    [named.map(({ id }) => id)],
  );
}

export async function heldIds(scope: Scope, personId: string) {
  const ids = async (table: 'task' | 'template', where: string) =>
    (
      await scope.sql<{ id: string }>(`select id from ${table} where workspace_id = $1 and ${where} order by id`, [
        personId,
      ])
    ).map(({ id }) => id);
  return {
    taskIds: await ids('task', `assignee_id = $2::uuid and state in ${UNFINISHED}`),
    scheduleIds: (await schedulesNaming(scope, personId)).map(({ id }) => id).sort(),
    templateIds: await ids('template', `(${GIVEN_TO} or ${SIGNED_BY})`),
  };
}

/** The steps with somebody else, or nobody, in the place of one person. */
export function stepsWithout(steps: readonly Step[], personId: string, { to, signs }: Receivers): Step[] {
  return steps.map((step) => {
    if (step.kind !== 'task') return step;
    const { assignee, signOff } = step;
    return {
      ...step,
      assignee:
        assignee.by === 'person' && assignee.personId === personId
          ? to === null
            ? ({ by: 'nobody' } as const)
            : ({ by: 'person', personId: to } as const)
          : assignee,
      signOff: signOffWithout(signOff, personId, signs),
    };
  });
}

interface Receivers {
  readonly to: string | null;
  readonly signs: string | null;
}

/** What only one person could sign, somebody else signs, or a manager: work that nobody could sign would wait for ever. */
export function signOffWithout<S extends { readonly by: string } | null>(
  signOff: S,
  personId: string,
  signs: string | null,
): S | { by: 'manager' } | { by: 'person'; personId: string } {
  if (signOff === null || !('personId' in signOff) || signOff.personId !== personId) return signOff;
  return signs === null ? { by: 'manager' } : { by: 'person', personId: signs };
}

/** The same value with another person wherever an assignee is named within. */
export function assigneeReplaced<T>(value: T, from: string, to: string | null): T {
  if (Array.isArray(value)) return value.map((one) => assigneeReplaced(one, from, to)) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, member]) => [
      key,
      key === 'assigneeId' && member === from ? to : assigneeReplaced(member, from, to),
    ]),
  ) as T;
}
