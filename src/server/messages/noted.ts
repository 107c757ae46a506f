import {
  type AskedTurn,
  dayOfIso,
  type Heard,
  type HeardAsked,
  heardOfLeave,
  heardOfSwap,
  heardOfTurn,
  plural,
  type Right,
  sayDay,
  sayTurns,
  type TaskFacts,
  type ToldTask,
} from '../../core/index.ts';
import type { Leave } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { TurnSwap } from '../schedules/index.ts';
import { giversOf } from './givers.ts';
import { Office } from './office.ts';
import { type Told, tell } from './telling.ts';

/** Of what was noted so much is told in one go: what is done at once is told at once. */
const MOST_AT_ONCE = 10_000;

/** A row as the database has it, in the words of its columns. */
type Columns<Row, Field extends keyof Row & string> = { readonly [Name in Field as Snake<Name>]: Row[Name] };
type Snake<Name extends string> = Name extends `${infer First}${infer Rest}`
  ? First extends Lowercase<First>
    ? `${First}${Snake<Rest>}`
    : `_${Lowercase<First>}${Snake<Rest>}`
  : '';

type NotedTask = TaskFacts & { readonly title: string; readonly sentBackReason: string | null };
type NotedLeave = Columns<Leave, 'personId' | 'fromOn' | 'toOn' | 'state'>;
type NotedSwap = Columns<TurnSwap, 'askedBy' | 'askedOf' | 'gives' | 'takes' | 'state' | 'note'>;
interface NotedRun {
  readonly problems: number;
  readonly leftOut: number;
}
interface NotedMail {
  readonly toName: string;
  readonly toEmail: string;
  readonly subject: string;
  readonly kind: string;
  readonly trouble: string | null;
}

/** What the database has noted of something: before the first and after the last of what was done with it. */
interface Noted<Look> {
  readonly subjectId: string;
  readonly byId: string | null;
  readonly before: Look | null;
  readonly after: Look | null;
}
interface NotedBySubject {
  readonly task: Noted<NotedTask>;
  readonly leave: Noted<NotedLeave>;
  readonly swap: Noted<NotedSwap>;
  readonly run: Noted<NotedRun>;
  readonly mail: Noted<NotedMail>;
}
type AllNoted = { readonly [Subject in keyof NotedBySubject]: readonly NotedBySubject[Subject][] };

/**
 * Tells what was noted since it was told last, all or nothing: whoever falls in between tells it again from the start, and
 * nothing twice. @returns whether there may be more
 */
export function tellNoted(scope: Scope): Promise<boolean> {
  return scope.transaction(async (tx) => {
    const rows = await tx.sql<NotedBySubject[keyof NotedBySubject] & { id: number; subject: keyof NotedBySubject }>(
      `delete from untold where workspace_id = $1 and id in (
         select id from untold where workspace_id = $1 order by id limit ${MOST_AT_ONCE} for update skip locked)
       returning id, subject, subject_id as "subjectId", by_id as "byId", before, after`,
    );
    if (rows.length === 0) return false;
    const noted = folded(rows.sort((a, b) => a.id - b.id));
    const office = await Office.of(tx);
    await tell(tx, office, [
      ...(await toldOfTasks(tx, office, noted.task)),
      ...noted.leave.flatMap((one) => toldOfLeave(tx, office, one)),
      ...noted.swap.flatMap((one) => toldOfSwap(tx, office, one)),
      ...noted.run.flatMap((one) => toldOfRun(office, one)),
      ...noted.mail.flatMap((one) => toldOfMail(office, one)),
    ]);
    return rows.length === MOST_AT_ONCE;
  });
}

/** What was done with a thing one after the other is told as one: what was taken back meanwhile is nothing. */
function folded(
  rows: readonly (NotedBySubject[keyof NotedBySubject] & { readonly subject: keyof NotedBySubject })[],
): AllNoted {
  const bySubject = new Map<string, Noted<unknown> & { subject: keyof NotedBySubject }>();
  for (const { subject, subjectId, byId, before, after } of rows) {
    const first = bySubject.get(subjectId);
    bySubject.set(subjectId, { subject, subjectId, byId, before: first ? first.before : before, after });
  }
  const all = [...bySubject.values()];
  const of = <Subject extends keyof NotedBySubject>(subject: Subject) =>
    all.filter((one) => one.subject === subject) as unknown as NotedBySubject[Subject][];
  return { task: of('task'), leave: of('leave'), swap: of('swap'), run: of('run'), mail: of('mail') };
}

