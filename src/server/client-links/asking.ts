import {
  type AskKind,
  dayOfIso,
  firstName,
  groupBy,
  isoOfDay,
  isToDo,
  type LinkOpens,
  linkEnds,
  mailOwed,
  tryMinutesOfTime,
} from '../../core/index.ts';
import { Client, type Contact } from '../clients/index.ts';
import { newToken } from '../platform/digest.ts';
import type { Scope } from '../platform/scope.ts';
import { post, takesMails } from '../post/index.ts';
import { isForClient, lockedTasks, MAILED_FIRST, type Task } from '../tasks/stored/index.ts';
import { ClientAsk, ClientLink } from './entity.ts';
import { type AskedFor, letterOf } from './letter.ts';

export type Addressee = Pick<Contact, 'id' | 'name' | 'email'>;

/** Contacts of a client that mail can go to, the one who is asked first. */
export function addressees(scope: Scope, clientId: string): Promise<(Addressee & Pick<Contact, 'role'>)[]> {
  return scope.sql(
    `select of.id, of.name, of.email, of.role from contact of
     where of.workspace_id = $1 and of.client_id = $2 and of.email <> '' and ${takesMails('$1', 'of.email')} order by ${MAILED_FIRST}`,
    [clientId],
  );
}

interface Asking {
  readonly clientId: string;
  readonly contact: Addressee;
  readonly tasks: readonly { readonly task: Task; readonly kind: AskKind }[];
  readonly opens: LinkOpens;
  readonly needsCode: boolean;
  /** Scheme and host under which this server is reached. */
  readonly origin: string;
}

/** Makes a link and the mail that holds it: in the transaction of what it tells of. Tasks of one client, held against others. */
export async function sendAsk(scope: Scope, asking: Asking): Promise<void> {
  const { clientId, contact, tasks, opens, needsCode, origin } = asking;
  const [first] = tasks;
  if (first === undefined) return;
  const { token, digest } = newToken();
  const { asking: rules } = scope.workspace;
  const endsOn = isoOfDay(Math.max(...tasks.map(({ task }) => linkEnds(dayOfIso(task.dueOn), scope.now.day, rules))));
  const { id: linkId } = await scope.insert(ClientLink, {
    id: scope.newId(),
    ...{ clientId, contactId: contact.id, name: contact.name, email: contact.email },
    taskId: opens === 'one' ? first.task.id : null,
    ...{ digest, needsCode, madeAt: scope.instant, madeBy: scope.person?.id ?? null, endsOn },
    ...{ openedAt: null, withdrawnAt: null, codeDigest: null, codeAt: null, codeTries: 0, codesSent: 0, passes: [] },
  });
  for (const { task, kind } of tasks)
    await scope.insert(ClientAsk, {
      id: scope.newId(),
      ...{ linkId, taskId: task.id, kind, askedOn: scope.today, dueOn: task.dueOn, at: scope.instant },
    });
  await post(scope, {
    reason: `task ${linkId}`,
    kind: 'task',
    to: { name: contact.name, email: contact.email },
    isPrivate: true,
    about: { clientId, taskId: tasks.length === 1 ? first.task.id : null },
    letter: letterOf({
      from: scope.workspace.name,
      contact: contact.name,
      tasks: tasks.map(({ task, kind }) => askedFor(task, kind)),
      url: `${origin}/for-you#${token}`,
      endsOn,
      today: scope.now.day,
      ways: scope.workspace.ways,
      rings: await ringsOf(scope, clientId),
    }),
  });
  await scope.recordEach(
    tasks.map(({ task }) => ({ subject: 'task', subjectId: task.id, action: 'asked', fields: {} })),
  );
  await scope.tell('tasks');
}

function askedFor(task: Task, kind: AskKind): AskedFor {
  const { title, dueOn, estimateMinutes, demands, checkLines, sentBack } = task;
  return {
    ...{ kind, title, dueOn, estimateMinutes },
    asks: [...demands.map(({ label }) => label), ...checkLines.map(({ text }) => text)].filter((words) => words !== ''),
    sentBack: sentBack.at(-1)?.reason ?? null,
  };
}

export interface Rings {
  /** First name of whoever looks after the client; null where nobody does. */
  readonly name: string | null;
  readonly telephone: string;
  readonly answered: string;
}

/** Whom a client rings who is not sure; null where no number is set. Of people here no more than a first name goes out. */
export async function ringsOf(scope: Scope, clientId: string): Promise<Rings | null> {
  const { telephone, answered } = scope.workspace.asking;
  if (telephone === '') return null;
  const { usualPersonId } = await scope.one(Client, clientId, 'client');
  const name = usualPersonId === null ? undefined : (await scope.peopleNames()).get(usualPersonId);
  return { name: name === undefined ? null : firstName(name), telephone, answered };
}

/** Tasks that are looked at in one go; those of one client beyond it have a mail of their own. */
const AT_ONCE = 200;

/** What clients may be owed a mail for: theirs, to be done, seen by now, and not held up. */
const TO_ASK = `t.workspace_id = $1 and t.offered_to->>'of' = 'client' and t.assignee_id is null and t.client_id is not null
  and t.state in ('open', 'underWay') and t.appears_on <= $2 and (t.held_until is null or t.held_until <= $2)`;

