import {
  dayOfIso,
  groupBy,
  heardOfTurn,
  instantOf,
  isoOfDay,
  sayTimed,
  sayTurn,
  type TaskFacts,
  type Turn,
} from '../src/core/index.ts';
import { gapsToTell } from '../src/server/availability/index.ts';
import { poolsToTell } from '../src/server/calls/index.ts';
import { countTold, mailMessages, Office, type Told, tell, tellNoted } from '../src/server/messages/index.ts';
import { noticesToTell } from '../src/server/notices/index.ts';
import type { Person } from '../src/server/platform/identity/person.ts';
import type { Scope } from '../src/server/platform/scope.ts';

const DAY = 86_400_000;
const HOUR = 3_600_000;
/** So far back there is something to hear. */
const TOLD_DAYS = 27;

interface Row {
  readonly id: string;
  readonly title: string;
  readonly assigneeId: string | null;
  readonly dueOn: string;
  readonly dueTime: string | null;
  readonly doneAt: Date | null;
  readonly doneBy: string | null;
  readonly doneByContact: string | null;
  readonly signedAt: Date | null;
  readonly signedBy: string | null;
  readonly isToSign: boolean;
  readonly heldAt: Date | null;
  readonly heldBy: string | null;
  readonly heldReason: string | null;
  readonly heldUntil: string | null;
}

interface Event {
  readonly at: number;
  readonly told: Told;
}

type ActingAs = (person: Person | null, daysAgo: number) => Scope;

/** What everybody has heard of in the last weeks, told from the work as it went: figures of all of it, the last days on the bells. */
export async function addMessages(scope: Scope, origin: string, actingAs: ActingAs): Promise<void> {
  const now = scope.clock.now();
  const office = await Office.of(scope);
  const tasks = await scope.sql<Row>(
    `select task.id, title, assignee_id as "assigneeId", due_on as "dueOn", due_time as "dueTime", done_at as "doneAt", done_by as "doneBy", done_by_contact as "doneByContact",
       signed_at as "signedAt", signed_by as "signedBy", said.sign_off is not null as "isToSign", held_at as "heldAt", held_by as "heldBy",
       held_reason as "heldReason", held_until as "heldUntil"
     from task join work_content said on said.workspace_id = task.workspace_id and said.id = task.content_id
     where task.workspace_id = $1 and due_on between $2::date and $3::date and state not in ('skipped', 'lapsed') order by due_on, task.id`,
    [isoOfDay(scope.now.day - TOLD_DAYS), isoOfDay(scope.now.day + 4)],
  );
  const events = [...tasks.flatMap((task) => eventsOf(scope, office, task)), ...soonOf(scope, office, tasks)]
    .filter(({ at }) => at <= now && at > now - TOLD_DAYS * DAY)
    .sort((a, b) => a.at - b.at);
  const isHeard = ({ told: { personId, side, kind } }: Event) => {
    const wish = office.wishOf(personId, side, kind);
    return wish !== null && (wish.here || wish.mail);
  };
  // What nobody wishes to hear is counted by the day, the rest told at its moment, and mailed with the next hour.
  const unheard = groupBy(
    events.filter((one) => !isHeard(one)),
    ({ at }) => Math.floor((now - at) / DAY),
  );
  for (const [daysAgo, some] of unheard)
    await countTold(
      actingAs(null, daysAgo),
      some.map(({ told }) => told),
    );
  const heard = groupBy(events.filter(isHeard), ({ at }) => at);
  for (const [at, some] of heard)
    await tell(
      actingAs(null, (now - at) / DAY),
      office,
      some.map(({ told }) => told),
    );
  // What was told of a task is known with it, for whoever chases it.
  await scope.sql(
    `insert into told_once (workspace_id, task_id, kind, at)
     select $1, task_id, 'late own', at from jsonb_to_recordset($2::jsonb) as told (task_id uuid, at timestamptz) on conflict do nothing`,
    [
      JSON.stringify(
        events.flatMap(({ at, told: { kind, side, taskId } }) =>
          kind === 'late' && side === 'mine' ? [{ task_id: taskId, at: new Date(at) }] : [],
        ),
      ),
    ],
  );
  for (let ago = TOLD_DAYS * 24; ago >= 0; ago--) await mailMessages(actingAs(null, ago / 24), origin);
  await scope.sql(
    `update mail set state = 'sent', sent_at = created_at, tries = 1 where workspace_id = $1 and kind = 'message'`,
  );
  await scope.sql(`update message set push = 'no' where workspace_id = $1`);
  // Of what is older than yesterday everything has been seen.
  await scope.sql('update message set read_at = $2 where workspace_id = $1 and at < $2', [new Date(now - DAY)]);
  // Lines stand in the order of their ids: whoever was named this morning was so last.
  const named = await scope.sql<{ id: string }>(
    `select id from message where workspace_id = $1 and kind = 'named' order by at, id`,
  );
  for (const { id } of named)
    await scope.sql('update message set id = $3 where workspace_id = $1 and id = $2', [id, scope.newId()]);
  await tellToday(scope, office, actingAs);
  await scope.sql('insert into told_to (workspace_id, at) values ($1, $2)', [scope.instant]);
}

