import {
  type AskedTurn,
  dayOfIso,
  type Heard,
  type HeardAsked,
  heardOfLeave,
  heardOfSwap,
  heardOfTurn,
  type MessageWords,
  type Right,
  sayLeave,
  sayRun,
  saySwap,
  sayTurns,
  type TaskFacts,
  type ToldTask,
} from '../../core/index.ts';
import type { Leave } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { TurnSwap } from '../schedules/index.ts';
import { giversOf } from './givers.ts';
import {
  type Noted,
  type NotedAnswer,
  type NotedBroughtIn,
  type NotedComment,
  type NotedList,
  type NotedOpened,
  type NotedStop,
  toAnswering,
  toldOfAnswers,
  toldOfBroughtIn,
  toldOfComments,
  toldOfLists,
  toldOfOpened,
  toldOfStop,
} from './happenings.ts';
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
  readonly authorId: string | null;
  readonly clientId: string | null;
}

interface NotedBySubject {
  readonly task: Noted<NotedTask>;
  readonly leave: Noted<NotedLeave>;
  readonly swap: Noted<NotedSwap>;
  readonly run: Noted<NotedRun>;
  readonly mail: Noted<NotedMail>;
  readonly comment: Noted<NotedComment>;
  readonly opened: Noted<NotedOpened>;
  readonly list: Noted<NotedList>;
  readonly broughtIn: Noted<NotedBroughtIn>;
  readonly answer: Noted<NotedAnswer>;
  readonly stopped: Noted<NotedStop>;
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
      ...(await toldOfComments(tx, office, noted.comment)),
      ...(await toldOfOpened(tx, office, noted.opened)),
      ...(await toldOfLists(tx, office, noted.list)),
      ...noted.broughtIn.flatMap((one) => toldOfBroughtIn(office, one)),
      ...(await toldOfAnswers(tx, office, noted.answer)),
      ...noted.stopped.flatMap((one) => toldOfStop(office, one)),
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
  return {
    ...{ task: of('task'), leave: of('leave'), swap: of('swap'), run: of('run'), mail: of('mail') },
    ...{ comment: of('comment'), opened: of('opened'), list: of('list'), broughtIn: of('broughtIn') },
    ...{ answer: of('answer'), stopped: of('stopped') },
  };
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
          : 'anyOf' in one.to
            ? office.whoMayTake(one.to.anyOf, dayOfIso((noted.after ?? noted.before)?.dueOn ?? scope.today))
            : [one.to.personId];
      const own = new Set(all.flatMap(({ to }) => (to === 'answering' || 'anyOf' in to ? [] : [to.personId])));
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
  const telling = office.telling(scope);
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
  words: (turn: AskedTurn) => MessageWords & { readonly path: string },
): Told[] {
  return heard.flatMap(({ side, turn, to }) =>
    (to === 'answering' ? office.answering('asked', decides) : [to.personId]).flatMap((personId): Told[] =>
      personId === byId ? [] : [{ personId, side, kind: 'asked', times: 1, taskId: null, byId, ...words(turn) }],
    ),
  );
}

function toldOfLeave(scope: Scope, office: Office, { byId, before, after }: Noted<NotedLeave>): Told[] {
  if (after === null) return [];
  const { person_id: personId, from_on: fromOn, to_on: toOn, state } = after;
  return toldAsked(office, 'leave', heardOfLeave(before?.state ?? null, { state, personId }, byId), byId, (turn) => ({
    ...sayLeave(turn, { personId, fromOn, toOn }, byId, office.telling(scope)),
    path: `/team/${personId}`,
  }));
}

function toldOfSwap(scope: Scope, office: Office, { byId, after }: Noted<NotedSwap>): Told[] {
  if (after === null) return [];
  const { asked_by: askedBy, asked_of: askedOf, gives, takes, state, note } = after;
  return toldAsked(office, 'swap', heardOfSwap({ state, askedBy, askedOf }, byId), byId, (turn) => ({
    ...saySwap(turn, { askedBy, askedOf, gives, takes, note }, office.telling(scope)),
    path: '/day-sheet',
  }));
}

function toldOfRun(office: Office, { subjectId, after }: Noted<NotedRun>): Told[] {
  return after === null ? [] : toAnswering(office, 'run', { ...sayRun(after), path: `/fill/run/${subjectId}` });
}

/** A mail that does not arrive is told here alone: by mail it might go the same way, for ever. */
function toldOfMail(office: Office, { subjectId, after }: Noted<NotedMail>): Told[] {
  if (after === null) return [];
  const { toName, toEmail, subject, trouble, authorId, clientId } = after;
  const words = { title: `The mail to ${toName} was refused`, text: `${subject}, ${toEmail}: ${trouble ?? ''}` };
  const all = toAnswering(office, 'mail', { ...words, path: `/post/${subjectId}` });
  // Whoever wrote it hears of it too, where they may not read what leaves: it leads them to the client.
  const isTold = authorId === null || all.some(({ personId }) => personId === authorId);
  const path = clientId === null ? null : `/clients/${clientId}`;
  const own: Told[] = isTold
    ? []
    : [{ ...words, personId: authorId, side: 'mine', kind: 'mail', times: 1, taskId: null, byId: null, path }];
  return [...all, ...own].map((told) => ({ ...told, isHereAlone: true }));
}