/**
 * Sends clients what they are owed, each in a transaction of its own, so that a fall loses and doubles nothing. Before the time
 * of day from which such mails leave only what was sent back goes.
 * @returns how many mails went
 */
export async function askOwed(scope: Scope, origin: string): Promise<number> {
  const { asking, askedOn } = scope.workspace;
  const isTime = scope.now.minutes >= (tryMinutesOfTime(asking.sendFrom) ?? 0);
  let sent = 0;
  let after = NOTHING_BEFORE;
  for (;;) {
    const rows = await scope.sql<ToAsk>(
      `select t.id, t.client_id as "clientId", t.appears_on as "appearsOn", t.due_on as "dueOn", t.sent_back as "sentBack"
       from task t join client c on c.workspace_id = t.workspace_id and c.id = t.client_id
       where ${TO_ASK} and c.archived_at is null and (t.client_id, t.id) > ($3::uuid, $4::uuid)
       order by t.client_id, t.id limit ${AT_ONCE}`,
      [scope.today, after.clientId, after.id],
    );
    // Most are owed nothing: they are told from what went, without holding any of them.
    const asks = await asksOf(
      scope,
      rows.map(({ id }) => id),
    );
    const owed = rows.filter((row) => owedFor(scope, row, asks.get(row.id) ?? [], isTime) !== null);
    for (const ids of mailsOf(owed, asking.opens)) if (await askFor(scope, ids, isTime, origin)) sent++;
    const last = rows.at(-1);
    if (last === undefined || rows.length < AT_ONCE) break;
    after = last;
  }
  if (isTime && askedOn !== scope.today) await scope.saveWorkspace({ askedOn: scope.today });
  return sent;
}

interface ToAsk extends Pick<Task, 'id' | 'appearsOn' | 'dueOn' | 'sentBack'> {
  readonly clientId: string;
}
const NOTHING_BEFORE = {
  clientId: '00000000-0000-0000-0000-000000000000',
  id: '00000000-0000-0000-0000-000000000000',
};

/** Tasks that go with one mail: each by itself, or those of one client together. */
function mailsOf(rows: readonly { readonly id: string; readonly clientId: string }[], opens: LinkOpens): string[][] {
  if (opens === 'one') return rows.map(({ id }) => [id]);
  const byClient = groupBy(rows, ({ clientId }) => clientId);
  return [...byClient.values()].map((of) => of.map(({ id }) => id));
}

/** One mail for those of some tasks of a client that a mail is owed for, as they are now. */
function askFor(scope: Scope, ids: readonly string[], isTime: boolean, origin: string): Promise<boolean> {
  return scope.transaction(async (tx) => {
    const tasks = (await lockedTasks(tx, ids)).filter(isAsked);
    const asks = await asksOf(tx, ids);
    const owed = tasks.flatMap((task) => {
      const kind = owedFor(tx, task, asks.get(task.id) ?? [], isTime);
      return kind === null ? [] : [{ task, kind }];
    });
    const clientId = owed[0]?.task.clientId;
    if (clientId === undefined || clientId === null) return false;
    const known = await addressees(tx, clientId);
    const before = asks.get(owed[0]?.task.id ?? '')?.at(-1)?.contactId;
    const contact = known.find(({ id }) => id === before) ?? known[0];
    if (contact === undefined) return false;
    const { opens, needsCode } = tx.workspace.asking;
    await sendAsk(tx, { clientId, contact, tasks: owed, opens, needsCode, origin });
    return true;
  });
}

const isAsked = (task: Task): boolean => isForClient(task) && isToDo(task.state);

type KnownAsk = Pick<ClientAsk, 'taskId' | 'kind' | 'askedOn' | 'dueOn' | 'at'> & { readonly contactId: string };

/** What was asked for some tasks, by their ids, oldest first. */
export async function asksOf(scope: Scope, taskIds: readonly string[]): Promise<ReadonlyMap<string, KnownAsk[]>> {
  const rows = await scope.sql<KnownAsk>(
    `select a.task_id as "taskId", a.kind, a.asked_on as "askedOn", a.due_on as "dueOn", a.at, l.contact_id as "contactId"
     from client_ask a join client_link l on l.workspace_id = a.workspace_id and l.id = a.link_id
     where a.workspace_id = $1 and a.task_id = any($2::uuid[]) order by a.id`,
    [taskIds],
  );
  return groupBy(rows, ({ taskId }) => taskId);
}

/** @param isTime whether mails leave by now: before that only what was sent back goes */
function owedFor(
  scope: Scope,
  task: Pick<Task, 'appearsOn' | 'dueOn' | 'sentBack'>,
  asks: readonly KnownAsk[],
  isTime: boolean,
): AskKind | null {
  const back = task.sentBack.at(-1);
  const kind = mailOwed(
    {
      appearsOn: dayOfIso(task.appearsOn),
      dueOn: dayOfIso(task.dueOn),
      backAt: back ? Date.parse(back.at) : null,
      asks: asks.map(({ kind, at, askedOn, dueOn }) => ({
        ...{ kind, at: at.getTime(), on: dayOfIso(askedOn), dueOn: dayOfIso(dueOn) },
      })),
    },
    scope.workspace.asking,
    scope.now.day,
  );
  return isTime || kind === 'sentBack' ? kind : null;
}
