import { KIND_WORDS, type MessageKind, plural } from '../../core/index.ts';
import { type MessageRecord, pathOf } from '../bell/index.ts';
import type { Scope } from '../platform/scope.ts';
import { PushDevice, type PushKeys, type Sign, sendPush } from '../push/index.ts';
import { decide } from './deciding.ts';

type Line = Pick<MessageRecord, 'id' | 'personId' | 'kind' | 'title' | 'text' | 'taskId' | 'path'>;

/** Somebody's signs that go at once are told one by one up to here; more of them in one. */
const ONE_BY_ONE = 3;
/** For so long a line is held by whoever sends it, longer than all of them take where no service answers; after so long nobody tries any more. */
const HELD_SECONDS = 300;
const GIVEN_UP_MINUTES = 30;
const MOST_AT_ONCE = 2_000;
/** People whose devices are sent to beside each other. */
const BESIDE = 16;

/**
 * Sends what may go to devices by now. A line is held first, so that two who send at once never have the same one; whoever
 * falls in between sends it again under the same tag, by which a device shows it once. @returns how many signs were taken
 */
export async function pushMessages(scope: Scope, keys: () => Promise<PushKeys>, contact: string): Promise<number> {
  await decide(scope, 'push');
  const lines = await scope.sql<Line>(
    `with due as materialized (
       select id from message where workspace_id = $1 and push = 'waits' and push_at <= $2
         and (push_held is null or push_held <= clock_timestamp()) order by id limit ${MOST_AT_ONCE} for update skip locked)
     update message m set push_held = clock_timestamp() + make_interval(secs => $3) from due
     where m.workspace_id = $1 and m.id = due.id
     returning m.id, m.person_id as "personId", m.kind, m.title, m.text, m.task_id as "taskId", m.path`,
    [scope.instant, HELD_SECONDS],
  );
  const people = new Map<string, Line[]>();
  for (const line of lines.sort((a, b) => (a.id < b.id ? -1 : 1)))
    people.set(line.personId, [...(people.get(line.personId) ?? []), line]);
  let taken = 0;
  const by = people.size > 0 ? { keys: await keys(), contact } : null;
  const waiting = [...people];
  const sender = async (): Promise<void> => {
    for (let next = waiting.pop(); next !== undefined && by !== null; next = waiting.pop()) {
      // Added after the wait: others have added meanwhile.
      const signs = await pushTo(scope, next[0], next[1], by);
      taken += signs;
    }
  };
  await Promise.all(Array.from({ length: BESIDE }, sender));
  return taken;
}

async function pushTo(
  scope: Scope,
  personId: string,
  lines: readonly Line[],
  by: { readonly keys: PushKeys; readonly contact: string },
): Promise<number> {
  const devices = await scope.find(PushDevice, { personId });
  let taken = 0;
  for (const { sign, ids } of signsOf(lines)) {
    let missed = false;
    for (const device of devices) {
      const sent = await sendPush(device, sign, by);
      if (sent.kind === 'taken') taken++;
      missed ||= sent.kind === 'trouble';
      await note(scope, device.id, sent);
    }
    // Where one was missed all are tried again, until it is no news any more: those that have it show it once.
    await scope.sql(
      `update message set push = case when not $3 then 'sent' when push_at < $4::timestamptz - make_interval(mins => ${GIVEN_UP_MINUTES}) then 'failed' else 'waits' end,
         push_at = case when $3 and push_at >= $4::timestamptz - make_interval(mins => ${GIVEN_UP_MINUTES}) then push_at end,
         push_held = case when $3 then clock_timestamp() + interval '1 minute' end
       where workspace_id = $1 and id = any($2::uuid[]) and push = 'waits'`,
      [ids, missed, scope.instant],
    );
  }
  return taken;
}

async function note(scope: Scope, id: string, sent: Awaited<ReturnType<typeof sendPush>>): Promise<void> {
  if (sent.kind === 'gone') await scope.sql('delete from push_device where workspace_id = $1 and id = $2', [id]);
  else
    await scope.sql(
      'update push_device set told_at = case when $3::text is null then $4 else told_at end, trouble = $3 where workspace_id = $1 and id = $2',
      [id, sent.kind === 'trouble' ? sent.says : null, scope.instant],
    );
}

/** A sign for each of a few lines; of many one that counts them by kind. */
function signsOf(lines: readonly Line[]): { readonly sign: Sign; readonly ids: string[] }[] {
  if (lines.length <= ONE_BY_ONE)
    return lines.map((line) => ({
      sign: { title: line.title, body: line.text, path: pathOf(line), tag: line.id },
      ids: [line.id],
    }));
  const counts = new Map<MessageKind, number>();
  for (const { kind } of lines) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const body = [...counts].map(([kind, count]) => `${count} ${KIND_WORDS[kind].short}`).join(', ');
  const tag = lines[0]?.id ?? '';
  return [{ sign: { title: plural(lines.length, 'thing'), body, path: '/', tag }, ids: lines.map(({ id }) => id) }];
}