/** What was told this morning, and what others have said and done since yesterday. */
async function tellToday(scope: Scope, office: Office, actingAs: ActingAs): Promise<void> {
  const morning = actingAs(null, (scope.clock.now() - instantOf(scope.today, '08:00', scope.workspace.zone)) / DAY);
  for (const told of [noticesToTell, poolsToTell, gapsToTell]) await tell(morning, office, await told(morning, office));
  // The rest of what was done to set all this up is nothing that anybody has to hear.
  await scope.sql(
    `delete from untold u where workspace_id = $1 and not (
       (subject in ('comment', 'answer') and (after->>'at')::timestamptz > $2)
       or (subject = 'list' and after->>'list_on' = $3)
       or (subject = 'opened' and exists (
         select from client_link l where l.workspace_id = u.workspace_id and l.id = u.subject_id and l.opened_at > $2)))`,
    [new Date(scope.clock.now() - 2 * DAY), scope.today],
  );
  await tellNoted(scope);
}

function eventsOf(scope: Scope, office: Office, task: Row): Event[] {
  const due =
    task.dueTime === null
      ? instantOf(isoOfDay(dayOfIso(task.dueOn) + 1), '00:00', scope.workspace.zone)
      : instantOf(task.dueOn, task.dueTime, scope.workspace.zone);
  const telling = { today: scope.now.day, nameOf: office.nameOf };
  const words = (side: Told['side']) => sayTimed('late', side, [{ ...task, personId: task.assigneeId }], telling).text;
  return [
    ...lateLines(scope, office, task, due, { mine: words('mine'), gave: words('gave') }),
    ...turns(scope, office, task),
  ];
}

/** Whoever has it is told first that it is late, then those who answer for it, if it was not finished by then. */
function lateLines(
  scope: Scope,
  office: Office,
  { id, title, assigneeId, doneAt, heldAt }: Row,
  due: number,
  words: { readonly mine: string; readonly gave: string },
): Event[] {
  const line = (personId: string, side: Told['side'], hours: number | null): Event[] => {
    const at = due + (hours ?? 0) * HOUR;
    if (hours === null || heldAt !== null || at > (doneAt?.getTime() ?? scope.clock.now())) return [];
    const told = {
      personId,
      side,
      kind: 'late',
      times: 1,
      taskId: id,
      path: null,
      byId: null,
      title,
      text: words[side],
    } as const;
    return [{ at, told }];
  };
  const { own, answering } = scope.workspace.escalation;
  return [
    ...(assigneeId === null ? [] : line(assigneeId, 'mine', own)),
    ...office
      .answering('late')
      .flatMap((personId) => (personId === assigneeId ? [] : line(personId, 'gave', answering))),
  ];
}

