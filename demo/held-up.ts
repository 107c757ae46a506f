import { isoOfDay } from '../src/core/index.ts';
import { MessageRecord } from '../src/server/bell/index.ts';
import { CommentRecord } from '../src/server/comments/index.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { TaskRecord } from '../src/server/tasks/stored/index.ts';

const MINUTE = 60_000;

/** What every line on a bell has that somebody was named or nudged by, and has not seen. */
const RUNG: Pick<
  MessageRecord,
  'kind' | 'side' | 'more' | 'path' | 'here' | 'readAt' | 'mail' | 'mailAt' | 'push' | 'pushAt' | 'pushHeld'
> = {
  ...{
    kind: 'named',
    side: 'mine',
    more: 0,
    path: null,
    here: true,
    readAt: null,
    mail: 'no',
    mailAt: null,
    push: 'no',
    pushAt: null,
    pushHeld: null,
  },
};

interface Around {
  readonly scope: Scope;
  readonly people: ReadonlyMap<string, string>;
}

/** What can't go on for now, who was nudged, and what was said about it this morning. */
export async function holdUp({ scope, people }: Around): Promise<void> {
  const idOf = (key: string) => people.get(key) as string;
  const ago = (minutes: number) => new Date(scope.instant.getTime() - minutes * MINUTE);
  const held: readonly {
    readonly title: string;
    readonly inDays: number;
    readonly reason: string;
    readonly by: string;
  }[] = [
    { title: 'Extinguisher 4', inDays: 2, reason: 'extinguisher on order', by: 'joss' },
    { title: 'Hose reel 3', inDays: 3, reason: 'wrong thread sent', by: 'selwyn' },
  ];
  for (const { title, inDays, reason, by } of held) {
    const task = await nextOf(scope, title);
    if (!task) continue;
    await scope.save(TaskRecord, task.id, {
      ...{ heldUntil: isoOfDay(scope.now.day + inDays), heldReason: reason, heldAt: ago(52), heldBy: idOf(by) },
    });
    await say({ scope, people }, task, [
      [by, 51, `@Ines Calloway ${reason}, the shop says ${inDays} days. The rest of it is done.`, ['ines']],
      ['ines', 34, 'Thanks. The spare from the workshop stands in until then.', []],
    ]);
  }
  // One of those who are late was nudged this morning; what is older lapses with the next run.
  const [late] = await scope.sql<{ id: string; title: string; personId: string }>(
    `select id, title, assignee_id as "personId" from task
     where workspace_id = $1 and state = 'open' and assignee_id is not null and held_until is null and due_on between $2::date - 5 and $2::date - 1
       and assignee_id = any($3::uuid[])
     order by due_on, id limit 1`,
    [scope.today, ['maud', 'nadia', 'bram', 'kit'].map(idOf)],
  );
  if (!late) return;
  await scope.sql('update task set nudged_at = $3, nudged_by = $4 where workspace_id = $1 and id = $2', [
    late.id,
    ago(28),
    idOf('ines'),
  ]);
  await scope.insert(MessageRecord, {
    ...{ id: scope.newId(), personId: late.personId, taskId: late.id, title: late.title },
    ...{ text: 'Ines Calloway nudges you', at: ago(28), by: idOf('ines'), ...RUNG },
  });
}

/** The soonest task of such a title that is to be done. */
async function nextOf(scope: Scope, title: string): Promise<{ id: string; title: string } | undefined> {
  const [task] = await scope.sql<{ id: string; title: string }>(
    `select id, title from task where workspace_id = $1 and state in ('open', 'underWay') and title like $2
     order by due_on, id limit 1`,
    [`${title}%`],
  );
  return task;
}

/** Comments on a task, and the bells of those who are named in them. */
async function say(
  { scope, people }: Around,
  { id: taskId, title }: { readonly id: string; readonly title: string },
  comments: readonly (readonly [by: string, minutesAgo: number, text: string, named: readonly string[]])[],
): Promise<void> {
  const names = await scope.peopleNames();
  for (const [key, minutesAgo, text, named] of comments) {
    const by = people.get(key) as string;
    const at = new Date(scope.instant.getTime() - minutesAgo * MINUTE);
    await scope.insert(CommentRecord, { id: scope.newId(), sendKey: scope.newId(), taskId, text, at, by });
    for (const one of named)
      await scope.insert(MessageRecord, {
        ...{ id: scope.newId(), personId: people.get(one) as string, taskId, title },
        ...{ text: `${names.get(by)} named you: ${text}`, at, by, ...RUNG },
      });
  }
}
