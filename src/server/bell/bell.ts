import { BELL_LINES, type BellKind, type BellLine } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { BellRecord } from './entity.ts';

/** What somebody is to hear of, from whoever does something. */
export interface Ring {
  readonly personId: string;
  readonly kind: BellKind;
  readonly taskId: string;
  readonly text: string;
  /** Tasks besides that one. */
  readonly more?: number;
}

/** Puts lines on the bells of some people, which ring once the transaction stands. */
export async function ring(scope: Scope, rings: readonly Ring[]): Promise<void> {
  const by = scope.person?.id;
  if (by === undefined || rings.length === 0) return;
  for (const { personId, kind, taskId, text, more = 0 } of rings)
    await scope.insert(BellRecord, {
      ...{ id: scope.newId(), personId, kind, taskId, more, text },
      ...{ at: scope.instant, by, readAt: null },
    });
  const people = [...new Set(rings.map(({ personId }) => personId))];
  await scope.tellOf({ topics: ['bell'], tasks: null, people, load: false });
}

/** The newest lines of whoever asks, and how many of all they have not seen. */
export async function bellOf(scope: Scope): Promise<{ unread: number; lines: BellLine[] }> {
  const personId = scope.person?.id ?? null;
  const [rows, unread] = await scope.atOnce(
    () =>
      scope.sql<
        Omit<BellLine, 'at' | 'task' | 'isRead'> & { at: Date; taskId: string; title: string; readAt: Date | null }
      >(
        `select line.id, line.kind, line.at, line.text, line.more, line.read_at as "readAt", line.task_id as "taskId",
           task.title, who.name as by
         from bell_line line
         join task on task.workspace_id = line.workspace_id and task.id = line.task_id
         join person who on who.workspace_id = line.workspace_id and who.id = line.by
         where line.workspace_id = $1 and line.person_id = $2 order by line.id desc limit ${BELL_LINES}`,
        [personId],
      ),
    () => unreadOf(scope),
  );
  const lines = rows.map(({ taskId, title, readAt, at, ...line }) => ({
    ...line,
    at: scope.moment(at),
    task: { id: taskId, title },
    isRead: readAt !== null,
  }));
  return { unread, lines };
}

/** What stands there up to a line has been seen; what has come since has not. */
export function readBell(scope: Scope, upTo: string): Promise<{ unread: number }> {
  return scope.transaction(async (tx) => {
    const personId = tx.person?.id ?? null;
    const seen = await tx.sql<{ id: string }>(
      'update bell_line set read_at = $4 where workspace_id = $1 and person_id = $2 and id <= $3 and read_at is null returning id',
      [personId, upTo, tx.instant],
    );
    // Other pages of the same person show it too.
    if (seen.length > 0 && personId !== null)
      await tx.tellOf({ topics: ['bell'], tasks: null, people: [personId], load: false });
    return { unread: await unreadOf(tx) };
  });
}

async function unreadOf(scope: Scope): Promise<number> {
  const [row] = await scope.sql<{ count: number }>(
    'select count(*)::int as count from bell_line where workspace_id = $1 and person_id = $2 and read_at is null',
    [scope.person?.id ?? null],
  );
  return row?.count ?? 0;
}