/** How the work went, as the turns that are told. */
function turns(scope: Scope, office: Office, task: Row): Event[] {
  const {
    assigneeId,
    dueOn,
    doneAt,
    doneBy,
    doneByContact,
    signedAt,
    signedBy,
    isToSign,
    heldAt,
    heldBy,
    heldReason,
    heldUntil,
  } = task;
  const open: TaskFacts = {
    assigneeId,
    dueOn,
    state: 'underWay',
    heldReason: null,
    heldUntil: null,
    sentBack: 0,
    doneByContact: null,
    offeredTo: null,
  };
  const steps: {
    readonly at: Date | null;
    readonly by: string | null;
    readonly from: TaskFacts;
    readonly to: TaskFacts;
  }[] = [
    { at: heldAt, by: heldBy, from: open, to: { ...open, heldReason, heldUntil } },
    { at: doneAt, by: doneBy, from: open, to: { ...open, state: isToSign ? 'toCheck' : 'done', doneByContact } },
    { at: signedAt, by: signedBy, from: { ...open, state: 'toCheck' }, to: { ...open, state: 'done' } },
  ];
  return steps.flatMap(({ at, by, from, to }) => {
    if (at === null) return [];
    const turn = { before: from, after: to, byId: by };
    return heardOfTurn(turn).flatMap(({ kind, side, turn: what, to: whom }): Event[] => {
      const people =
        whom === 'answering'
          ? office.answering(kind)
          : 'anyOf' in whom
            ? office.whoMayTake(whom.anyOf, dayOfIso(dueOn))
            : [whom.personId];
      return people
        .filter((personId) => personId !== by && (side === 'mine' || personId !== assigneeId))
        .map((personId) => ({
          at: at.getTime(),
          told: toldOf(scope, office, task, { personId, kind, side, what, turn }),
        }));
    });
  });
}

function toldOf(
  scope: Scope,
  office: Office,
  { id, title }: Row,
  {
    personId,
    kind,
    side,
    what,
    turn,
  }: Pick<Told, 'personId' | 'kind' | 'side'> & {
    readonly what: Turn;
    readonly turn: Parameters<typeof heardOfTurn>[0];
  },
): Told {
  const words = sayTurn(what, { title, sentBackReason: null, turn }, { today: scope.now.day, nameOf: office.nameOf });
  return { ...words, personId, kind, side, times: 1, taskId: id, path: null, byId: turn.byId };
}

/** What was due on the day after a working day, told in the afternoon of that, in one line each. */
function soonOf(scope: Scope, office: Office, tasks: readonly Row[]): Event[] {
  const { day: today } = scope.now;
  return Array.from({ length: TOLD_DAYS }, (_, ago) => today - ago - 1).flatMap((day) => {
    const due = tasks.filter(({ dueOn }) => dayOfIso(dueOn) === day + 1);
    const line = (personId: string, side: Told['side'], some: readonly Row[]): Event[] => {
      const [first] = some;
      if (first === undefined) return [];
      const told = some.map((one) => ({ ...one, personId: one.assigneeId }));
      const words = sayTimed('soon', side, told, { today, nameOf: office.nameOf });
      return [
        {
          at: instantOf(isoOfDay(day), '14:00', scope.workspace.zone),
          told: {
            ...{ personId, side, kind: 'soon', times: some.length, taskId: first.id, byId: null, ...words },
            path: some.length === 1 ? null : '/tasks?are=unfinished&due=any',
          },
        },
      ];
    };
    const people = new Set(due.flatMap(({ assigneeId }) => assigneeId ?? []));
    return [
      ...[...people].flatMap((one) =>
        line(
          one,
          'mine',
          due.filter(({ assigneeId }) => assigneeId === one),
        ),
      ),
      ...office.answering('soon').flatMap((one) =>
        line(
          one,
          'gave',
          due.filter(({ assigneeId }) => assigneeId !== one),
        ),
      ),
    ];
  });
}