interface HeardBy extends Pick<Heard, 'kind' | 'side' | 'turn'> {
  readonly personId: string;
  readonly taskId: string;
  readonly told: ToldTask;
}

/** What everybody hears of tasks: the same of several in one line. */
async function toldOfTasks(scope: Scope, office: Office, tasks: readonly Noted<NotedTask>[]): Promise<Told[]> {
  const heard = tasks.map((noted) => ({ noted, heard: heardOfTurn(noted) }));
  const [givers, signers] = await scope.atOnce(
    () =>
      giversOf(
        scope,
        heard.flatMap(({ noted: one, heard: of }) => (of.some(({ to }) => to === 'answering') ? [one.subjectId] : [])),
      ),
    () => signersOf(scope, heard),
  );
  const groups = new Map<string, HeardBy[]>();
  for (const { noted, heard: all } of heard)
    for (const one of all) {
      const { subjectId: taskId, byId } = noted;
      const people =
        one.to === 'answering'
          ? [...office.answering(one.kind), ...(givers.get(taskId) ?? []), ...signersFor(office, signers.get(taskId))]
          : [one.to.personId];
      const own = new Set(all.flatMap(({ to }) => (to === 'answering' ? [] : [to.personId])));
      for (const personId of new Set(people)) {
        // Nobody hears twice of one thing, nor of what they did, nor of their own work as that of others.
        if (personId === byId || (one.side === 'gave' && (own.has(personId) || hasIt(noted, personId)))) continue;
        const key = [personId, one.kind, one.side, one.turn, byId].join(' ');
        const group = groups.get(key);
        const line = { ...one, personId, taskId, told: toldOf(noted) };
        if (group) group.push(line);
        else groups.set(key, [line]);
      }
    }
  const telling = { today: scope.now.day, ways: scope.workspace.ways, nameOf: office.nameOf };
  return [...groups.values()].flatMap((group) => {
    const [first] = group;
    if (first === undefined) return [];
    const { personId, side, kind, turn, taskId, told } = first;
    return [
      {
        ...sayTurns(
          turn,
          group.map((one) => one.told),
          telling,
        ),
        ...{ personId, side, kind, times: group.length, byId: told.turn.byId, taskId },
        path: group.length === 1 ? null : side === 'mine' ? `/tasks?person=${personId}&due=any` : '/tasks',
      },
    ];
  });
}

const hasIt = ({ before, after }: Noted<NotedTask>, personId: string) => (after ?? before)?.assigneeId === personId;

const toldOf = ({ before, after, byId }: Noted<NotedTask>): ToldTask => ({
  title: (after ?? before)?.title ?? '',
  sentBackReason: after?.sentBackReason ?? null,
  turn: { before, after, byId },
});

type HeardOfTask = { readonly noted: Noted<NotedTask>; readonly heard: readonly Heard[] };

interface Signer {
  readonly taskId: string;
  readonly personId: string | null;
  readonly role: string | null;
}

/** Who is named to look at work that was finished. */
async function signersOf(scope: Scope, all: readonly HeardOfTask[]): Promise<ReadonlyMap<string, Signer>> {
  const ids = all.flatMap(({ noted, heard }) =>
    heard.some(({ turn }) => turn === 'to check') ? [noted.subjectId] : [],
  );
  if (ids.length === 0) return new Map();
  const rows = await scope.sql<Signer>(
    `select task.id as "taskId", said.sign_off->>'personId' as "personId", said.sign_off->>'role' as role
     from task join work_content said on said.workspace_id = task.workspace_id and said.id = task.content_id
     where task.workspace_id = $1 and task.id = any($2::uuid[])`,
    [ids],
  );
  return new Map(rows.map((row) => [row.taskId, row]));
}

function signersFor(office: Office, signer: Signer | undefined): string[] {
  if (signer === undefined) return [];
  const { personId, role } = signer;
  if (personId !== null) return [personId];
  return role === null
    ? []
    : [...office.people.values()].flatMap(({ id, roles }) => (roles.includes(role) ? [id] : []));
}

