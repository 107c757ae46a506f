import { BELL_LINES, type BellLine } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { MessageRecord } from './entity.ts';

/** Somebody who is named, or nudged about work, by whoever does it. */
export interface Ring {
  readonly personId: string;
  readonly taskId: string;
  /** How the task is called. */
  readonly title: string;
  /** What is said of it. */
  readonly text: string;
  /** Tasks besides that one. */
  readonly more?: number;
}

/** Puts lines on the bells of some people, which ring once the transaction stands; whether they go by mail is decided after it. */
export async function ring(scope: Scope, rings: readonly Ring[]): Promise<void> {
  const by = scope.person?.id;
  if (by === undefined || rings.length === 0) return;
  for (const { more = 0, ...told } of rings)
    await scope.insert(MessageRecord, {
      ...{ ...told, id: scope.newId(), kind: 'named', side: 'mine', more, path: null },
      ...{ at: scope.instant, by, here: true, readAt: null, mail: 'undecided', mailAt: null },
      ...{ push: 'undecided', pushAt: null, pushHeld: null },
    });
  await tellBells(
    scope,
    rings.map(({ personId }) => personId),
  );
}

export async function tellBells(scope: Scope, people: readonly string[]): Promise<void> {
  if (people.length > 0)
    await scope.tellOf({ topics: ['bell'], tasks: null, people: [...new Set(people)], load: false });
}

interface Row extends Omit<BellLine, 'at' | 'isRead' | 'path' | 'times'> {
  readonly at: Date;
  readonly taskId: string | null;
  readonly more: number;
  readonly path: string | null;
  readonly readAt: Date | null;
}

/** The newest lines of whoever asks, or those before one; and how many of all they have not seen. */
export async function bellOf(
  scope: Scope,
  before: string | undefined,
): Promise<{ unread: number; lines: BellLine[]; isMore: boolean }> {
  const [rows, unread] = await scope.atOnce(
    () =>
      scope.sql<Row>(
        `select id, kind, side, at, title, text, more, path, read_at as "readAt", task_id as "taskId" from message
         where workspace_id = $1 and person_id = $2 and here and ($3::uuid is null or id < $3) order by id desc limit ${BELL_LINES + 1}`,
        [scope.person?.id ?? null, before ?? null],
      ),
    () => unreadOf(scope),
  );
  const lines = rows.slice(0, BELL_LINES).map(({ taskId, path, readAt, at, more, ...line }) => ({
    ...line,
    at: scope.moment(at),
    times: more + 1,
    path: pathOf({ taskId, path }),
    taskId: more === 0 ? taskId : null,
    isRead: readAt !== null,
  }));
  return { unread, lines, isMore: rows.length > BELL_LINES };
}

/** Where a line leads: to its task, unless it says where. */
export const pathOf = ({ taskId, path }: Pick<MessageRecord, 'taskId' | 'path'>): string =>
  path ?? (taskId === null ? '/day-sheet' : `/tasks/task/${taskId}?due=any`);

/** What stands there up to a line has been seen; what has come since has not. */
export function readBell(scope: Scope, upTo: string): Promise<{ unread: number }> {
  return scope.transaction(async (tx) => {
    const personId = tx.person?.id ?? null;
    const seen = await tx.sql<{ id: string }>(
      'update message set read_at = $4 where workspace_id = $1 and person_id = $2 and id <= $3 and here and read_at is null returning id',
      [personId, upTo, tx.instant],
    );
    // Other pages of the same person show it too.
    if (seen.length > 0 && personId !== null) await tellBells(tx, [personId]);
    return { unread: await unreadOf(tx) };
  });
}

async function unreadOf(scope: Scope): Promise<number> {
  const [row] = await scope.sql<{ count: number }>(
    'select count(*)::int as count from message where workspace_id = $1 and person_id = $2 and here and read_at is null',
    [scope.person?.id ?? null],
  );
  return row?.count ?? 0;
}