/** What those hear of it who are asked, decide, or asked for it themselves. */
function toldAsked(
  office: Office,
  decides: Right,
  heard: readonly HeardAsked[],
  byId: string | null,
  words: (turn: AskedTurn) => { readonly title: string; readonly text: string; readonly path: string },
): Told[] {
  return heard.flatMap(({ side, turn, to }) =>
    (to === 'answering' ? office.answering('asked', decides) : [to.personId]).flatMap((personId): Told[] =>
      personId === byId ? [] : [{ personId, side, kind: 'asked', times: 1, taskId: null, byId, ...words(turn) }],
    ),
  );
}

const ASKED_WORDS: Readonly<Record<AskedTurn, string>> = {
  asks: 'asked for',
  given: 'given',
  refused: 'refused',
  entered: 'entered',
};

function toldOfLeave(scope: Scope, office: Office, { byId, before, after }: Noted<NotedLeave>): Told[] {
  if (after === null) return [];
  const { person_id: personId, from_on: fromOn, to_on: toOn, state } = after;
  const day = (on: string) => sayDay(dayOfIso(on), scope.now.day, scope.workspace.ways);
  const days = fromOn === toOn ? day(fromOn) : `${day(fromOn)} to ${day(toOn)}`;
  const by = byId === null ? null : office.nameOf(byId);
  return toldAsked(office, 'leave', heardOfLeave(before?.state ?? null, { state, personId }, byId), byId, (turn) =>
    turn === 'asks'
      ? {
          title: `${office.nameOf(personId) ?? 'Somebody'} asks for ${days} off`,
          text: 'See what it would change before you decide',
          path: `/team/${personId}`,
        }
      : {
          title: `Your leave, ${days}`,
          text: `${ASKED_WORDS[turn]}${by === null ? '' : ` by ${by}`}`,
          path: `/team/${personId}`,
        },
  );
}

function toldOfSwap(scope: Scope, office: Office, { byId, after }: Noted<NotedSwap>): Told[] {
  if (after === null) return [];
  const { asked_by: askedBy, asked_of: askedOf, gives, takes, state, note } = after;
  const day = (on: string) => sayDay(dayOfIso(on), scope.now.day, scope.workspace.ways);
  const [asker, other] = [office.nameOf(askedBy) ?? 'Somebody', office.nameOf(askedOf) ?? 'somebody'];
  return toldAsked(office, 'swap', heardOfSwap({ state, askedBy, askedOf }, byId), byId, (turn) => ({
    title:
      turn === 'asks'
        ? `${asker} asks to swap ${day(gives)} for ${day(takes)}`
        : `The swap of ${day(gives)} for ${day(takes)}`,
    text: turn === 'asks' ? [`with ${other}`, note].filter(Boolean).join(': ') : ASKED_WORDS[turn],
    path: '/day-sheet',
  }));
}

function toldOfRun(office: Office, { subjectId, after }: Noted<NotedRun>): Told[] {
  if (after === null) return [];
  const { problems, leftOut } = after;
  const left = [
    problems > 0 ? `${plural(problems, 'schedule')} could not be followed` : '',
    leftOut > 0 ? `${plural(leftOut, 'date')} left out` : '',
  ].filter(Boolean);
  return office.answering('run').map((personId) => ({
    ...{ personId, side: 'gave', kind: 'run', times: 1, taskId: null, byId: null },
    ...{ title: `A run left work out`, text: left.join(', '), path: `/fill/run/${subjectId}` },
  }));
}

/** A mail that does not arrive is told here alone: by mail it might go the same way, for ever. */
function toldOfMail(office: Office, { subjectId, after }: Noted<NotedMail>): Told[] {
  if (after === null) return [];
  const { toName, toEmail, subject, trouble } = after;
  return office.answering('mail').map((personId) => ({
    ...{ personId, side: 'gave', kind: 'mail', times: 1, taskId: null, byId: null, isHereAlone: true },
    ...{ title: `The mail to ${toName} was refused`, text: `${subject}, ${toEmail}: ${trouble ?? ''}` },
    path: `/post/${subjectId}`,
  }));
}
